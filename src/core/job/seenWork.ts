import type { CircuitModel } from '../circuit/model';

/**
 * Whether an operator sees what a load does. Relays and resistors do no work that anybody sees, nor does a valve's coil where
 * what the valve moves is drawn and moves as well.
 */
export function isSeenWorking(model: CircuitModel, ref: string, moves: boolean): boolean {
  const { parts } = model.compiled.circuit;
  const { kind } = parts.find((one) => one.ref === ref)!;
  if (kind === 'relay' || kind === 'resistor') return false;
  return !(moves && parts.some((one) => one.kind === 'valve' && (one.coil === ref || one.coil2 === ref)));
}
