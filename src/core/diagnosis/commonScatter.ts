import type { Branch } from '../circuit/compile';
import type { CircuitModel } from '../circuit/model';
import type { Reading } from '../circuit/schema';
import { NOT_KNOWN } from '../circuit/windings';
import { figureOf } from '../kinds/reading/index';
import { density, mistakeRate, normalDensity, slipDensity, totalSigma } from './likelihood';
import type { Observation } from './observations';
import type { Common } from '../circuit/spread';
import { INSTEAD_SHARE, type Instead, type NumberDue, type Prediction } from './prediction';
import { TOLERANCE_SIGMA } from './scatter';

/** Readings that contradict each other by more than this are no deviation of the supply: one of them is a slip, log. */
const SLIP_COST = Math.log(0.02);
/** A supply's share of what a prediction scatters beside what nobody has said: the rest is never nothing. */
const MOST_OF_IT = 0.98;
/** What a reading has of its own, at the least, share of its variance. */
const LEAST_OWN = 1e-6;
/** Standard deviation of what nobody has said, as each reading by itself counts it, relative. */
const NOT_KNOWN_SPREAD = TOLERANCE_SIGMA * NOT_KNOWN;

/** One standard deviation of what good supplies stand off, as a share; 0 where there is none. */
export function supplySigma({ compiled }: CircuitModel): number {
  const most = (domain: Branch['domain']) =>
    Math.max(0, ...compiled.branches.map((one) => (one.domain === domain ? one.emfTolerance : 0)));
  // A pressure that nobody has said loosens no volts.
  return TOLERANCE_SIGMA * (most('electrical') || most('fluid'));
}

/** Standard deviation of the logarithm of what nobody has said: three times more or less accuses nobody. */
const NOT_KNOWN_LOG = Math.log(3);
/** Standard deviations to either side within which it is looked for; and the places between, whatever was read. */
const LOOKED_FOR = 3;
const COARSE_STEPS = 16;
const COARSE = Array.from(
  { length: COARSE_STEPS + 1 },
  (_one, k) => NOT_KNOWN_LOG * LOOKED_FOR * ((2 * k) / COARSE_STEPS - 1),
);
/** Standard deviations of a reading's own around where it alone would put it: readings are sharp, what they are of is broad. */
const FINE = [-3, -2, -1.2, -0.6, 0, 0.6, 1.2, 2, 3] as const;
/** Readings whose places are looked at finely: the others lie there too, or fit nowhere. */
const FINE_READINGS = 3;

/** A figure that was read, beside what was due. */
interface Read {
  kind: Reading['kind'];
  /** Both by their size where a sign says little. */
  value: number;
  mean: number;
  /** Parts and meter together. */
  sigma: number;
  supply: number;
  range: number;
  common: Common | null;
  mistake: number;
  slip: number;
}

/**
 * What readings say together more, or less, than each by itself, log: a supply that stands 3 % low is 3 % low in every reading of
 * its circuit, and says so once; a coil of which nobody knows what it draws draws the same in each. What nobody has said is summed over;
 * what the supply does is a common factor of each circuit (its sensitivities the predicted values) beside what each has of its own.
 *
 * @param share {@link supplySigma}
 * @param peek prediction of an observation
 */
