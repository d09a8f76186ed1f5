import { POINT_RADIUS as RADIUS, type BranchBox } from '@/core/path/layoutPath';
import { Pipe, pressable } from '../figure';
import { inTwenty, TurnStrokes } from '../Turns';
import type { PlugBody } from '@/core/path/plugBodies';
import type { PathFigureProps } from './pathProps';
import { CHARACTER } from './pathInk';

/** Half of a plug's body with air around it, px. */
const PLUG_ROOM = 16;

/** A lane that is not the asked one: flat and quiet, foldable to one line of words. */
export function PathBranch({
  branch,
  plain,
  layout,
  parts,
  standings,
  onLane,
  bodies,
}: { branch: BranchBox; bodies: readonly PlugBody[] } & PathFigureProps) {
  const fluid = branch.lane.medium === 'fluid';
  const coupled = fluid && branch.lane.coils.includes(layout.lane.id);
  const own = branch.parts.map((at) => standings[at]!);
  const turns = own.reduce((sum, one) => sum + one.turns, 0);
  const spared = own.every(({ state }) => state === 'spared');
  const held = own.every(({ state }) => state === 'spared' || state === 'held');
  const load = parts[branch.lane.of]!.part;
  const standing = plain ? '' : `${spared ? 'spared' : held ? 'held' : inTwenty(turns)}, `;
  const words = `${load.label ?? load.ref}: ${standing}${branch.parts.length} ${branch.parts.length === 1 ? 'part' : 'parts'}`;
  const ink = held ? 'var(--verdi)' : 'var(--ink2)';
  const [x1, x2] = [Math.min(branch.x1, branch.x2), Math.max(branch.x1, branch.x2)];
  const d = [
    branch.fork ? `M${branch.fork.x} ${branch.fork.y - RADIUS}V${branch.y}` : `M${x1} ${branch.y}`,
    `H${x2}`,
    branch.join ? `V${branch.join.y - RADIUS}` : '',
  ].join('');
  const room = words.length * CHARACTER + 24;
  const middle = clearPlace(x1, x2, room, bodies, branch);
  return (
    <g {...pressable(() => onLane(branch.lane.id))} tabIndex={0} aria-label={`Show the lane of ${words}`}>
      {coupled ? (
        <path
          d={`M${layout.fall.x} ${layout.fall.y1 - 4}V${branch.y}`}
          stroke="var(--ink2)"
          strokeWidth={2}
          strokeDasharray="2 5"
        />
      ) : null}
      {fluid ? (
        <g style={{ color: ink }}>
          <Pipe d={d} dashed={held && !spared} />
        </g>
      ) : (
        <path
          d={d}
          fill="none"
          stroke={ink}
          strokeWidth={2}
          strokeDasharray={held && !spared ? '9 6' : undefined}
        />
      )}
      <rect
        className="focus-box"
        x={middle - room / 2}
        y={branch.y - 15}
        width={room}
        height={30}
        fill="var(--sheet)"
        stroke="transparent"
        strokeWidth={3}
      />
      <text x={middle} y={branch.y + 5} textAnchor="middle" fontSize={15} style={{ fill: ink }}>
        {spared ? '✓ ' : ''}
        {words}
      </text>
      {turns > 0 && !held ? (
        <TurnStrokes
          count={turns}
          x={middle + room / 2 + 8 + 2.5 * turns}
          y={branch.y}
          height={18}
          room={turns * 5}
        />
      ) : null}
    </g>
  );
}

/** Where along a lane its words may stand, tried in this order. */
const PLACES = [0.42, 0.58, 0.28, 0.72, 0.16, 0.84];

/** A place for the words that no plug stands in, else the first. */
function clearPlace(
  x1: number,
  x2: number,
  room: number,
  bodies: readonly PlugBody[],
  { lane }: BranchBox,
): number {
  const plugs = bodies.flatMap(({ above }) => above.filter((pin) => pin.lane === lane.id));
  const places = PLACES.map((share) => x1 + share * (x2 - x1));
  return (
    places.find(
      (x) =>
        x - room / 2 > x1 &&
        x + room / 2 < x2 &&
        plugs.every((pin) => Math.abs(pin.x - x) > room / 2 + PLUG_ROOM),
    ) ?? places[0]!
  );
}
