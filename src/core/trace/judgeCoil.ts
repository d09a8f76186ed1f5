import { seededRandom } from '../random';
import { USUAL_IRON, type Iron } from '../transient/irons';
import { COIL_CONDITIONS, type CoilCondition } from './conditions';
import { coilCourse, type CoilState, type Switching } from './coilCourse';
import { coilFeatures, type CoilFeatures } from './coilFeatures';
import type { CoilFeed } from './coilFeed';
import { sampled, type Trace } from './trace';

export interface CoilStanding {
  condition: CoilCondition;
  share: number;
  /** Expected trace of it, on the clock of the judged one; null where nothing flows. */
  trace: Trace | null;
}

export interface CoilJudgement {
  features: CoilFeatures;
  /** Of the trace it was held against. */
  before: CoilFeatures | null;
  /** All conditions, the likeliest first; their shares add to 1. */
  standings: CoilStanding[];
  /** What stands clear of the rest; null where nothing does. */
  named: CoilCondition | null;
}

/** Odds before the trace is looked at; a trace is taken because something is wrong, mostly. */
const ODDS: Readonly<Record<CoilCondition, number>> = {
  sound: 3,
  nothing: 1,
  starved: 1.2,
  shortedTurns: 0.7,
  jammedOut: 1,
  jammedIn: 0.4,
  slow: 0.8,
  weakSpring: 0.5,
  bare: 0.5,
};
/** Share from which a condition is named. */
const NAMED_FROM = 0.8;
/** Chance that something else is the matter, or the trace is not of this coil. */
const STRANGE = 1e-7;

/** Shares by which features stand off from one trace of the same coil to the next; times also by a step of the instrument. */
const SPREAD = {
  settledAmps: 0.025,
  halfSeconds: 0.07,
  crestSeconds: 0.06,
  dipSeconds: 0.06,
  crestShare: 0.05,
  dipShare: 0.08,
  lateSeconds: 0.09,
  fallSeconds: 0.1,
  releaseSeconds: 0.1,
} as const satisfies Partial<Record<keyof CoilFeatures, number>>;
type Weighed = keyof typeof SPREAD;
const WEIGHED = Object.keys(SPREAD) as Weighed[];
/** What a feature costs that one of two traces has and the other has not. */
const MISSED = 3.5;
const MOVED_MISREAD = 5;
/** Beyond this many spreads a feature says no more than that it is far off. */
const FAR = 6;

/** Irons tried for a trace that is known to be sound: widely, then nearer and nearer to those that fit. */
const ROUNDS = [
  { draws: 90, keep: 10, jitter: 0 },
  { draws: 70, keep: 12, jitter: 0.25 },
  { draws: 60, keep: 18, jitter: 0.09 },
] as const;
/** Irons that stand for all where no sound trace is known. */
const BLIND_IRONS = 40;
const BLIND_WIDENED = 2.5;
/** How a plunger moves is told by holding it against itself alone: without a sound trace nobody knows how quick it was. */
const BY_COMPARISON: readonly CoilCondition[] = ['sound', 'slow', 'weakSpring'];
/** Nor how much more a coil stores with its iron closed, by which one that stays in is told from one that stays out. */
const NAMED_BY_COMPARISON: readonly CoilCondition[] = [...BY_COMPARISON, 'jammedOut', 'jammedIn'];
/** A first look takes so many; what fits worse than the best by this is not looked at again. */
const FIRST_IRONS = 8;
const HOPELESS = 1e-7;
/** A slow plunger is later than a quick one by this. */
const LATE_FROM = 1.12;
/** Each condition is tried with each iron at so many severities. */
const SEVERITIES = 2;
const FINE_SEVERITIES = 5;
/** How a machine differs from itself at another time: supply, and the winding's warmth. */
const SUPPLY_SCATTER = 0.03;
const OHMS_SCATTER = 0.05;
/** Of a severity that is drawn near what was seen; and the share of all severities that lie there. */
const NEAR_SCATTER = 0.02;
const NARROWED = 0.05;

type Random = ReturnType<typeof seededRandom>;

