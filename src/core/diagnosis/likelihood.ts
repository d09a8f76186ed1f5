import type { Reading } from '../circuit/schema';
import { meterSigma } from './meter';
import { choiceKey, DIODE_OVER_VOLTS, INSULATION_OVER, OHMS_OVER } from './predict';
import type { Prediction } from './prediction';

/** Chance that a reading is simply wrong: range, probe spot, misheard. A blown fuse is hard to mistake, a click is not. */
export const MISTAKE_RATE: Readonly<Record<Reading['kind'], number>> = {
  volts: 0.02,
  ohms: 0.02,
  diode: 0.02,
  amps: 0.02,
  insulation: 0.02,
  fuse: 0.003,
  click: 0.03,
  function: 0.008,
  code: 0.005,
  pressure: 0.02,
  flow: 0.03,
  moves: 0.008,
};
/** Chance that a meter shows over-range, or a figure, where the other was due. */
const OVER_SLIP = 0.01;
/** Share of mistaken ohms readings that show over-range. */
const MISTAKE_OVER = 0.3;
const CHOICES: Readonly<Record<string, number>> = {
  fuse: 2,
  click: 2,
  function: 3,
  code: 3,
  flow: 4,
  moves: 3,
};
/** Share of readings on a floating pair that wander off: damp, coupling from a live neighbour. */
const LOOSE_SHARE = 0.2;
/** Floors below which no live reading is trusted, volts and amperes. */
const LEAST_SIGMA_VOLTS = 0.015;
const LEAST_SIGMA_AMPS = 0.005;

type Kind = Reading['kind'];

/** Density of a value if the reading were a mistake: nothing known but the kind of meter and how finely it shows. */
export function mistakeDensity(kind: Kind, value: Reading['value'], supplyVolts: number): number {
  switch (kind) {
    case 'volts':
      return 1 / (2.4 * Math.max(supplyVolts, 1));
    case 'pressure':
      return 0.12 / (Math.abs(Number(value)) + 20);
    case 'amps':
      return 0.15 / (Math.abs(Number(value)) + 0.05);
    case 'diode':
      return value === 'OL' ? 0.5 : 0.5 / DIODE_OVER_VOLTS;
    case 'ohms':
    case 'insulation': {
      if (value === 'OL') return MISTAKE_OVER;
      // Log-uniform over what the meter can show, flat below its least step.
      const least = 2 * meterSigma(kind, 0, undefined);
      return (1 - MISTAKE_OVER) / (18 * (Math.abs(Number(value)) + least));
    }
    default:
      return 1 / CHOICES[kind]!;
  }
}

/** Density of a value in a world, without the chance of a mistake. Units of 1/value for numbers, a share for choices. */
export function density(
  kind: Kind,
  prediction: Prediction,
  value: Reading['value'],
  meter: Reading['meter'],
  supplyVolts: number,
): number {
  if (prediction.type === 'choice') return prediction.odds[choiceKey(value)] ?? 0;
  const { mean, sigma, loose } = prediction;
  if (kind === 'ohms' || kind === 'insulation' || kind === 'diode') {
    const over = kind === 'ohms' ? OHMS_OVER : kind === 'insulation' ? INSULATION_OVER : DIODE_OVER_VOLTS;
    const shown = overShare(mean, over);
    if (value === 'OL') return shown;
    if (mean === Infinity) return OVER_SLIP * mistakeDensity(kind, value, supplyVolts);
    return (1 - shown) * normal(Number(value), mean, totalSigma(kind, mean, sigma, meter));
  }
  const seen = Number(value);
  // A clamp or a pair of leads is easily turned round: the sign of amps says little.
  const shift = kind === 'amps' ? Math.abs(seen) - Math.abs(mean) : seen - mean;
  const spread = totalSigma(kind, mean, sigma, meter);
  const sharp = normal(shift, 0, spread);
  return loose ? (1 - LOOSE_SHARE) * sharp + LOOSE_SHARE * mistakeDensity(kind, value, supplyVolts) : sharp;
}

/** Standard deviation of what the meter would show, parts and meter together. */
export function totalSigma(kind: Kind, mean: number, sigma: number, meter: Reading['meter']): number {
  const floor = kind === 'volts' ? LEAST_SIGMA_VOLTS : kind === 'amps' ? LEAST_SIGMA_AMPS : 0;
  const own = meterSigma(kind, mean, meter);
  // Not Math.hypot: this runs for every prediction, and nothing here can overflow.
  return Math.sqrt(own * own + sigma * sigma + floor * floor);
}

function overShare(mean: number, over: number): number {
  if (mean === Infinity) return 1 - OVER_SLIP;
  return 1 / (1 + (over / Math.max(mean, 1e-9)) ** 12);
}

function normal(value: number, mean: number, sigma: number): number {
  const z = (value - mean) / sigma;
  return Math.exp(-0.5 * z * z) / (sigma * 2.5066282746310002);
}
