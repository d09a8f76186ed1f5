import { figureOf } from '../kinds/reading/index';
import type { SeverityRange } from './faultTypes';
import { totalSigma } from './likelihood';
import type { Observation } from './observations';
import type { Prediction } from './prediction';

/** Offsets, in standard deviations, of the points put around a severity that a reading points to. */
const AROUND = [-4, -2.8, -2, -1.4, -0.9, -0.45, 0, 0.45, 0.9, 1.4, 2, 2.8, 4];
const BISECTIONS = 22;
/** How many readings may add their own points to one fault's grid. */
const MOST_ROOTS = 3;

/**
 * Severities that the numeric readings point to, with points around each at multiples of its width, so that a narrow
 * peak is not stepped over.
 *
 * @param predicted what an observation reads at any severity
 * @param at the same at a place of the grid
 */
export function severitiesReadFrom(
  observations: readonly Observation[],
  predicted: (severity: number, observation: number) => Prediction,
  range: SeverityRange,
  grid: readonly number[],
  at: (observation: number, severity: number) => Prediction,
): number[] {
  const roots: { log: number; width: number }[] = [];
  observations.forEach(({ readings }, k) => {
    const { kind, value, meter } = readings[0]!;
    if (typeof value !== 'number') return;
    const { unsigned } = figureOf(kind);
    const wanted = unsigned ? Math.abs(value) : value;
    const meanOf = (prediction: Prediction) => {
      if (prediction.type !== 'number') return NaN;
      return unsigned ? Math.abs(prediction.mean) : prediction.mean;
    };
    for (let s = 1; s < grid.length; s++) {
      const [from, to] = [meanOf(at(k, s - 1)), meanOf(at(k, s))];
      if (!(from - wanted) || Number.isNaN(from) || Number.isNaN(to)) continue;
      if (from > wanted === to > wanted) continue;
      let [a, b] = [Math.log(grid[s - 1]!), Math.log(grid[s]!)];
      let [fa, fb] = [from, to];
      for (let step = 0; step < BISECTIONS && b - a > 1e-4; step++) {
        const middle = (a + b) / 2;
        const seen = meanOf(predicted(Math.exp(middle), k));
        if (seen > wanted === from > wanted) [a, fa] = [middle, seen];
        else [b, fb] = [middle, seen];
      }
      const found = predicted(Math.exp((a + b) / 2), k);
      const sigma = found.type === 'number' ? totalSigma(kind, wanted, found.sigma, meter) : 0;
      const slope = Math.abs(fb - fa) / (b - a);
      const width = Number.isFinite(slope) && slope > 0 ? Math.min(sigma / slope, 1) : 0.05;
      roots.push({ log: (a + b) / 2, width: Math.max(width, 1e-4) });
    }
  });
  roots.sort((x, y) => x.width - y.width);
  const fresh = new Set<number>();
  for (const { log, width } of roots.slice(0, MOST_ROOTS)) {
    for (const step of AROUND) {
      const severity = Math.exp(log + step * width);
      if (severity > range.least && severity < range.most) fresh.add(severity);
    }
  }
  return [...fresh];
}
