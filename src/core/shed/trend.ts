import { median, robustSpread } from '../statistics';

/** A value of one place, on a day. */
export interface TrendPoint {
  /** Days since 1 January 1970, with their fraction. */
  day: number;
  value: number;
  /** One standard deviation, in the value's unit. */
  sigma: number;
  /** Temperature or supply was taken out of it. */
  corrected: boolean;
}

export interface TrendLimits {
  least: number | null;
  most: number | null;
}

export interface TrendQuestion {
  points: readonly TrendPoint[];
  limits: TrendLimits | null;
  /** Days on which the part, or the run, was mended or changed: what was read before says nothing of the slope after. */
  repairs: readonly number[];
  /** The day it is. */
  today: number;
  /** It always moves by factors, not by amounts: insulation. Elsewhere whichever fits much better. */
  byFactors: boolean;
}

export type TrendState = 'few' | 'steady' | 'rising' | 'falling';

/** Days until a limit is reached, with four chances in five that it is not before `soonest` nor after `latest`. */
export interface ToLimit {
  side: 'least' | 'most';
  about: number;
  soonest: number;
  /** Null where the slowest of the likely slopes does not reach it within {@link FARTHEST_DAYS}. */
  latest: number | null;
}

export interface Trend {
  state: TrendState;
  /** Where it stands today by its line; the middle of what was read where there is none. */
  level: number;
  /** Change in a year, in the value's unit; as a factor less one where it moves by factors. Null with too few. */
  perYear: { about: number; least: number; most: number } | null;
  /** One standard deviation of the readings about the line, as a share of the level. */
  scatterShare: number;
  /** Half of what it goes up and down over a year, in the value's unit; null where that cannot be told. */
  swing: number | null;
  /** The limit that it is past already. */
  beyond: 'least' | 'most' | null;
  toLimit: ToLimit | null;
  /** What the last repair changed: the last reading before, and the first after. */
  step: { day: number; before: number; after: number } | null;
  /** It moves by factors: the line is straight over powers of ten. */
  byFactors: boolean;
  /** As many readings as the line stands on. */
  used: number;
}

/** Fewer readings say nothing of a slope. */
const LEAST_POINTS = 4;
/** What moves by less than so many times what its meter leaves open is steady. */
const LEAST_MOVED = 2;
/** Over less than that a slope is weather, days. */
const LEAST_SPAN_DAYS = 21;
export const FARTHEST_DAYS = 3 * 365;
const YEAR_DAYS = 365.25;
/** Normal deviates: a slope that is none in one case of twenty; four chances in five between two ends. */
const TRUST_SLOPE = 1.96;
const FOUR_IN_FIVE = 1.2816;
/** What moves by less than that is as well a straight line; and how much better the other has to fit. */
const LEAST_FACTOR = 2;
const MUCH_BETTER = 0.6;
/** A season shows in no fewer readings, over no fewer days. */
const SEASON_POINTS = 10;
const SEASON_SPAN_DAYS = 300;
const SEASON_SIGMAS = 2.5;
const SEASON_ROUNDS = 8;

/**
 * How a place moves: the middle one of the slopes between all pairs of readings (Theil 1950, Sen 1968), with Kendall's interval about it,
 * a yearly swing taken out where there is one, from the last repair on. One slip among ten readings does not turn it.
 */
