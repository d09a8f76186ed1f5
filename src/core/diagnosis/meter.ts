import type { Reading } from '../circuit/schema';

export interface MeterProfile {
  accuracyPercent: number;
  /** Counts of the last digit. */
  counts: number;
  /** Lead resistance still in the reading, ohms. */
  leadOhms: number;
}

/** The contract's default meter: 1 % + 2 counts, leads already subtracted. */
export const DEFAULT_METER: MeterProfile = { accuracyPercent: 1, counts: 2, leadOhms: 0 };

/** Full scales of a 6000-count meter's ranges. */
const VOLT_RANGES = [0.6, 6, 60, 600];
const OHM_RANGES = [600, 6e3, 6e4, 6e5, 6e6, 6e7];
const INSULATION_RANGES = [6e5, 6e6, 6e7, 6e8, 6e9];
const AMP_RANGES = [0.6, 6, 60, 600];
/** Full scales of pressure gauges, kPa. A gauge is good to a share of its scale (EN 837 class 1.6). */
const GAUGE_SCALES = [100, 400, 1000, 4000, 10_000, 25_000, 40_000];
const GAUGE_CLASS = 0.016;
const DISPLAY_COUNTS = 6000;
/** A specification is a bound; about this share of it is one standard deviation. */
const SPECIFICATION_SIGMA = 0.7;

/** Standard deviation that the meter itself adds to a value, in the reading's unit. */
export function meterSigma(kind: Reading['kind'], value: number, meter: Reading['meter']): number {
  const accuracyPercent = meter?.accuracyPercent ?? DEFAULT_METER.accuracyPercent;
  const counts = meter?.counts ?? DEFAULT_METER.counts;
  const leadOhms = meter?.leadOhms ?? DEFAULT_METER.leadOhms;
  const size = Math.abs(value);
  if (kind === 'pressure') {
    const scale = GAUGE_SCALES.find((most) => size <= most) ?? size;
    const own = meter?.accuracyPercent;
    return SPECIFICATION_SIGMA * (own === undefined ? GAUGE_CLASS * scale : (own / 100) * size);
  }
  const range = rangeOf(kind, size);
  const bound = (accuracyPercent / 100) * size + (counts * range) / DISPLAY_COUNTS;
  const leads = kind === 'ohms' ? 0.1 * leadOhms : 0;
  return leads === 0 ? SPECIFICATION_SIGMA * bound : Math.hypot(SPECIFICATION_SIGMA * bound, leads);
}

/** Full scale of the range a meter picks for a value. A plain loop: this runs for every prediction. */
function rangeOf(kind: Reading['kind'], size: number): number {
  const ranges =
    kind === 'ohms'
      ? OHM_RANGES
      : kind === 'insulation'
        ? INSULATION_RANGES
        : kind === 'amps'
          ? AMP_RANGES
          : VOLT_RANGES;
  for (let at = 0; at < ranges.length; at++) if (size <= ranges[at]!) return ranges[at]!;
  return size;
}
