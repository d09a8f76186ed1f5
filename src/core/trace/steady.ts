import { median, robustSpread } from '../statistics';
import type { Trace } from './trace';

/** The last part of a trace that is taken for where it settles, by time; and how steady it has to be. */
const END_SHARE = 0.2;
const STEADY_SHARE = 0.025;
const NOISY_SHARE = 0.1;
/** Nothing flows that is not this much, amperes or volts. */
export const NOTHING_FLOWS = 0.02;

/** Value that a trace ends at, where it does end at one. */
export function settledOf({ seconds, values }: Trace): { value: number; noise: number } | null {
  const [begin, end] = [seconds[0]!, seconds.at(-1)!];
  const from = end - END_SHARE * (end - begin);
  const tail = values.filter((_one, k) => seconds[k]! >= from);
  if (tail.length < 3) return null;
  const half = tail.length >> 1;
  const [early, late] = [median(tail.slice(0, half)), median(tail.slice(-half))];
  const value = median(tail);
  const noise = noiseOf(tail);
  const size = Math.max(Math.abs(value), NOTHING_FLOWS);
  if (Math.abs(late - early) > STEADY_SHARE * size + (2 * noise) / Math.sqrt(half)) return null;
  return noise > NOISY_SHARE * size + NOTHING_FLOWS ? null : { value, noise };
}

/** Standard deviation of what changes from one point to the next: a slow drift is none. */
export function noiseOf(values: readonly number[]): number {
  return robustSpread(values.slice(1).map((value, k) => value - values[k]!)) / Math.SQRT2;
}

/** Each point as the middle of itself and its neighbours: single points that jump are gone, edges stay. */
export function withoutSpikes(values: readonly number[]): number[] {
  return values.map((value, k) =>
    k === 0 || k === values.length - 1 ? value : middleOf(values[k - 1]!, value, values[k + 1]!),
  );
}

function middleOf(a: number, b: number, c: number): number {
  return Math.max(Math.min(a, b), Math.min(Math.max(a, b), c));
}

/** Crest and lowest point of a dip. */
export interface Dip {
  crest: number;
  low: number;
}

/** The first dip of a trace: places of a crest and of the lowest point between it and a later rise above that; null where none is deep enough. */
export function dipIn(values: readonly number[], depth: number): Dip | null {
  let crest = 0;
  let low = 0;
  for (let at = 1; at < values.length; at++) {
    const value = values[at]!;
    if (value >= values[crest]!) {
      if (values[crest]! - values[low]! > depth && values[low]! < values[crest]!) return { crest, low };
      [crest, low] = [at, at];
    } else if (value < values[low]!) low = at;
  }
  // It may end under the crest, where the closed gap leaves a lower current for as long as the trace runs.
  const rose = values.at(-1)! - values[low]! > depth;
  return values[crest]! - values[low]! > depth && rose ? { crest, low } : null;
}
