import { areLineVolts } from '../safety/lineVolts';

/** Marks that sites hold insulation against; `table` is the row of its class. */
export const INSULATION_PASSES = ['table', 'megohm', 'kvPlusOne', 'overRange'] as const;
export type InsulationPass = (typeof INSULATION_PASSES)[number];

export type CircuitClass = 'extraLow' | 'line' | 'high';
/** Up to here the line's class holds, volts (IEC 60364-6; reference section 16). */
export const LINE_MOST = 500;

/** Class of a circuit of these volts. */
export function insulationClass(circuitVolts: number): CircuitClass {
  if (!areLineVolts(circuitVolts)) return 'extraLow';
  return circuitVolts <= LINE_MOST ? 'line' : 'high';
}

/** What a shop holds insulation against: least ohms with their standard, by class, and which mark stands. */
export interface InsulationMarks {
  insulation: Readonly<Record<CircuitClass, { ohms: number; standard: string }>>;
  insulationPass: InsulationPass;
}

export const OHMS_IN_MEGOHM = 1e6;

/** Ohms from which insulation passes in a circuit of these volts, and where that comes from; infinite where only over range passes. */
export function insulationMark(
  circuitVolts: number,
  { insulation, insulationPass }: InsulationMarks,
): { ohms: number; by: Exclude<InsulationPass, 'table'> | { standard: string } } {
  if (insulationPass === 'table') {
    const { ohms, standard } = insulation[insulationClass(circuitVolts)];
    return { ohms, by: { standard } };
  }
  return { ohms: passOhms(insulationPass, circuitVolts), by: insulationPass };
}

/** Ohms of one of the trade's marks. */
export function passOhms(pass: Exclude<InsulationPass, 'table'>, circuitVolts: number): number {
  switch (pass) {
    case 'megohm':
      return OHMS_IN_MEGOHM;
    case 'kvPlusOne':
      return (circuitVolts / 1000 + 1) * OHMS_IN_MEGOHM;
    case 'overRange':
      return Infinity;
  }
}
