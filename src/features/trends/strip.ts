import type { PlaceTrend } from '@/core/shed/functionTrends';

/** Size of a strip, px, and the room on its right for what is still to come. */
export const STRIP = { width: 240, height: 44, edge: 7, ahead: 52 } as const;
const DAY_MS = 86_400_000;

/** A place over the years as few numbers: a list has many, and each goes to the page twice. */
export interface Strip {
  /** Places of the readings, x and y in turn, px. */
  points: number[];
  /** Height of the limit that matters; null where there is none. */
  limit: number | null;
  /** How far right of the last reading the line meets it; null where it does not, or has met it already. */
  ahead: number | null;
  /** Where it was mended. */
  repairs: number[];
}

/** A place's readings, its limit, and where the line runs out to, drawn into a strip; null without a reading. */
export function stripOf({ kind, dots, limits, trend, repairs }: PlaceTrend): Strip | null {
  const { width, height, edge, ahead: room } = STRIP;
  const last = dots.at(-1);
  if (!last) return null;
  const scale = kind === 'insulation' ? Math.log10 : (value: number) => value;
  const side = trend.toLimit?.side ?? trend.beyond ?? nearer(limits, last.value);
  const limit = side && limits ? limits[side] : null;
  const values = dots.map(({ value }) => scale(value));
  const all = limit === null ? values : [...values, scale(limit)];
  const [low, high] = [Math.min(...all), Math.max(...all)];
  const [begin, end] = [Date.parse(dots[0]!.at), Date.parse(last.at)];
  const x = (at: number) =>
    end === begin ? width - room : edge + ((width - room - edge) * (at - begin)) / (end - begin);
  const y = (value: number) =>
    high === low ? height / 2 : height - edge - ((height - 2 * edge) * (value - low)) / (high - low);
  // On the scale of the past where it fits, at the edge where it does not.
  const days = (end - begin) / DAY_MS;
  const reach = (about: number) =>
    Math.max(LEAST_AHEAD, Math.min(room - edge, days > 0 ? ((width - room - edge) * about) / days : room));
  return {
    points: dots.flatMap(({ at, value }) => [short(x(Date.parse(at))), short(y(scale(value)))]),
    limit: limit === null ? null : short(y(scale(limit))),
    ahead: trend.toLimit && !trend.beyond && limit !== null ? short(reach(trend.toLimit.about)) : null,
    repairs: repairs.map((at) => short(x(Date.parse(at)))),
  };
}
/** The diamond at the limit stands clear of the last dot. */
const LEAST_AHEAD = 9;

function short(px: number): number {
  return Math.round(10 * px) / 10;
}

/** The limit that a value stands nearer to. */
function nearer(limits: PlaceTrend['limits'], value: number): 'least' | 'most' | null {
  if (!limits) return null;
  const { least, most } = limits;
  if (least === null) return most === null ? null : 'most';
  if (most === null) return 'least';
  return Math.abs(value - least) < Math.abs(most - value) ? 'least' : 'most';
}
