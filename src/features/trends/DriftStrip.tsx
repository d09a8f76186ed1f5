import type { PlaceTrend } from '@/core/shed/functionTrends';

const WIDTH = 240;
const HEIGHT = 44;
const EDGE = 7;
/** Room on the right for what is still to come. */
const AHEAD = 52;
const DAY_MS = 86_400_000;

/** A place over the years in a strip: open dots, the last one filled, its limit dashed, and where the line runs out to. */
export function DriftStrip({
  trend: { kind, dots, limits, trend, repairs },
  label,
}: {
  trend: PlaceTrend;
  label: string;
}) {
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
    end === begin ? WIDTH - AHEAD : EDGE + ((WIDTH - AHEAD - EDGE) * (at - begin)) / (end - begin);
  const y = (value: number) =>
    high === low ? HEIGHT / 2 : HEIGHT - EDGE - ((HEIGHT - 2 * EDGE) * (value - low)) / (high - low);
  const points = dots.map(({ at, value }) => [x(Date.parse(at)), y(scale(value))] as const);
  const [lastX, lastY] = points.at(-1)!;
  const ahead = trend.toLimit && limit !== null ? meet(trend.toLimit.about, (end - begin) / DAY_MS) : null;
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className="h-11 w-full max-w-[240px]"
      role="img"
      aria-label={label}
      data-testid="drift-strip"
    >
      {limit === null ? null : (
        <path
          d={`M0 ${y(scale(limit))}H${WIDTH}`}
          stroke="var(--ink)"
          strokeWidth={1.6}
          strokeDasharray="7 4"
        />
      )}
      {repairs.map((at) => (
        <path key={at} d={`M${x(Date.parse(at))} ${HEIGHT - 3}v-9`} stroke="var(--verdi)" strokeWidth={2.4} />
      ))}
      <polyline
        points={points.map((point) => point.map(short).join(',')).join(' ')}
        fill="none"
        stroke="var(--ink2)"
        strokeWidth={1.8}
      />
      <path
        d={points.slice(0, -1).map(dot).join('')}
        fill="var(--film)"
        stroke="var(--ink2)"
        strokeWidth={1.6}
      />
      {ahead === null || limit === null ? null : (
        <>
          <path
            d={`M${lastX} ${lastY}L${lastX + ahead} ${y(scale(limit))}`}
            stroke="var(--copper)"
            strokeWidth={2}
            strokeDasharray="2 4"
            strokeLinecap="round"
          />
          <path d={`M${lastX + ahead - 5} ${y(scale(limit))}l5 -5l5 5l-5 5z`} fill="var(--copper)" />
        </>
      )}
      <circle cx={lastX} cy={lastY} r={5} fill="var(--pencil)" />
    </svg>
  );

  /** How far right the line runs, px: on the scale of the past where it fits, at the edge where it does not. */
  function meet(days: number, span: number): number {
    const own = span > 0 ? ((WIDTH - AHEAD - EDGE) * days) / span : AHEAD;
    return Math.max(9, Math.min(AHEAD - EDGE, own));
  }
}

/** An open dot as a piece of one path: a list has many strips. */
function dot([cx, cy]: readonly [number, number]): string {
  return `M${short(cx - DOT)} ${short(cy)}a3 3 0 1 0 6 0a3 3 0 1 0 -6 0`;
}
const DOT = 3;

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