export function trendOf({ points, limits, repairs, today, byFactors: always }: TrendQuestion): Trend {
  const sorted = [...points].sort((a, b) => a.day - b.day);
  const mended = repairs.filter((day) => sorted.some((point) => point.day >= day)).sort((a, b) => a - b);
  const since = mended.at(-1) ?? -Infinity;
  const standing = sorted.filter(({ day }) => day >= since);
  // What is free of weather and supply says more than twice as many that are not.
  const clean = standing.filter(({ corrected }) => corrected);
  const used = clean.length >= LEAST_POINTS ? clean : standing;
  const days = used.map(({ day }) => day);
  const step = stepOf(sorted, since);
  const span = days.length > 0 ? days.at(-1)! - days[0]! : 0;
  if (used.length < LEAST_POINTS || span < LEAST_SPAN_DAYS) {
    const level = used.length > 0 ? median(used.slice(-LEAST_POINTS).map(({ value }) => value)) : NaN;
    return {
      state: 'few',
      level,
      perYear: null,
      scatterShare: NaN,
      swing: null,
      beyond: sideBeyond(limits, used.at(-1)?.value ?? NaN),
      toLimit: null,
      step,
      byFactors: always,
      used: used.length,
    };
  }
  const byFactors = always || growsByFactors(days, used);
  const scale = byFactors ? { to: Math.log, from: Math.exp } : { to: same, from: same };
  const values = used.map(({ value }) => scale.to(value));
  const season = seasonOf(days, values);
  const flat = values.map((value, k) => value - (season ? season.at(days[k]!) : 0));
  const slope = slopeOf(days, flat);
  const at = (day: number) => median(flat.map((value, k) => value + slope.about * (day - days[k]!)));
  const own = scaleSigma(used, byFactors);
  const residuals = flat.map((value, k) => value - slope.about * days[k]!);
  const scatter = Math.max(robustSpread(residuals), own);
  const now = at(today);
  const moved = Math.abs(slope.about) * span;
  const isMoving = slope.surely.least > 0 || slope.surely.most < 0 ? moved > LEAST_MOVED * own : false;
  const state = !isMoving ? 'steady' : slope.about > 0 ? 'rising' : 'falling';
  const level = scale.from(now);
  const yearly = (perDay: number) => (byFactors ? Math.expm1(perDay * YEAR_DAYS) : perDay * YEAR_DAYS);
  // The end of a line is known half as well as its middle.
  const error = (2 * FOUR_IN_FIVE * scatter) / Math.sqrt(used.length);
  return {
    state,
    level,
    perYear: {
      about: yearly(slope.about),
      least: yearly(slope.likely.least),
      most: yearly(slope.likely.most),
    },
    scatterShare: byFactors ? Math.expm1(scatter) : scatter / Math.abs(level),
    swing: season ? (byFactors ? level * Math.expm1(season.half) : season.half) : null,
    beyond: sideBeyond(limits, level) ?? sideBeyond(limits, used.at(-1)!.value),
    toLimit: isMoving ? reach(now, error, slope, limits, scale.to) : null,
    step,
    byFactors,
    used: used.length,
  };
}

/**
 * Whether readings that move much follow a line over powers of ten far better than a straight one: a joint that burns gets worse the worse
 * it is.
 */
function growsByFactors(days: readonly number[], points: readonly TrendPoint[]): boolean {
  const values = points.map(({ value }) => value);
  const [low, high] = [Math.min(...values), Math.max(...values)];
  if (low <= 0 || high < LEAST_FACTOR * low) return false;
  const off = (scaled: readonly number[]) => {
    const { about } = slopeOf(days, scaled);
    const left = scaled.map((value, k) => value - about * days[k]!);
    return robustSpread(left) / Math.max(...scaled.map((value) => Math.abs(value - scaled[0]!)));
  };
  return off(values.map(Math.log)) < MUCH_BETTER * off(values);
}

const same = (value: number) => value;

/** Past which limit a value stands. */
export function sideBeyond(limits: TrendLimits | null, value: number): Trend['beyond'] {
  if (!limits || Number.isNaN(value)) return null;
  if (limits.least !== null && value < limits.least) return 'least';
  if (limits.most !== null && value > limits.most) return 'most';
  return null;
}

/** What a repair changed, by the readings on either side of it: what drifted had no middle. */
function stepOf(sorted: readonly TrendPoint[], since: number): Trend['step'] {
  const before = sorted.findLast(({ day }) => day < since);
  const after = sorted.find(({ day }) => day >= since);
  return before && after ? { day: since, before: before.value, after: after.value } : null;
}

/** What the meter and the corrections leave open of one reading, on the scale of the line. */
function scaleSigma(points: readonly TrendPoint[], byFactors: boolean): number {
  return median(points.map(({ sigma, value }) => (byFactors ? sigma / Math.abs(value) : sigma)));
}

interface Slope {
  about: number;
  likely: { least: number; most: number };
  surely: { least: number; most: number };
}

/** Slope per day between all pairs, and Sen's interval by the variance of Kendall's S. */
function slopeOf(days: readonly number[], values: readonly number[]): Slope {
  const slopes: number[] = [];
  for (let i = 0; i < days.length; i++)
    for (let j = i + 1; j < days.length; j++) {
      const apart = days[j]! - days[i]!;
      if (apart > 0) slopes.push((values[j]! - values[i]!) / apart);
    }
  slopes.sort((a, b) => a - b);
  const n = days.length;
  const deviation = Math.sqrt((n * (n - 1) * (2 * n + 5)) / 18);
  const between = (normal: number) => {
    const reach = normal * deviation;
    const pick = (place: number) => slopes[Math.min(slopes.length - 1, Math.max(0, Math.round(place)))]!;
    return {
      least: pick((slopes.length - reach) / 2 - 1),
      most: pick((slopes.length + reach) / 2),
    };
  };
  return { about: median(slopes), likely: between(FOUR_IN_FIVE), surely: between(TRUST_SLOPE) };
}

