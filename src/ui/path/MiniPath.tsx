import type { State } from '@/core/path/standing';
import { TurnStrokes } from '../Turns';

/** A job's path in small: order, points and turns only. */
export function MiniPath({
  runs,
}: {
  runs: { state: State; turns: number; asked: boolean; fall: boolean }[];
}) {
  const [width, high, low] = [560, 16, 46];
  const weights = runs.map(({ turns, fall }) => (fall ? 1.3 : 1) + turns * 0.22);
  const total = weights.reduce((sum, one) => sum + one, 0);
  const room = width - 40;
  let x = 16;
  let y = high;
  const ink = (state: State) =>
    state === 'spared' || state === 'held' ? 'var(--verdi)' : state === 'bad' ? 'var(--stamp)' : 'var(--ink)';
  const marks: React.ReactNode[] = [];
  runs.forEach(({ state, turns, asked, fall }, at) => {
    const x1 = x;
    x += (weights[at]! / total) * room;
    const stroke = {
      stroke: ink(state),
      strokeWidth: state === 'spared' ? 3.4 : 2.4,
      strokeDasharray: state === 'held' ? '7 4' : undefined,
      fill: 'none',
    };
    if (fall) {
      // Its turns stand on the level stub before the drop, so that many of them can still be counted.
      const drop = x - 18;
      marks.push(
        <g key={at}>
          <path d={`M${x1} ${y}H${drop}V${low}H${x}`} {...stroke} />
          <circle
            cx={drop}
            cy={(y + low) / 2}
            r={6}
            fill="var(--sheet)"
            stroke={ink(state)}
            strokeWidth={2.4}
          />
          <TurnStrokes
            count={turns}
            x={(x1 + drop) / 2}
            y={y}
            height={20}
            room={drop - x1 - 8}
            closest={3.4}
          />
        </g>,
      );
      y = low;
    } else {
      marks.push(
        <g key={at}>
          <path d={`M${x1} ${y}H${x}`} {...stroke} />
          <TurnStrokes count={turns} x={(x1 + x) / 2} y={y} height={20} room={x - x1 - 12} closest={3.4} />
        </g>,
      );
    }
    marks.push(
      <circle
        key={`p${at}`}
        cx={x}
        cy={y}
        r={asked ? 6.5 : 4.5}
        fill={asked ? 'var(--pencil)' : state === 'spared' ? 'var(--ink)' : 'var(--sheet)'}
        stroke={asked ? 'var(--pencil)' : 'var(--ink)'}
        strokeWidth={2}
      />,
    );
  });
  return (
    <svg width={width} height={62} viewBox={`0 0 ${width} 62`} className="max-w-full" aria-hidden>
      <path
        d={`M6 ${high - 8}v16M10 ${high - 4}v8M10 ${high}h6`}
        stroke="var(--ink)"
        strokeWidth={2.4}
        fill="none"
      />
      {marks}
      <path d={`M${x} ${y}h12m0 -8v16m5 -12v8`} stroke="var(--ink)" strokeWidth={2.4} fill="none" />
    </svg>
  );
}
