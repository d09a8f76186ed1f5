import type { CircuitModel } from '../circuit/model';
import { areLineVolts } from '../safety/lineVolts';

/** Insulation test volts for circuits up to, and above, extra-low voltage (reference section 16). */
export const TESTER_VOLTS = { low: 250, line: 500 };

/**
 * Insulation test volts for the circuit that some nodes belong to: 24 V wiring beside a line supply is 24 V wiring. A circuit that
 * nothing feeds is tested with the lower of the two.
 */
export function testerVolts(model: CircuitModel, nodes: readonly string[]): number {
  return areLineVolts(ownVolts(model, nodes)) ? TESTER_VOLTS.line : TESTER_VOLTS.low;
}

/** Highest nominal volts of the circuits that some nodes belong to; 0 where nothing feeds them. */
export function ownVolts({ compiled }: CircuitModel, nodes: readonly string[]): number {
  return nodes.reduce(
    (top, name) => Math.max(top, compiled.volts[compiled.nodeIndex.get(name) ?? -1] ?? 0),
    0,
  );
}
