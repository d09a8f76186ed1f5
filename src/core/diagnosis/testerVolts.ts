import { areLineVolts } from '../safety/lineVolts';

/** Insulation test volts for circuits up to, and above, extra-low voltage (reference section 16). */
const TESTER_VOLTS = { low: 250, line: 500 };

export function testerVolts(supplyVolts: number): number {
  return areLineVolts(supplyVolts) ? TESTER_VOLTS.line : TESTER_VOLTS.low;
}
