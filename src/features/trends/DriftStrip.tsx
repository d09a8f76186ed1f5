import { STRIP, type Strip } from './strip';

const { width, height } = STRIP;

/** A place over the years: open dots, the last one filled, its limit dashed, and where the line runs out to. */
export function DriftStrip({
  strip: { points, limit, ahead, repairs },
  label,
}: {
  strip: Strip;
  label: string;
}) {
  const dots = Array.from(
    { length: points.length / 2 },
    (_, k) => [points[2 * k]!, points[2 * k + 1]!] as const,
  );
  const [lastX, lastY] = dots.at(-1)!;
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      className="h-11 w-full max-w-[240px]"
      role="img"
      aria-label={label}
      data-testid="drift-strip"
    >
      {limit === null ? null : (
        <path d={`M0 ${limit}H${width}`} stroke="var(--ink)" strokeWidth={1.6} strokeDasharray="7 4" />
      )}
      <path
        d={repairs.map((x) => `M${x} ${height - 3}v-9`).join('')}
        stroke="var(--verdi)"
        strokeWidth={2.4}
      />
      <polyline points={points.join(' ')} fill="none" stroke="var(--ink2)" strokeWidth={1.8} />
      <path
        d={dots
          .slice(0, -1)
          .map(([x, y]) => `M${x - 3} ${y}a3 3 0 1 0 6 0a3 3 0 1 0 -6 0`)
          .join('')}
        fill="var(--film)"
        stroke="var(--ink2)"
        strokeWidth={1.6}
      />
      {ahead === null || limit === null ? null : (
        <>
          <path
            d={`M${lastX} ${lastY}L${lastX + ahead} ${limit}`}
            stroke="var(--copper)"
            strokeWidth={2}
            strokeDasharray="2 4"
            strokeLinecap="round"
          />
          <path d={`M${lastX + ahead - 5} ${limit}l5 -5l5 5l-5 5z`} fill="var(--copper)" />
        </>
      )}
      <circle cx={lastX} cy={lastY} r={5} fill="var(--pencil)" />
    </svg>
  );
}
