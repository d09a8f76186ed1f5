import { fuseWindow } from '../circuit/fuseTime';
import type { CircuitModel } from '../circuit/model';
import { findPart } from '../circuit/situation';
import { readTrace, type TraceAnswer } from '../sheets/trace/trace';
import { thinned } from './coilFeatures';
import { noiseOf } from './steady';
import type { Trace } from './trace';

/** A start as it is judged: from the moment it is switched on to the moment it is switched off, alternating current by its heat. */
export interface Start {
  trace: Trace;
  /** Each value stands for a whole period of an alternating current. */
  rms: boolean;
  answer: TraceAnswer;
  /** Seconds that lie between two values where it begins; null where it was on already as the record began. */
  apartSeconds: number | null;
}

/** What starts: a motor runs up, a coil's armature closes, anything else warms up. */
export type Starter = 'motor' | 'coil' | 'other';

/** Says how a part starts. */
export function starterOf({ compiled }: CircuitModel, ref: string): Starter {
  const { kind } = compiled.parts[findPart(compiled, ref, 'part')]!.part;
  if (kind === 'motor') return 'motor';
  return kind === 'coil' || kind === 'relay' ? 'coil' : 'other';
}

/** Of its peak: where a start begins, and where it has ended. */
const BEGINS = 0.05;
const ENDED = 0.1;
/** What begins above this share of its peak may have been on for long. */
const RISEN = 0.5;
/** A current that goes back by more than this share of its peak alternates. */
const ALTERNATES = 0.3;

/**
 * Reads how a load starts: what it peaks at, where it settles and after how long.
 *
 * @param hz of its supply; 0 where that is direct
 */
export function startOf(trace: Trace, hz: number): Start {
  const rms = hz > 0 && alternates(trace);
  const { seconds, values } = thinned(rms ? overPeriods(trace, 1 / hz) : trace);
  const sizes = values.map(Math.abs);
  const peak = sizes.reduce((most, one) => Math.max(most, one), 0);
  const floor = Math.max(BEGINS * peak, 4 * noiseOf(values.slice(0, Math.max(8, values.length >> 5))));
  const first = firstOn(sizes, floor);
  const last = lastOn(sizes, first, ENDED * peak);
  // What is still on when the record ends is watched to its end.
  const end = last < sizes.length - 3 ? last - 1 : sizes.length - 1;
  const cut: Trace =
    end - first >= 8
      ? { seconds: seconds.slice(first, end + 1), values: sizes.slice(first, end + 1) }
      : { seconds, values: sizes };
  const answer = readTrace({
    format: 'spiraxis-sheet',
    version: 1,
    sheet: 'trace',
    kind: 'inrush',
    quantity: 'amps',
    seconds: [...cut.seconds],
    values: [...cut.values],
  });
  return { trace: cut, rms, answer, apartSeconds: apartAt(seconds, sizes, first, peak) };
}

/** The longest time between two values from the last one before it is on to the second one after; null where not even its rise is there. */
function apartAt(
  seconds: readonly number[],
  sizes: readonly number[],
  first: number,
  peak: number,
): number | null {
  if (first === 0 && sizes[0]! > RISEN * peak) return null;
  const from = Math.max(first, 1);
  const steps = seconds.slice(from, from + 3).map((at, k) => at - seconds[from + k - 1]!);
  return Math.max(...steps);
}

/** What a start came to; `unseen` where the record cannot show it. */
export type StartVerdict = NonNullable<TraceAnswer['verdict']> | 'unseen';

/** What starts is seen where values lie no further apart than this, seconds: an armature closes in tens of milliseconds, a rotor runs up in longer. */
const SEEN: Readonly<Record<Starter, number>> = { motor: 0.05, coil: 0.02, other: 0.02 };
/** A peak as high as the one before, share; and so many times what is drawn when it works, only what stands carries. */
const STANDS = { peakShare: 0.8, drawnTimes: 3 } as const;

/** Whether a record is fine enough, and begins soon enough, to show a start's own peak. */
export function showsPeak({ apartSeconds }: Start, of: Starter): boolean {
  return apartSeconds !== null && apartSeconds <= SEEN[of];
}

/**
 * What a start came to. One without a peak stands still only where a peak would have been seen, or where it carries what only something that
 * stands still does: a slow meter, or a record that begins too late, shows a sound one just so.
 *
 * @param drawnAmps what it should carry once it works; null where nothing says it
 */
export function startVerdict(
  start: Start,
  before: TraceAnswer | null,
  drawnAmps: number | null,
  of: Starter,
): StartVerdict | null {
  const { verdict, settled } = start.answer;
  if (verdict !== 'locked' || settled === null || showsPeak(start, of)) return verdict;
  if (before?.verdict === 'ran' && before.peak)
    return settled >= STANDS.peakShare * before.peak ? 'locked' : 'unseen';
  const works = before?.settled ?? drawnAmps;
  return works && settled >= STANDS.drawnTimes * works ? 'locked' : 'unseen';
}

