import { ALL_TURNS } from '@/core/path/turns';
import type { Lane } from '@/core/path/lanes';
import type { Standing } from '@/core/path/standing';
import { TurnStrokes } from '../Turns';

const HEIGHT = 96;
const AXIS = 44;
const LEAST_ROOM = 88;

/** The path drawn flat, 96 px tall: order, points, turns and names only. */
export function PathStrip({
  lane,
  width,
  names,
  points,
  standings,
  onPart,
  chosen,
}: {
  lane: Lane;
  width: number;
  /** Names of the parts, by index. */
  names: readonly string[];
  points: ReadonlyMap<number, number>;
  standings: readonly Standing[];
  onPart?: (part: number) => void;
  chosen?: number | null;
}) {
  const steps = [...lane.feed, lane.load, ...lane.back];
  const room = Math.max(LEAST_ROOM, (width - 88) / steps.length);
  const total = 88 + room * steps.length;
  const first = steps[0]!;
  return (
    <div className="shrink-0 overflow-x-auto overflow-y-hidden bg-sheet" data-testid="strip">
      <svg
        width={total}
        height={HEIGHT}
        viewBox={`0 0 ${total} ${HEIGHT}`}
        className="figure block"
        role={onPart ? 'group' : 'img'}
        aria-label={describe(steps, names, standings)}
      >
        <path
          d={`M30 ${AXIS - 12}v24M36 ${AXIS - 6}v12M36 ${AXIS}h8`}
          stroke="var(--ink)"
          strokeWidth={2.4}
          fill="none"
        />
        {steps.map((step, at) => {
          const [x1, x2] = [44 + at * room, 44 + (at + 1) * room];
          const { state, turns } = standings[step.part] ?? { state: 'doubt', turns: 0 };
          const ink = state === 'bad' ? 'var(--stamp)' : state === 'doubt' ? 'var(--ink)' : 'var(--verdi)';
          const name = names[step.part] ?? '';
          return (
            <g
              key={step.part + '-' + at}
              {...(onPart
                ? {
                    role: 'button',
                    tabIndex: 0,
                    'aria-label': name,
                    onClick: () => onPart(step.part),
                    onKeyDown: (event: React.KeyboardEvent) => {
                      if (event.key === 'Enter' || event.key === ' ') onPart(step.part);
                    },
                  }
                : {})}
            >
              <rect
                x={x1}
                y={0}
                width={room}
                height={HEIGHT}
                fill={chosen === step.part ? 'var(--pencil-t)' : 'transparent'}
              />
              <path
                d={`M${x1 + 11} ${AXIS}H${x2 - 11}`}
                stroke={ink}
                strokeWidth={state === 'spared' ? 4 : 3}
                strokeDasharray={state === 'held' ? '7 4' : undefined}
              />
              {step === lane.load ? (
                <rect
                  x={(x1 + x2) / 2 - 13}
                  y={AXIS - 9}
                  width={26}
                  height={18}
                  fill="var(--sheet)"
                  stroke={ink}
                  strokeWidth={2.4}
                />
              ) : null}
              <TurnStrokes
                count={Math.min(turns, ALL_TURNS)}
                x={(x1 + x2) / 2}
                y={AXIS - 17}
                height={22}
                room={room - 26}
                closest={3.4}
              />
              <text x={(x1 + x2) / 2} y={AXIS + 30} textAnchor="middle" fontSize={15} className="fig-bold">
                {name.length > room / 8 ? `${name.slice(0, Math.floor(room / 8) - 1)}…` : name}
              </text>
              {state === 'spared' ? (
                <path
                  d={`M${(x1 + x2) / 2 - 6} ${AXIS + 41}l4 4l8 -9`}
                  stroke="var(--verdi)"
                  strokeWidth={2.6}
                  fill="none"
                />
              ) : null}
              {state === 'bad' ? (
                <path
                  d={`M${(x1 + x2) / 2 - 5} ${AXIS + 36}l10 10m0 -10l-10 10`}
                  stroke="var(--stamp)"
                  strokeWidth={3}
                  fill="none"
                />
              ) : null}
            </g>
          );
        })}
        {[first.from, ...steps.map(({ to }) => to)].map((node, at) => (
          <g key={at}>
            <circle
              cx={44 + at * room}
              cy={AXIS}
              r={11}
              fill="var(--sheet)"
              stroke="var(--ink)"
              strokeWidth={1.8}
            />
            <text
              x={44 + at * room}
              y={AXIS + 4.5}
              textAnchor="middle"
              fontSize={13}
              className="point-number fig"
            >
              {points.get(node) ?? ''}
            </text>
          </g>
        ))}
        <path
          d={`M${total - 44 + 11} ${AXIS}h8m0 -10v20m5 -15v10m5 -7v4`}
          stroke="var(--ink)"
          strokeWidth={2.4}
          fill="none"
        />
      </svg>
    </div>
  );
}

function describe(steps: Lane['feed'], names: readonly string[], standings: readonly Standing[]): string {
  const words = { doubt: 'in doubt', held: 'held', spared: 'spared', bad: 'proved bad' };
  return steps.map(({ part }) => `${names[part]} ${words[standings[part]?.state ?? 'doubt']}`).join(', ');
}
