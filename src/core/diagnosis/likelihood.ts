import type { Reading } from '../circuit/schema';
import { figureOf, readingKind } from '../kinds/reading/index';
import { choiceKey } from './predict';
import { INSTEAD_SHARE, type Instead, type Prediction } from './prediction';

/** Chance that a meter shows over-range, or a figure, where the other was due. */
const OVER_SLIP = 0.01;
/** Share of readings on a floating pair that wander off: damp, coupling from a live neighbour. */
const LOOSE_SHARE = 0.2;

type Kind = Reading['kind'];

/** Density of a value if the reading were a mistake: nothing known but the kind of meter and how finely it shows. */
export function mistakeDensity(kind: Kind, value: Reading['value'], supplyVolts: number): number {
  const { shows } = readingKind(kind);
  if (shows.is === 'choice') return 1 / shows.choices;
  return shows.mistakeDensity(value as number | 'OL', supplyVolts);
}

/**
 * Slips of a reading of volts by their shape: a probe that does not touch, a probe on the next terminal, which mostly carries all of the
 * supply, leads swapped, a misplaced point; the rest anywhere. Shop rule.
 */
const SLIPS = { notTouching: 0.4, nextTerminal: 0.12, swapped: 0.1, tenFold: 0.04 } as const;
/** What a probe that touches nothing shows, volts. */
const NOT_TOUCHING_VOLTS = 0.03;
/** How far the supply as read may stand off, as a share of it. */
const SUPPLY_OFF = 0.05;

/**
 * Where an insulation tester shows a figure though nothing leaks, something still hangs on the conductor: a coil, a lamp, a wire that was not
 * lifted. That shows few ohms; more than these are as rare by mistake as this share says. Shop rule.
 */
const STILL_ON = { mostOhms: 10_000, beyond: 0.05 } as const;

/** Density of a figure by mistake where over-range was due. */
function figureByMistake(kind: Kind, value: number, supplyVolts: number): number {
  const anywhere = mistakeDensity(kind, value, supplyVolts);
  return kind === 'insulation' && value > STILL_ON.mostOhms ? STILL_ON.beyond * anywhere : anywhere;
}

/** Words said instead of what was due, by what was due: one step off is easily said, a dead function is seldom said to work. */
const WORD_SLIPS: Readonly<Record<string, Readonly<Record<string, number>>>> = {
  works: { weak: 0.6, dead: 0.4 },
  weak: { works: 0.5, dead: 0.5 },
  dead: { weak: 0.85, works: 0.15 },
};

/**
 * Density of a value if the reading were a mistake, beside what was due: slips have shapes.
 *
 * @param range volts of the circuit that the points belong to
 */
export function slipDensity(
  kind: Kind,
  value: Reading['value'],
  due: Prediction,
  meter: Reading['meter'],
  range: number,
): number {
  if (kind === 'function' && due.type === 'choice') {
    let sum = 0;
    for (const word in due.odds) sum += due.odds[word]! * (WORD_SLIPS[word]?.[String(value)] ?? 0);
    return sum;
  }
  if (due.type === 'number' && due.mean === Infinity && typeof value === 'number')
    return figureByMistake(kind, value, range);
  const anywhere = mistakeDensity(kind, value, range);
  if (kind !== 'volts' || due.type !== 'number' || typeof value !== 'number') return anywhere;
  const { notTouching, nextTerminal, swapped, tenFold } = SLIPS;
  const near = (mean: number) => normal(value, mean, totalSigma(kind, mean, due.sigma, meter));
  return (
    (1 - notTouching - nextTerminal - swapped - 2 * tenFold) * anywhere +
    notTouching * normal(value, 0, NOT_TOUCHING_VOLTS) +
    nextTerminal * normal(value, range, SUPPLY_OFF * range) +
    swapped * near(-due.mean) +
    tenFold * (near(10 * due.mean) + near(due.mean / 10))
  );
}

/** Chance that a reading of a kind is simply wrong. */
export function mistakeRate(kind: Kind): number {
  return readingKind(kind).mistakeRate;
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
  const { loose, instead } = prediction;
  const due = oneDensity(kind, prediction, value, meter, supplyVolts);
  const sharp = instead
    ? (1 - INSTEAD_SHARE) * due + INSTEAD_SHARE * oneDensity(kind, instead, value, meter, supplyVolts)
    : due;
  return loose ? (1 - LOOSE_SHARE) * sharp + LOOSE_SHARE * mistakeDensity(kind, value, supplyVolts) : sharp;
}

/** Density of a value beside one figure that is due. */
function oneDensity(
  kind: Kind,
  { mean, sigma }: Instead,
  value: Reading['value'],
  meter: Reading['meter'],
  supplyVolts: number,
): number {
  const { over, unsigned } = figureOf(kind);
  if (over !== Infinity) {
    const shown = overShare(mean, over);
    if (value === 'OL') return shown;
    if (mean === Infinity) return OVER_SLIP * figureByMistake(kind, Number(value), supplyVolts);
    return (1 - shown) * normal(Number(value), mean, totalSigma(kind, mean, sigma, meter));
  }
  const seen = Number(value);
  // A clamp or a pair of leads is easily turned round: the sign says little.
  const shift = unsigned ? Math.abs(seen) - Math.abs(mean) : seen - mean;
  return normal(shift, 0, totalSigma(kind, mean, sigma, meter));
}

/**
 * Density of one more figure of the same test after `earlier` ones were right: the parts stand off by the same in each, only the meter
 * and the hand scatter anew. Null where that does not apply.
 */
export function againDensity(
  kind: Kind,
  due: Prediction,
  earlier: readonly Reading['value'][],
  value: Reading['value'],
  meter: Reading['meter'],
): number | null {
  if (due.type !== 'number' || due.loose || due.mean === Infinity || typeof value !== 'number') return null;
  if (due.instead) return null;
  if (!earlier.every((one) => typeof one === 'number')) return null;
  const { unsigned } = figureOf(kind);
  const size = (one: number) => (unsigned ? Math.abs(one) : one);
  const mean = size(due.mean);
  const parts = due.sigma * due.sigma;
  const own = totalSigma(kind, due.mean, 0, meter) ** 2;
  const off = earlier.reduce((sum, one) => sum + size(one) - mean, 0) / earlier.length;
  // What the earlier ones say of how far the parts stand off.
  const trust = parts / (parts + own / earlier.length);
  return normal(size(value), mean + trust * off, Math.sqrt(own + parts * (1 - trust)));
}

/** Standard deviation of what the meter would show, parts and meter together. */
export function totalSigma(kind: Kind, mean: number, sigma: number, meter: Reading['meter']): number {
  const { leastSigma: floor, meterSigma } = figureOf(kind);
  const own = meterSigma(Math.abs(mean), meter);
  // Not Math.hypot: this runs for every prediction, and nothing here can overflow.
  return Math.sqrt(own * own + sigma * sigma + floor * floor);
}

function overShare(mean: number, over: number): number {
  if (mean === Infinity) return 1 - OVER_SLIP;
  return 1 / (1 + (over / Math.max(mean, 1e-9)) ** 12);
}

/** Density of a normal deviation. */
export function normalDensity(off: number, sigma: number): number {
  return normal(off, 0, sigma);
}

function normal(value: number, mean: number, sigma: number): number {
  const z = (value - mean) / sigma;
  return Math.exp(-0.5 * z * z) / (sigma * 2.5066282746310002);
}
