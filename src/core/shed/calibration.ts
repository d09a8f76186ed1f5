import type { Outcome } from './outcome';

/** Doubts of about one size, and how many of them came true. */
export interface CalibrationBin {
  /** Bounds of the doubt, shares. */
  from: number;
  to: number;
  count: number;
  /** Mean doubt, and the share that came true. */
  said: number;
  cameTrue: number;
  /** Four chances in five that the true share lies between these (Wilson 1927). */
  least: number;
  most: number;
}

export interface Calibration {
  jobs: number;
  bins: CalibrationBin[];
  /** Mean distance of what was said from what came true, weighed by how often, in shares. */
  off: number;
  /** Named at all, and of these wrongly. */
  named: number;
  wrong: number;
}

const EDGES = [0.02, 0.1, 0.25, 0.5, 0.75, 0.9, 1.0001] as const;
const FOUR_IN_FIVE = 1.2816;

/** How well the program's doubt came true, over jobs whose fault was shown. */
export function calibrate(outcomes: readonly Pick<Outcome, 'part' | 'doubt' | 'named'>[]): Calibration {
  const pairs = outcomes.flatMap(({ part, doubt }) =>
    doubt.flatMap((step) => step.map(([ref, share]) => ({ share, isTrue: ref === part }))),
  );
  const bins = EDGES.slice(0, -1).flatMap((from, k): CalibrationBin[] => {
    const to = EDGES[k + 1]!;
    const own = pairs.filter(({ share }) => share >= from && share < to);
    if (own.length === 0) return [];
    const hits = own.filter(({ isTrue }) => isTrue).length;
    const [least, most] = wilson(hits, own.length);
    return [
      {
        from,
        to: Math.min(1, to),
        count: own.length,
        said: own.reduce((sum, { share }) => sum + share, 0) / own.length,
        cameTrue: hits / own.length,
        least,
        most,
      },
    ];
  });
  const named = outcomes.filter((one) => one.named !== null);
  return {
    jobs: outcomes.length,
    bins,
    off:
      pairs.length === 0
        ? NaN
        : bins.reduce((sum, bin) => sum + bin.count * Math.abs(bin.said - bin.cameTrue), 0) / pairs.length,
    named: named.length,
    wrong: named.filter((one) => one.named !== one.part).length,
  };
}

/** Bounds of a share that was seen `hits` times of `count`. */
export function wilson(hits: number, count: number): [least: number, most: number] {
  const z = FOUR_IN_FIVE;
  const share = hits / count;
  const middle = share + (z * z) / (2 * count);
  const reach = z * Math.sqrt((share * (1 - share)) / count + (z * z) / (4 * count * count));
  const whole = 1 + (z * z) / count;
  return [Math.max(0, (middle - reach) / whole), Math.min(1, (middle + reach) / whole)];
}