export function commonScatter(
  observations: readonly Observation[],
  share: number,
  supplyVolts: number,
  peek: (observation: number) => Prediction,
): number {
  // Asked of every place of every row: one figure shares nothing with another.
  let figures = 0;
  for (const one of observations) if (steadyFigure(one) !== null) figures++;
  if (figures < 2) return 0;
  const reads: Read[] = [];
  const either: Either[] = [];
  observations.forEach((observation, k) => {
    const { kind, meter } = observation.readings[0]!;
    const value = steadyFigure(observation);
    if (value === null) return;
    const { unsigned, withSupply } = figureOf(kind);
    const due = peek(k);
    if (due.type !== 'number' || due.loose || due.mean === Infinity || due.mean === 0) return;
    if (due.instead) {
      if (kind === 'ohms') either.push(eitherOf(observation, due, due.instead, supplyVolts));
      return;
    }
    if (!due.common && (!withSupply || share === 0)) return;
    const sign = unsigned && due.mean < 0 ? -1 : 1;
    const mean = sign * due.mean;
    const range = observation.range > 0 ? observation.range : supplyVolts;
    const moved = due.common ? NOT_KNOWN_SPREAD * due.common.slope : 0;
    const left = Math.sqrt(Math.max(due.sigma * due.sigma - moved * moved, 0));
    reads.push({
      kind,
      value: unsigned ? Math.abs(value) : value,
      mean,
      sigma: totalSigma(kind, due.mean, due.sigma, meter),
      supply: withSupply ? Math.sign(mean) * Math.min(share * Math.abs(mean), MOST_OF_IT * left) : 0,
      range,
      common: due.common ? { ...due.common, slope: sign * due.common.slope } : null,
      mistake: mistakeRate(kind),
      slip: slipDensity(kind, value, due, meter, range),
    });
  });
  return (reads.length < 2 ? 0 : notSaid(reads) + ofSupply(reads)) + atRest(either);
}

/** The figure that was read; null where it wandered, and where none was. */
function steadyFigure({ readings, unsteady }: Observation): number | null {
  const { value } = readings[0]!;
  return typeof value === 'number' && !unsteady ? value : null;
}

/** Density of what was read where two figures may be due, slips with it: of the one at work, and of the one at rest. */
interface Either {
  working: number;
  resting: number;
}

function eitherOf(
  { readings, range: own }: Observation,
  { mean, sigma }: NumberDue,
  instead: Instead,
  supplyVolts: number,
): Either {
  const { kind, value, meter } = readings[0]!;
  const range = own > 0 ? own : supplyVolts;
  const mistake = mistakeRate(kind);
  const of = (figure: Instead) => {
    const due = { type: 'number' as const, loose: false, mean: figure.mean, sigma: figure.sigma };
    const right = (1 - mistake) * density(kind, due, value, meter, range);
    return Math.max(right + mistake * slipDensity(kind, value, due, meter, range), Number.MIN_VALUE);
  };
  return { working: of({ mean, sigma }), resting: of(instead) };
}

/** What readings gain since what is cold, or stands, does so in all of them: one unknown, and not one for each. */
function atRest(either: readonly Either[]): number {
  if (either.length < 2) return 0;
  let [working, resting, alone] = [0, 0, 0];
  for (const one of either) {
    working += Math.log(one.working);
    resting += Math.log(one.resting);
    alone += Math.log((1 - INSTEAD_SHARE) * one.working + INSTEAD_SHARE * one.resting);
  }
  const top = Math.max(working, resting);
  const together = (1 - INSTEAD_SHARE) * Math.exp(working - top) + INSTEAD_SHARE * Math.exp(resting - top);
  return top + Math.log(together) - alone;
}

/** Density of what was read, as far as it is no slip. */
function rightly({ value, mistake }: Read, mean: number, sigma: number): number {
  return (1 - mistake) * normalDensity(value - mean, sigma);
}

/** Log of the same, slips with it; what fits nowhere still is a number. */
function logOf(read: Read, mean: number, sigma: number): number {
  return Math.log(Math.max(rightly(read, mean, sigma) + read.mistake * read.slip, Number.MIN_VALUE));
}

/**
 * What readings gain that follow one branch of which nobody has said what it takes, summed over all that it may be. Leaves each at where
 * that puts it best, with what it then has of its own.
 */
