import type { CircuitModel } from '../circuit/model';
import type { Test } from '../circuit/schema';
import { measuresNow, mendedParts, type ProvedMeasure } from '../job/provedMeasures';
import type { JobState } from '../job/reduceJob';
import type { ShopMarks } from '../tables/marks';
import { measureLimits, type MeasureLimits } from './measureLimits';
import { sideBeyond } from './trend';

/** A place that this job leaves past its limit. */
export interface PastLimit {
  measure: ProvedMeasure;
  test: Test;
  side: 'least' | 'most';
  limits: MeasureLimits;
}

/** Standard deviations that a winding of unknown warmth may stand off its limit and still be sound. */
const WARMTH_SIGMAS = 2;

/** Places that stand past their limits by what this job read of them last; they stop no hand-over, and go out with the machine. */
export function readPastLimits(model: CircuitModel, state: JobState, marks: ShopMarks): PastLimit[] {
  return measuresNow(model, state).flatMap((measure): PastLimit[] => {
    const { kind, part, test, value, sigma, corrected, over } = measure;
    if (!test || over) return [];
    const limits = measureLimits(model, { kind, part, test }, marks);
    if (!limits) return [];
    const side = sideBeyond(limits, value);
    if (!side) return [];
    // Warm copper reads more: what the weather may have done is no limit passed.
    const away = Math.abs(value - limits[side]!);
    const mayBeWarmth = kind === 'winding' && !corrected && away < WARMTH_SIGMAS * sigma;
    return mayBeWarmth ? [] : [{ measure, test, side, limits }];
  });
}

/** A place that drifts, as its trend stood before this job. */
export interface Drifting {
  place: string;
  part: string | null;
  title: string;
  /** From when it may be at its limit, a day; null where nothing says that it will. */
  on: string | null;
  /** It was past its limit when it was read last. */
  beyond: boolean;
}

/**
 * Of what drifted before this job, the worst first, the first that still does: a part that was changed begins anew, and what was read here
 * speaks for itself.
 */
export function stillDrifts(
  model: CircuitModel,
  state: JobState,
  drifting: readonly Drifting[],
): Drifting | null {
  const mended = mendedParts(state);
  const read = new Set(measuresNow(model, state).map(({ place }) => place));
  const still = drifting.find(({ place, part, on, beyond }) => {
    if (!beyond && on === null) return false;
    if (part !== null && mended.has(part)) return false;
    const sinceWork = read.has(place) && (beyond || (part === null && state.fixes.length > 0));
    return !sinceWork;
  });
  return still ?? null;
}
