import type { CircuitModel } from '../circuit/model';
import type { Test } from '../circuit/schema';
import { canBeAsked } from '../diagnosis/predict';
import type { MeasureKind, ProvedMeasure } from '../job/provedMeasures';
import type { ShopMarks } from '../tables/marks';
import { measureLimits, type MeasureLimits } from './measureLimits';
import { trendOf, type Trend } from './trend';

/** A proved reading with the job that it is from. */
export type PlaceMeasure = Omit<ProvedMeasure, 'type'> & { job: number };

/** A part that was mended or changed, and when that was done. */
export interface Repair {
  part: string;
  at: string;
}

/** A reading as a dot of its strip. */
export interface TrendDot {
  at: string;
  value: number;
  corrected: boolean;
  over: boolean;
  job: number;
}

/** How one place of a function moves over the years. */
export interface PlaceTrend {
  kind: MeasureKind;
  place: string;
  part: string | null;
  /** How it is read again; null while only a bench has read it. */
  test: Test | null;
  limits: MeasureLimits | null;
  trend: Trend;
  /** The latest readings, oldest first. */
  dots: TrendDot[];
  /** Days on which it was mended, ISO 8601. */
  repairs: string[];
  /** Days, ISO 8601: the last reading, and from when it may be at its limit; null where nothing says that it will. */
  lastOn: string;
  mayReachOn: string | null;
}

/** A place with what it is called, so that a list need not compile its drawing. */
export interface TitledTrend extends PlaceTrend {
  title: string;
}

const DAY_MS = 86_400_000;
/** More dots than that are no picture; the line stands on as many. */
const MOST_DOTS = 80;

/** How each place of a function moves, from what its jobs left proved. */
export function functionTrends(
  model: CircuitModel,
  measures: readonly PlaceMeasure[],
  repairs: readonly Repair[],
  marks: ShopMarks,
): PlaceTrend[] {
  const places = new Map<string, PlaceMeasure[]>();
  for (const one of measures) {
    // The drawing has changed since: the part is no longer there, or it is asked another way.
    if (one.part !== null && !model.compiled.partIndex.has(one.part)) continue;
    places.set(one.place, [...(places.get(one.place) ?? []), one]);
  }
  return [...places.values()].flatMap((own) => placeTrend(model, own, repairs, marks) ?? []);
}

function placeTrend(
  model: CircuitModel,
  own: readonly PlaceMeasure[],
  repairs: readonly Repair[],
  marks: ShopMarks,
): PlaceTrend | null {
  const sorted = [...own].sort((a, b) => a.at.localeCompare(b.at)).slice(-MOST_DOTS);
  const last = sorted.at(-1)!;
  const { kind, place, part } = last;
  const test = sorted.findLast((one) => one.test)?.test ?? null;
  if (test && !canBeAsked(model, test)) return null;
  // What was done to a part changes what is read of it; what is read of a point may be changed by anything on the way.
  const mended = repairs.filter((one) => part === null || one.part === part).map(({ at }) => at);
  const limits = measureLimits(model, { kind, part, test }, marks);
  const trend = trendOf({
    points: sorted.map(({ at, value, sigma, corrected }) => ({ day: dayOf(at), value, sigma, corrected })),
    limits,
    repairs: mended.map(dayOf),
    today: dayOf(last.at),
    byFactors: kind === 'insulation',
  });
  return {
    kind,
    place,
    part,
    test,
    limits,
    trend,
    dots: sorted.map(({ at, value, corrected, over, job }) => ({ at, value, corrected, over, job })),
    repairs: mended.filter((at) => at >= sorted[0]!.at),
    lastOn: isoDay(dayOf(last.at)),
    mayReachOn: trend.toLimit ? isoDay(dayOf(last.at) + trend.toLimit.soonest) : null,
  };
}

function dayOf(iso: string): number {
  return Date.parse(iso) / DAY_MS;
}

function isoDay(day: number): string {
  return new Date(Math.floor(day) * DAY_MS).toISOString().slice(0, 10);
}
