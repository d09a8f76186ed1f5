'use client';

import type { JobDigest } from '@/core/job/jobDigest';
import type { State } from '@/core/path/standing';

const [WIDTH, HEIGHT, HIGH, LOW] = [560, 62, 16, 46];
const TURN = { height: 20, most: 7, closest: 3.4, lean: 4 };

const INK: Readonly<Record<State, string>> = {
  spared: 'var(--verdi)',
  held: 'var(--verdi)',
  bad: 'var(--stamp)',
  doubt: 'var(--ink)',
};

const DOTS = [
  ['open', 'var(--sheet)', 'var(--ink)'],
  ['spared', 'var(--ink)', 'var(--ink)'],
  ['asked', 'var(--pencil)', 'var(--pencil)'],
] as const;

/** A job's path in small: order, points and turns only. Marks of one look share one path: a list holds many of these. */
export function MiniPath({ runs }: { runs: JobDigest['runs'] }) {
  const { wires, turns, dots, end } = drawMini(runs);
  return (
    <svg
      width={WIDTH}
      height={HEIGHT}
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className="max-w-full"
      fill="none"
      aria-hidden
    >
      <path d={`M6 ${HIGH - 8}v16M10 ${HIGH - 4}v8M10 ${HIGH}h6`} stroke="var(--ink)" strokeWidth={2.4} />
      {[...wires].map(([state, d]) => (
        <path
          key={state}
          d={d}
          stroke={INK[state]}
          strokeWidth={state === 'spared' ? 3.4 : 2.4}
          strokeDasharray={state === 'held' ? '7 4' : undefined}
        />
      ))}
      <path d={turns} stroke="var(--copper)" strokeWidth="var(--turn-width)" strokeLinecap="round" />
      {DOTS.map(([look, fill, stroke]) =>
        dots[look] === '' ? null : (
          <path key={look} d={dots[look]} fill={fill} stroke={stroke} strokeWidth={2} />
        ),
      )}
      <path d={`M${end.x} ${end.y}h12m0 -8v16m5 -12v8`} stroke="var(--ink)" strokeWidth={2.4} />
    </svg>
  );
}

/** Path data of each look, px. */
export function drawMini(runs: JobDigest['runs']) {
  const weights = runs.map(({ turns, fall }) => (fall ? 1.3 : 1) + turns * 0.22);
  const total = weights.reduce((sum, one) => sum + one, 0);
  const room = WIDTH - 40;
  const wires = new Map<State, string>();
  const dots = { open: '', spared: '', asked: '' };
  let turns = '';
  let [x, y] = [16, HIGH];
  runs.forEach((run, at) => {
    const x1 = x;
    x = whole(x + (weights[at]! / total) * room);
    const wire = (d: string) => wires.set(run.state, (wires.get(run.state) ?? '') + d);
    if (run.fall) {
      // Its turns stand on the level stub before the drop, so that many of them can still be counted.
      const drop = whole(x - 18);
      wire(`M${x1} ${y}H${drop}V${LOW}H${x}`);
      turns += winding(run.turns, (x1 + drop) / 2, y, drop - x1 - 8);
      dots.open += dot(drop, (y + LOW) / 2, 6);
      y = LOW;
    } else {
      wire(`M${x1} ${y}H${x}`);
      turns += winding(run.turns, (x1 + x) / 2, y, x - x1 - 12);
    }
    const look = run.asked ? 'asked' : run.state === 'spared' ? 'spared' : 'open';
    dots[look] += dot(x, y, run.asked ? 6.5 : 4.5);
  });
  return { wires, turns, dots, end: { x, y } };
}

function winding(count: number, x: number, y: number, room: number): string {
  const pitch = Math.max(TURN.closest, Math.min(TURN.most, (room - 6) / Math.max(count, 1)));
  const start = x - ((count - 1) * pitch) / 2 - TURN.lean / 2;
  return Array.from(
    { length: count },
    (_, k) => `M${whole(start + k * pitch)} ${y + TURN.height / 2}l${TURN.lean} -${TURN.height}`,
  ).join('');
}

function dot(x: number, y: number, radius: number): string {
  // One arc all but round, then shut: half as long to write as two.
  return `M${whole(x)} ${y - radius}a${radius} ${radius} 0 1 0 .1 0z`;
}

/** Half pixels are fine enough, and short to write. */
function whole(value: number): number {
  return Math.round(2 * value) / 2;
}
