import type { FigureShown, Meter } from './module';

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
export const VOLT_RANGES = [0.6, 6, 60, 600];
const DISPLAY_COUNTS = 6000;
/** A specification is a bound; about this share of it is one standard deviation. */
export const SPECIFICATION_SIGMA = 0.7;
/** Decades of ohms, in natural logarithms, that a mistake may lie in. */
const MISTAKE_SPAN = 18;

/** Standard deviation of a digital meter with these ranges at a size. */
export function digitalSigma(ranges: readonly number[], size: number, meter: Meter): number {
  const accuracyPercent = meter?.accuracyPercent ?? DEFAULT_METER.accuracyPercent;
  const counts = meter?.counts ?? DEFAULT_METER.counts;
  const bound = (accuracyPercent / 100) * size + (counts * rangeOf(ranges, size)) / DISPLAY_COUNTS;
  return SPECIFICATION_SIGMA * bound;
}

/** Full scale of the range a meter picks for a value. A plain loop: this runs for every prediction. */
function rangeOf(ranges: readonly number[], size: number): number {
  for (let at = 0; at < ranges.length; at++) if (size <= ranges[at]!) return ranges[at]!;
  return size;
}

/**
 * Density of a mistaken reading of ohms: log-uniform over what the meter can show, flat below its least step.
 *
 * @param shareOver share of the mistaken readings that show over-range
 */
export function ohmsMistake(value: number | 'OL', leastSigma: number, shareOver: number): number {
  if (value === 'OL') return shareOver;
  return (1 - shareOver) / (MISTAKE_SPAN * (Math.abs(value) + 2 * leastSigma));
}

/** Steps of a meter that shows both signs: near zero about as wide as contacts scatter, far from it a few percent. */
export const signedStep = (nearZero: number, share: number) => (value: number, middle: number) =>
  middle + Math.sign(value) * (Math.asinh(Math.abs(value) / nearZero) / share);
export const sizeStep = (nearZero: number, share: number) => (value: number) =>
  Math.asinh(Math.abs(value) / nearZero) / share;

/**
 * How a resistance shows: over-range above `over`, a mistake anywhere, neighbours told apart to some percent.
 *
 * @param shareOver share of the mistaken readings that show over-range
 */
export function resistanceShown(
  over: number,
  shareOver: number,
  meterSigma: FigureShown['meterSigma'],
): FigureShown {
  const leastStep = meterSigma(0, undefined);
  return {
    is: 'figure',
    quantity: 'ohms',
    over,
    unsigned: false,
    leastSigma: 0,
    withSupply: false,
    meterSigma,
    mistakeDensity: (value) => ohmsMistake(value, leastStep, shareOver),
    step: sizeStep(3, 0.08),
  };
}