/**
 * Weighs what a coil's current shows against what it would show in every condition, with irons that fit a trace of the same coil (or of its
 * twin) from when it was sound; without one, with irons of every usual kind, which tells less apart.
 *
 * @param sound an earlier trace of the same coil, or of an alike one
 */
export function judgeCoil(feed: CoilFeed, trace: Trace, sound: Trace | null, seed = 1): CoilJudgement {
  const features = coilFeatures(trace);
  const before = sound ? coilFeatures(sound) : null;
  const random = seededRandom(seed + 1);
  // Where nothing flows there is nothing to hold an iron against.
  if (features.settledAmps === 0) return nothingFlows(feed, features, before);
  const own = before ? feedOfSound(feed, before) : feed;
  const irons =
    before && sound ? knownIrons(own, sound, before, seed) : drawnIrons(seededRandom(seed), BLIND_IRONS);
  const times = switchingOf(trace, features);
  const step = stepOf(trace);
  const sounds = new Map<Iron, CoilFeatures>();
  const question: Question = {
    feed: own,
    seen: features,
    before,
    soundOf: (iron) => {
      const known = sounds.get(iron) ?? coilFeatures(sampled(coilCourse(own, { iron }, times), step));
      sounds.set(iron, known);
      return known;
    },
    times,
    step,
    widened: before ? 1 : BLIND_WIDENED,
  };
  const tries = COIL_CONDITIONS.filter((one) => one !== 'bare' || feed.suppression.by !== 'nothing').map(
    (condition) => new Tries(condition, question, random),
  );
  // A first look at all of them; then those that may still be it are tried in earnest.
  for (const one of tries) one.take(irons.slice(0, FIRST_IRONS), 1);
  const best = Math.max(...tries.map((one) => one.best));
  const hopeful = (one: Tries) => one.best >= HOPELESS * best;
  // How a plunger moves differs by little: where one way of it may be it, the others may.
  const moves = tries.some((one) => BY_COMPARISON.includes(one.condition) && hopeful(one));
  for (const one of tries) {
    const compared = BY_COMPARISON.includes(one.condition);
    if (hopeful(one) || (compared && moves))
      one.take(irons, compared && before ? FINE_SEVERITIES : SEVERITIES);
  }
  const total = tries.reduce((sum, { weight }) => sum + weight, 0);
  const standings = tries
    .map(({ condition, weight, shown }) => ({ condition, share: weight / total, trace: shown }))
    .sort((a, b) => b.share - a.share);
  const settled = features.settledAmps !== null && before?.settledAmps !== null;
  return { features, before, standings, named: namedBy(standings, before !== null, settled) };
}

function nothingFlows(
  { suppression }: CoilFeed,
  features: CoilFeatures,
  before: CoilFeatures | null,
): CoilJudgement {
  const possible = COIL_CONDITIONS.filter((one) => one !== 'bare' || suppression.by !== 'nothing');
  const standings = possible
    .map((condition): CoilStanding => ({ condition, share: condition === 'nothing' ? 1 : 0, trace: null }))
    .sort((a, b) => b.share - a.share);
  return { features, before, standings, named: 'nothing' };
}

function namedBy(
  [first]: readonly CoilStanding[],
  compared: boolean,
  settled: boolean,
): CoilCondition | null {
  if (!first || first.share < NAMED_FROM) return null;
  // A supply that sags while it is watched hides turns that are shorted: nothing is cleared by a current that never settled.
  if (first.condition === 'sound' && !settled) return null;
  return compared || !NAMED_BY_COMPARISON.includes(first.condition) ? first.condition : null;
}

interface Question {
  feed: CoilFeed;
  seen: CoilFeatures;
  before: CoilFeatures | null;
  /** What a sound coil with an iron shows, switched as the judged one was. */
  soundOf: (iron: Iron) => CoilFeatures;
  times: Switching;
  step: number;
  /** Spreads of what depends on the iron are so many times as wide. */
  widened: number;
}

/** One condition, tried with many irons at many severities. */
class Tries {
  private sum = 0;
  private draws = 0;
  /** The nearest trace so far, and how near it is. */
  best = 0;
  shown: Trace | null = null;