function notSaid(reads: readonly Read[]): number {
  const branches = new Set(reads.flatMap(({ common }) => common?.branch ?? []));
  let gained = 0;
  for (const branch of branches) {
    const own = reads.filter(({ common }) => common?.branch === branch);
    if (own.length < 2) continue;
    const follow = own.map((read) => new Follows(read));
    const logAt = (u: number) =>
      follow.reduce((sum, one) => sum + one.log(u), -0.5 * (u / NOT_KNOWN_LOG) ** 2);
    const places = [
      ...COARSE,
      ...follow
        .sort((one, other) => one.width - other.width)
        .slice(0, FINE_READINGS)
        .flatMap(({ place, width }) =>
          Number.isFinite(width) ? FINE.map((off) => place + off * width) : [],
        ),
    ].sort((one, other) => one - other);
    const logs = places.map(logAt);
    const top = Math.max(...logs);
    let sum = 0;
    for (let k = 1; k < places.length; k++)
      sum += 0.5 * (Math.exp(logs[k]! - top) + Math.exp(logs[k - 1]! - top)) * (places[k]! - places[k - 1]!);
    gained += top + Math.log(sum / (NOT_KNOWN_LOG * Math.sqrt(2 * Math.PI)));
    const best = places[logs.indexOf(top)]!;
    for (const one of follow) gained -= one.settle(best);
  }
  return gained;
}

/** A reading that follows a branch of which nobody has said what it takes, by the logarithm of how many times the usual that is. */
class Follows {
  /** Where the reading alone would put it, and how sharply; `Infinity` where nothing that it may be reads so. */
  readonly place: number;
  readonly width: number;
  private readonly own: number;

  constructor(private readonly read: Read) {
    const { slope, bend } = read.common!;
    const variance = read.sigma * read.sigma - (NOT_KNOWN_SPREAD * slope) ** 2;
    this.own = Math.sqrt(Math.max(variance, LEAST_OWN * read.sigma * read.sigma));
    const off = read.value - read.mean;
    const more = off / (slope - bend * off);
    const u = Math.log(1 + more);
    const reaches = more > -1 && Math.abs(u) < LOOKED_FOR * NOT_KNOWN_LOG;
    this.place = reaches ? u : 0;
    const steep = Math.abs(slope * (1 + more)) / (1 + bend * more) ** 2;
    // What hardly follows it says nothing that the coarse places would miss.
    this.width = reaches && this.own < NOT_KNOWN_LOG * steep ? this.own / steep : Infinity;
  }

  private meanAt(u: number): number {
    const { slope, bend } = this.read.common!;
    const more = Math.exp(u) - 1;
    return this.read.mean + (slope * more) / (1 + bend * more);
  }

  /** How well it fits there, log. */
  log(u: number): number {
    return logOf(this.read, this.meanAt(u), this.own);
  }

  /** Puts the reading at a place, for what is asked of it next; gives what it had said by itself, log. */
  settle(u: number): number {
    const { read } = this;
    const alone = logOf(read, read.mean, read.sigma);
    read.mean = this.meanAt(u);
    read.sigma = this.own;
    return alone;
  }
}

/** What readings gain that stand off alike because their supply does: rank-one corrections of the determinant and the inverse. */
function ofSupply(reads: readonly Read[]): number {
  const groups = new Map<number, { count: number; a: number; b: number; c: number }>();
  for (const read of reads) {
    const { value, mean, sigma, supply, range, mistake, slip } = read;
    if (supply === 0) continue;
    const off = value - mean;
    const right = rightly(read, mean, sigma);
    const taken = right / (right + mistake * slip);
    const own = sigma * sigma - supply * supply;
    const group = groups.get(range) ?? { count: 0, a: 0, b: 0, c: 0 };
    groups.set(range, group);
    group.count++;
    group.a += (taken * supply * supply) / own;
    group.b += (taken * supply * off) / own;
    group.c +=
      taken * (0.5 * Math.log((sigma * sigma) / own) + 0.5 * off * off * (1 / (sigma * sigma) - 1 / own));
  }
  let total = 0;
  for (const { count, a, b, c } of groups.values())
    if (count > 1) total += Math.max(c + (b * b) / (2 * (1 + a)) - 0.5 * Math.log(1 + a), SLIP_COST);
  return total;
}
