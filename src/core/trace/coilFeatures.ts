import { median } from '../statistics';
import { dipIn, noiseOf, NOTHING_FLOWS, withoutSpikes } from './steady';
import type { Trace } from './trace';

/** What a trace of a coil's current shows. A time that was not watched, or does not stand out of the noise, is null. */
export interface CoilFeatures {
  /** The most that flowed, amperes. */
  peakAmps: number;
  /** What it came to rest at while it was on; null where it did not, or was not watched that long. */
  settledAmps: number | null;
  /** Moment at which current begins, and at which it is switched off again, on the trace's own clock. */
  onset: number | null;
  off: number | null;
  /** A plunger that moves cuts the current for a moment; null where the points are too few to say that none did. */
  moved: boolean | null;
  /** From the onset: when the current reaches half of where it settles, the crest before the dip, its lowest point. */
  halfSeconds: number | null;
  crestSeconds: number | null;
  dipSeconds: number | null;
  /** Of the settled current: the crest, and how deep it dips. */
  crestShare: number | null;
  dipShare: number | null;
  /** From the lowest point (or the onset, where none is) to nine tenths of the settled current. */
  lateSeconds: number | null;
  /** From switching off: to a third of the settled current, and to the crest that a plunger makes on its way back. */
  fallSeconds: number | null;
  releaseSeconds: number | null;
}

/** A trace is judged at no more points than this; more are taken together. */
const MOST_POINTS = 2400;
/** A rise in fewer points than this shows no dip. */
const RISE_POINTS = 12;
/** A dip is deeper than this share of where the current ends, and than the noise so many times over. */
const DIP_SHARE = 0.015;
const DIP_NOISE = 4;
/** Where current begins and where it has gone, of the settled one. */
const BEGINS = 0.04;
const STAYS = 0.96;
/** Share by which a current may drift and still count as settled. */
const DRIFT = 0.04;

/** Points taken together so that there are no more than {@link MOST_POINTS}. */
export function thinned({ seconds, values }: Trace): Trace {
  const block = Math.ceil(seconds.length / MOST_POINTS);
  if (block <= 1) return { seconds, values };
  const mean = (of: readonly number[], from: number) => {
    const piece = of.slice(from, from + block);
    return piece.reduce((sum, one) => sum + one, 0) / piece.length;
  };
  const starts = Array.from({ length: Math.ceil(seconds.length / block) }, (_one, k) => k * block);
  return { seconds: starts.map((at) => mean(seconds, at)), values: starts.map((at) => mean(values, at)) };
}

const NONE: CoilFeatures = {
  peakAmps: 0,
  settledAmps: null,
  onset: null,
  off: null,
  moved: null,
  halfSeconds: null,
  crestSeconds: null,
  dipSeconds: null,
  crestShare: null,
  dipShare: null,
  lateSeconds: null,
  fallSeconds: null,
  releaseSeconds: null,
};

/** Reads the features of a coil's current that is switched on while it is watched, and maybe off again. */
export function coilFeatures(trace: Trace): CoilFeatures {
  if (trace.seconds.length < 8) return NONE;
  const { seconds, values: raw } = thinned(trace);
  const base = Math.min(...raw.map(Math.abs));
  const sizes = withoutSpikes(raw.map((value) => Math.abs(value)));
  const noise = noiseOf(raw);
  const peakAmps = Math.max(...sizes);
  if (peakAmps <= Math.max(NOTHING_FLOWS, 6 * noise) || peakAmps - base <= 6 * noise)
    return { ...NONE, peakAmps, settledAmps: peakAmps <= Math.max(NOTHING_FLOWS, 6 * noise) ? 0 : null };

  const lastHigh = sizes.findLastIndex((value) => value >= 0.5 * peakAmps);
  const firstHigh = sizes.findIndex((value) => value >= 0.5 * peakAmps);
  const from = firstHigh + Math.floor(0.6 * (lastHigh - firstHigh));
  const to = firstHigh + Math.ceil(0.9 * (lastHigh - firstHigh));
  const plateau = sizes.slice(from, to + 1);
  if (plateau.length < 4) return { ...NONE, peakAmps };
  const middle = plateau.length >> 1;
  const [early, late] = [median(plateau.slice(0, middle)), median(plateau.slice(-middle))];
  const level = median(plateau);
  const isSettled = Math.abs(late - early) <= DRIFT * level + (2 * noise) / Math.sqrt(middle);
  const settledAmps = isSettled ? level : null;

  const begins = sizes.findLastIndex(
    (value, k) => k < firstHigh && value <= Math.max(BEGINS * level, 4 * noise),
  );
  const onset = begins < 0 ? null : seconds[begins]!;
  const ended = sizes.at(-1)! < 0.2 * level;
  const offAt = ended ? sizes.findLastIndex((value) => value >= STAYS * level - 3 * noise) : -1;
  const off = offAt > 0 ? seconds[offAt]! : null;

  const features = { ...NONE, peakAmps, settledAmps, onset, off };
  const wholeRise = begins < 0 || onset === null ? null : riseOf();
  const fall = offAt > 0 ? fallOf() : null;
  return { ...features, ...wholeRise, ...fall };

  function riseOf(): Partial<CoilFeatures> {
    const end = offAt > 0 ? offAt : sizes.length - 1;
    const rise = sizes.slice(begins, end + 1);
    const at = (k: number) => seconds[begins + k]! - onset!;
    const depth = Math.max(DIP_SHARE * level, DIP_NOISE * noise);
    // A dip belongs to the way up: what wavers once it has settled is none.
    const found = dipIn(rise, depth);
    const dip = found && rise[found.crest]! < 1.3 * level ? found : null;
    const half = rise.findIndex((value) => value >= 0.5 * level);
    const start = dip?.low ?? 0;
    const tenths = rise.findIndex((value, k) => k > start && value >= 0.9 * level);
    const points = rise.filter((value) => value > 0.05 * level && value < 0.95 * level).length;
    return {
      moved: dip ? true : points < RISE_POINTS || !isSettled ? null : false,
      halfSeconds: half < 0 ? null : at(half),
      crestSeconds: dip ? at(dip.crest) : null,
      dipSeconds: dip ? at(dip.low) : null,
      crestShare: dip ? rise[dip.crest]! / level : null,
      dipShare: dip ? (rise[dip.crest]! - rise[dip.low]!) / level : null,
      lateSeconds: tenths < 0 ? null : at(tenths) - (dip ? at(dip.low) : 0),
    };
  }

  function fallOf(): Partial<CoilFeatures> {
    const fall = sizes.slice(offAt);
    const at = (k: number) => seconds[offAt + k]! - off!;
    const third = fall.findIndex((value) => value <= level / Math.E);
    // On its way back a plunger raises the current for a moment: a dip of what falls, seen from its end.
    const gone = fall.findIndex((value) => value <= BEGINS * level);
    const seen = gone < 0 ? fall : fall.slice(0, gone);
    const back = dipIn([...seen].reverse(), Math.max(DIP_SHARE * level, DIP_NOISE * noise) / 2);
    return {
      fallSeconds: third < 0 ? null : at(third),
      releaseSeconds: back ? at(seen.length - 1 - back.crest) : null,
    };
  }
}