  constructor(
    readonly condition: CoilCondition,
    private readonly question: Question,
    private readonly random: Random,
  ) {}

  /** Odds times how well it fits on the whole. */
  get weight(): number {
    const fit = this.draws === 0 ? 0 : this.sum / this.draws;
    return ODDS[this.condition] * (fit + STRANGE);
  }

  take(irons: readonly Iron[], severities: number): void {
    const { condition, question, random } = this;
    const { feed, seen, before, times, step, widened } = question;
    if (condition === 'nothing') {
      this.draws = 1;
      // Something flows: what is left is that it is not this coil's.
      this.sum = this.best = 0;
      return;
    }
    for (const iron of irons) {
      for (let k = 0; k < severities; k++) {
        const state = stateOf(condition, question, iron, random);
        const scattered = { ...feed, volts: feed.volts * (1 + SUPPLY_SCATTER * random.normal()) };
        const course = coilCourse(scattered, state, times);
        const own = coilFeatures(sampled(course, step));
        if (condition === 'slow' && !isLate(own, question.soundOf(iron))) continue;
        const features = before ? heldAgainst(own, question.soundOf(iron), before) : own;
        const narrowed = condition === 'starved' || condition === 'shortedTurns' ? NARROWED : 1;
        const fit = narrowed * Math.exp(-distance(features, seen, step, widened));
        this.sum += fit;
        this.draws++;
        if (this.shown && fit <= this.best) continue;
        this.best = fit;
        this.shown = course;
      }
    }
  }
}

/** A plunger that is held up and yet as quick as ever is not slow. */
function isLate({ dipSeconds }: CoilFeatures, quick: CoilFeatures): boolean {
  return dipSeconds === null || quick.dipSeconds === null || dipSeconds > LATE_FROM * quick.dipSeconds;
}

/** What a condition makes of the features that the coil was seen to have: its iron is known by its own trace better than by any that fits it. */
function heldAgainst(own: CoilFeatures, sound: CoilFeatures, before: CoilFeatures): CoilFeatures {
  const held = { ...own };
  for (const key of WEIGHED) {
    const [a, b, c] = [own[key], sound[key], before[key]];
    if (a !== null && b !== null && c !== null && b > 0 && c > 0) held[key] = (a * c) / b;
  }
  return held;
}

/** The feed as the sound trace shows it: its supply, its winding's warmth and its wires in one. */
function feedOfSound(feed: CoilFeed, { settledAmps }: CoilFeatures): CoilFeed {
  if (!settledAmps) return feed;
  return { ...feed, volts: settledAmps * (feed.sheet.ohms + feed.sourceOhms) };
}

/** A coil in a condition, somewhere in its range of severity. */
function stateOf(condition: CoilCondition, { feed, seen }: Question, iron: Iron, random: Random): CoilState {
  const between = (low: number, high: number) => low * (high / low) ** random.next();
  const { sheet, volts, sourceOhms } = feed;
  const ohms = sheet.ohms * Math.exp(OHMS_SCATTER * random.normal());
  // What it settles at says how bad it is, where it is that: drawn blindly hardly one in twenty would be near.
  const whole = seen.settledAmps
    ? (volts / seen.settledAmps) * Math.exp(NEAR_SCATTER * random.normal())
    : null;
  const inside = (value: number, low: number, high: number) =>
    value >= low && value <= high ? value : between(low, high);
  switch (condition) {
    case 'shortedTurns': {
      const left = whole === null ? NaN : (whole - sourceOhms) / sheet.ohms;
      return { iron, ohms: sheet.ohms * inside(left, 0.3, 0.85) };
    }
    case 'starved': {
      const lost = whole === null ? NaN : (whole - sourceOhms - ohms) / sheet.ohms;
      return { iron, ohms, lost: sheet.ohms * inside(lost, 0.12, 2.5) };
    }
    case 'jammedOut':
      return { iron: { ...iron, jammed: 'out' }, ohms };
    case 'jammedIn':
      return { iron: { ...iron, jammed: 'in' }, ohms };
    case 'slow':
      return { iron: { ...iron, damping: iron.damping * between(5, 200) }, ohms };
    case 'weakSpring':
      return { iron: { ...iron, spring: iron.spring * between(0.25, 0.75) }, ohms };
    case 'bare':
      return { iron, ohms, bare: true };
    case 'sound':
    case 'nothing':
      return { iron, ohms };
    default:
      return condition satisfies never;
  }
}