/** Whether what is carried is near enough to what it should carry once it works, by the drawing or by a sound one. */
export function carriesItsOwn(
  settled: number,
  before: TraceAnswer | null,
  drawnAmps: number | null,
): boolean {
  const works = before?.settled ?? drawnAmps;
  if (!works) return false;
  const { slips, drags } = before?.settled ? WEIGHS.before : WEIGHS.drawn;
  return settled >= slips * works && settled <= drags * works;
}

/** Reads how a current is pulsed. */
export function pulsesOf(trace: Trace): TraceAnswer {
  return readTrace({
    format: 'spiraxis-sheet',
    version: 1,
    sheet: 'trace',
    kind: 'pwm',
    quantity: 'amps',
    seconds: [...trace.seconds],
    values: [...trace.values],
  });
}

/** The first point at which it is switched on; what is on already as the record begins is no start, unless there is none after it. */
function firstOn(sizes: readonly number[], floor: number): number {
  const on = (from: number) => sizes.findIndex((value, at) => at >= from && value > floor);
  const first = Math.max(on(0), 0);
  if (first > 0) return first;
  const off = sizes.findIndex((value) => value <= floor);
  const again = off < 0 ? -1 : on(off);
  return again < 0 ? first : again;
}

/** The last point before it is switched off again: what comes after a pause is another start. */
function lastOn(sizes: readonly number[], first: number, off: number): number {
  const pause = Math.max(LEAST_PAUSE, sizes.length >> 6);
  let last = first;
  for (let at = first; at < sizes.length && at - last <= pause; at++) if (sizes[at]! > off) last = at;
  return last;
}
const LEAST_PAUSE = 5;

function alternates({ values }: Trace): boolean {
  let [low, high] = [0, 0];
  for (const value of values) {
    low = Math.min(low, value);
    high = Math.max(high, value);
  }
  return Math.min(-low, high) > ALTERNATES * Math.max(-low, high);
}

/** The effective value over the period that ends at each point. */
function overPeriods({ seconds, values }: Trace, period: number): Trace {
  const out: number[] = [];
  let [from, sum] = [0, 0];
  for (let at = 0; at < values.length; at++) {
    sum += values[at]! ** 2;
    while (seconds[at]! - seconds[from]! >= period) sum -= values[from++]! ** 2;
    out.push(Math.sqrt(Math.max(sum, 0) / (at - from + 1)));
  }
  return { seconds, values: out };
}

/** How what a motor drives weighs on it, beside a start of it when it was sound: less than it should, or more. */
export type Weighs = 'slips' | 'drags';

/** Shares of its sound settled current; by the drawing alone, which knows no load to the ampere, it takes more. */
const WEIGHS = { before: { slips: 0.65, drags: 1.4 }, drawn: { slips: 0.45, drags: 1.8 } } as const;
/** A peak this far off says that the supply is another, not the load, share. */
const SAME_PEAK = 0.25;

/** What a motor's running current says of what it drives; null where it did not run up, or says nothing. */
export function weighs(
  now: TraceAnswer,
  before: TraceAnswer | null,
  drawnAmps: number | null,
): Weighs | null {
  if (now.verdict !== 'ran' || !now.settled) return null;
  const isSame = before?.peak && now.peak && Math.abs(now.peak / before.peak - 1) < SAME_PEAK;
  if (before?.settled && !isSame) return null;
  const sound = before?.settled ?? drawnAmps;
  if (!sound) return null;
  const { slips, drags } = before?.settled ? WEIGHS.before : WEIGHS.drawn;
  const share = now.settled / sound;
  return share < slips ? 'slips' : share > drags ? 'drags' : null;
}

export type FuseUnder = 'bears' | 'mayOpen' | 'opens';

/**
 * What a blade fuse makes of a start: times at each current are added up as shares of what it bears there (Miner's sum, over the bounds of
 * ISO 8820-3). What it carries besides comes on top.
 */
export function fuseUnder({ seconds, values }: Trace, ratedAmps: number, besidesAmps = 0): FuseUnder {
  let [least, most] = [0, 0];
  for (let at = 1; at < seconds.length; at++) {
    const span = seconds[at]! - seconds[at - 1]!;
    const { leastSeconds, mostSeconds } = fuseWindow((100 * (values[at]! + besidesAmps)) / ratedAmps);
    least += leastSeconds > 0 ? span / leastSeconds : Infinity;
    most += mostSeconds > 0 ? span / mostSeconds : Infinity;
  }
  return most >= 1 ? 'opens' : least >= 1 ? 'mayOpen' : 'bears';
}
