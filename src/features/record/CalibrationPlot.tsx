import type { Calibration } from '@/core/shed/calibration';

const SIZE = 320;
const EDGE = { left: 46, bottom: 40, top: 10, right: 18 };
const TICKS = [0, 0.25, 0.5, 0.75, 1] as const;

/** What was said against what came true: on the line the doubt is worth what it says. Bars hold four chances in five. */
export function CalibrationPlot({ bins, label }: { bins: Calibration['bins']; label: string }) {
  const x = (share: number) => EDGE.left + share * (SIZE - EDGE.left - EDGE.right);
  const y = (share: number) => SIZE - EDGE.bottom - share * (SIZE - EDGE.top - EDGE.bottom);
  return (
    <svg viewBox={`0 0 ${SIZE} ${SIZE}`} className="w-full max-w-[360px]" role="img" aria-label={label}>
      {TICKS.map((tick) => (
        <g key={tick}>
          <path d={`M${x(0)} ${y(tick)}H${x(1)}`} stroke="var(--rule)" strokeWidth={1.4} />
          <text x={EDGE.left - 6} y={y(tick) + 5} textAnchor="end" fontSize={14} fill="var(--ink2)">
            {100 * tick}
          </text>
          <text x={x(tick)} y={SIZE - EDGE.bottom + 18} textAnchor="middle" fontSize={14} fill="var(--ink2)">
            {100 * tick}
          </text>
        </g>
      ))}
      <text x={x(0.5)} y={SIZE - 4} textAnchor="middle" fontSize={14.5} fill="var(--ink)">
        doubt said, %
      </text>
      <text x={-y(0.5)} y={13} transform="rotate(-90)" textAnchor="middle" fontSize={14.5} fill="var(--ink)">
        came true, %
      </text>
      <path
        d={`M${x(0)} ${y(0)}L${x(1)} ${y(1)}`}
        stroke="var(--ink)"
        strokeWidth={1.6}
        strokeDasharray="7 4"
      />
      {bins.map(({ from, said, cameTrue, least, most }) => (
        <g key={from}>
          <path d={`M${x(said)} ${y(least)}V${y(most)}`} stroke="var(--copper)" strokeWidth={2.6} />
          <circle cx={x(said)} cy={y(cameTrue)} r={5.5} fill="var(--pencil)" />
        </g>
      ))}
    </svg>
  );
}