/** Half the sum of squares by which two traces' features differ, in their spreads. */
function distance(one: CoilFeatures, other: CoilFeatures, step: number, widened = 1): number {
  let sum = 0;
  for (const key of WEIGHED) {
    const [a, b] = [one[key], other[key]];
    if (a === null || b === null) {
      if (a !== b) sum += MISSED;
      continue;
    }
    const isTime = key.endsWith('Seconds');
    const floor = isTime ? 2 * step : 1e-3;
    const spread = SPREAD[key] * (key === 'settledAmps' ? 1 : widened);
    const away = Math.abs(a - b) / Math.hypot(spread * Math.max(Math.abs(a), Math.abs(b)), floor);
    sum += 0.5 * Math.min(away, FAR) ** 2;
  }
  if (one.moved !== null && other.moved !== null && one.moved !== other.moved) sum += MOVED_MISREAD;
  return sum;
}

function drawnIrons(random: Random, count: number): Iron[] {
  const between = (low: number, high: number) => low * (high / low) ** random.next();
  return Array.from({ length: count }, (_one, k) =>
    k === 0
      ? USUAL_IRON
      : {
          openSeconds: between(2e-3, 30e-3),
          grows: between(1.8, 5),
          strokeMetres: between(0.8e-3, 5e-3),
          kilogramsByWatt: between(0.4e-3, 6e-3),
          damping: between(0.1, 4),
          spring: between(0.75, 1.33),
        },
  );
}

const IRON_KEYS = ['openSeconds', 'grows', 'strokeMetres', 'kilogramsByWatt', 'damping', 'spring'] as const;

/** Irons that were found for a trace: it is held against more than one other. */
const found = new WeakMap<Trace, { key: string; irons: readonly Iron[] }>();

function knownIrons(feed: CoilFeed, sound: Trace, seen: CoilFeatures, seed: number): readonly Iron[] {
  const key = JSON.stringify([feed, seed]);
  const known = found.get(sound);
  if (known?.key === key) return known.irons;
  const irons = fittingIrons(feed, sound, seen, seededRandom(seed));
  found.set(sound, { key, irons });
  return irons;
}

/** Irons whose sound trace is the one that was seen. */
function fittingIrons(feed: CoilFeed, sound: Trace, seen: CoilFeatures, random: Random): Iron[] {
  const times = switchingOf(sound, seen);
  const step = stepOf(sound);
  let kept: { iron: Iron; off: number }[] = [];
  for (const { draws, keep, jitter } of ROUNDS) {
    const tried =
      kept.length === 0
        ? drawnIrons(random, draws)
        : Array.from({ length: draws }, (_one, k) => {
            const { iron } = kept[k % kept.length]!;
            const near = { ...iron };
            for (const key of IRON_KEYS) near[key] *= Math.exp(jitter * random.normal());
            near.grows = Math.max(near.grows, 1.2);
            return near;
          });
    const scored = tried.map((iron) => ({
      iron,
      off: distance(coilFeatures(sampled(coilCourse(feed, { iron }, times), step)), seen, step),
    }));
    kept = [...kept, ...scored].sort((a, b) => a.off - b.off).slice(0, keep);
  }
  return kept.map(({ iron }) => iron);
}

/** When the coil of a trace is switched, as far as the trace shows it. */
function switchingOf({ seconds }: Trace, { onset, off }: CoilFeatures): Switching {
  const begin = seconds[0]!;
  const end = seconds.at(-1)! - begin;
  const on = Math.max((onset ?? begin) - begin, 0);
  return { on, end, ...(off === null ? {} : { off: Math.max(off - begin, on + 1e-4) }) };
}

/** Seconds between two points, as features are read. */
function stepOf({ seconds }: Trace): number {
  return (seconds.at(-1)! - seconds[0]!) / Math.min(seconds.length - 1, 2000);
}
