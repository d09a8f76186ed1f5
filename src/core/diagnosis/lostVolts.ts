import type { CircuitModel } from '../circuit/model';
import { ownVolts } from './testerVolts';

/** Feed or return of a load: share of the supply that a sound run may lose. */
export const LOST_SHARE = 0.03;
/** A drop of less is nobody's fault, volts. */
const LEAST_DROP = 0.1;

/** Volts that a run between two nodes may lose at work: twice what the drawing has it lose, where that is more than the usual share. */
export function mostLost(model: CircuitModel, ends: readonly [string, string], expected: number): number {
  return Math.max(LEAST_DROP, LOST_SHARE * ownVolts(model, [...ends]), 2 * Math.abs(expected));
}