/** When the line meets the limit that it runs towards; the quickest and the slowest likely slope from either end of where it stands. */
function reach(
  now: number,
  error: number,
  slope: Slope,
  limits: TrendLimits | null,
  scale: (value: number) => number,
): ToLimit | null {
  const rises = slope.about > 0;
  const side = rises ? 'most' : 'least';
  const limit = limits?.[side];
  if (limit === null || limit === undefined) return null;
  const away = (scale(limit) - now) * (rises ? 1 : -1);
  const [quick, slow] = rises
    ? [slope.likely.most, slope.likely.least]
    : [-slope.likely.least, -slope.likely.most];
  const days = (distance: number, perDay: number) => Math.max(0, distance) / perDay;
  const about = days(away, Math.abs(slope.about));
  if (!(about <= FARTHEST_DAYS)) return null;
  const latest = slow > 0 ? days(away + error, slow) : Infinity;
  return {
    side,
    about,
    soonest: days(away - error, quick),
    latest: latest <= FARTHEST_DAYS ? latest : null,
  };
}

/** What goes up and down with the year, where the readings show it: one sine of a year, fitted beside a slope. */
function seasonOf(
  days: readonly number[],
  values: readonly number[],
): { half: number; at: (day: number) => number } | null {
  const span = days.at(-1)! - days[0]!;
  if (days.length < SEASON_POINTS || span < SEASON_SPAN_DAYS) return null;
  const turn = (day: number) => (2 * Math.PI * day) / YEAR_DAYS;
  let fit: [number, number] = [0, 0];
  // The slope is the middle one of what the swing leaves, the swing fits what the slope leaves.
  for (let round = 0; round < SEASON_ROUNDS; round++) {
    const left = values.map(
      (value, k) => value - fit[0] * Math.cos(turn(days[k]!)) - fit[1] * Math.sin(turn(days[k]!)),
    );
    const { about } = slopeOf(days, left);
    const rest = values.map((value, k) => value - about * days[k]!);
    fit = sineOf(days.map(turn), clipped(rest));
  }
  const [c, s] = fit;
  const at = (day: number) => c * Math.cos(turn(day)) + s * Math.sin(turn(day));
  const without = values.map((value, k) => value - at(days[k]!));
  const { about } = slopeOf(days, without);
  const noise = robustSpread(without.map((value, k) => value - about * days[k]!));
  const half = Math.hypot(c, s);
  return half > SEASON_SIGMAS * noise * Math.sqrt(2 / days.length) ? { half, at } : null;
}

/** Least squares of a cosine and a sine about their mean; the year need not be covered evenly. */
function sineOf(turns: readonly number[], values: readonly number[]): [number, number] {
  const n = values.length;
  const mean = (of: (k: number) => number) => turns.reduce((sum, _turn, k) => sum + of(k), 0) / n;
  const [mc, ms, mv] = [
    mean((k) => Math.cos(turns[k]!)),
    mean((k) => Math.sin(turns[k]!)),
    mean((k) => values[k]!),
  ];
  let [cc, ss, cs, cv, sv] = [0, 0, 0, 0, 0];
  turns.forEach((turn, k) => {
    const [c, s, v] = [Math.cos(turn) - mc, Math.sin(turn) - ms, values[k]! - mv];
    cc += c * c;
    ss += s * s;
    cs += c * s;
    cv += c * v;
    sv += s * v;
  });
  const det = cc * ss - cs * cs;
  // Read at one time of the year only: nothing can be told of the rest of it.
  if (det < 1e-3 * cc * ss || cc === 0 || ss === 0) return [0, 0];
  return [(cv * ss - sv * cs) / det, (sv * cc - cv * cs) / det];
}

/** Values drawn in to three deviations from their middle, so that a slip makes no season. */
function clipped(values: readonly number[]): number[] {
  const middle = median(values);
  const reach = 3 * robustSpread(values);
  return values.map((value) => Math.min(middle + reach, Math.max(middle - reach, value)));
}
