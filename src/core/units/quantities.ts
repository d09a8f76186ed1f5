/**
 * Quantities and their units: what each is in the unit that circuits and readings keep. The one place that knows what a
 * bar or a psi is.
 */
const TABLE = {
  volts: { base: 'V', units: { V: 1 } },
  amps: { base: 'A', units: { A: 1 } },
  ohms: { base: 'ohm', units: { ohm: 1 } },
  hertz: { base: 'Hz', units: { Hz: 1 } },
  /** Gauge pressure. Inches of mercury are marked on vacuum gauges, and grow with the vacuum. */
  pressure: {
    base: 'kPa',
    units: { kPa: 1, Pa: 0.001, mbar: 0.1, bar: 100, psi: 6.894757, inHg: -3.386389 },
  },
} as const;

export type Quantity = keyof typeof TABLE;
export type UnitOf<Q extends Quantity> = keyof (typeof TABLE)[Q]['units'] & string;
export type PressureUnit = UnitOf<'pressure'>;

/** Units that gauges are marked in, of which a site chooses one. */
export const GAUGE_UNITS = ['bar', 'kPa', 'psi'] as const satisfies readonly PressureUnit[];
export type GaugeUnit = (typeof GAUGE_UNITS)[number];
/** What a gauge at a place is marked in: the site's choice, or a vacuum's own. */
export type GaugeMark = GaugeUnit | 'inHg';

/** Unit in which a quantity is kept. */
export function baseUnit(quantity: Quantity): string {
  return TABLE[quantity].base;
}

/**
 * A figure in a unit, in the one that is kept; null where the unit is none of this quantity. What a vacuum gauge shows is a vacuum with
 * and without a sign.
 */
export function toBase(quantity: Quantity, unit: string, value: number): number | null {
  const units: Readonly<Record<string, number>> = TABLE[quantity].units;
  if (!Object.hasOwn(units, unit)) return null;
  const factor = units[unit]!;
  return factor < 0 ? factor * Math.abs(value) : factor * value;
}

/** A pressure kept in kPa, in another unit. */
export function pressureIn(unit: PressureUnit, kPa: number): number {
  return kPa / TABLE.pressure.units[unit];
}

/** A pressure in another unit, in kPa. */
export function kPaOf(unit: PressureUnit, value: number): number {
  return value * TABLE.pressure.units[unit];
}
