import { POINT_RADIUS as RADIUS, type PointBox } from '@/core/path/layoutPath';
import type { Part } from '@/core/circuit/schema';
import type { Standing } from '@/core/path/standing';
import { pressable } from '../figure';
import { STATE_INK, wordState } from './pathInk';
import type { PathFigureProps } from './pathProps';

/** From a point down to what hangs on it, and from one such to the next, px. */
const HANG_DROP = 17;

/** A test point: open, read, asked or out of reach. */
export function PathPoint({
  box,
  leads,
  gauge,
  pins,
  noReach,
  parts,
  standings,
  onPoint,
  onRun,
}: { box: PointBox } & PathFigureProps) {
  const asked =
    gauge === box.node || (leads !== null && (leads.plus === box.node || leads.minus === box.node));
  const read = pins.some(({ node }) => node === box.node);
  const far = noReach.has(box.node);
  // A word stands under its point, a number in it.
  const named = /^\D{3,}$/.test(box.label);
  const words = asked ? 'asked' : far ? 'no reach' : read ? 'read' : 'not read';
  const point = (
    <g
      {...pressable(() => onPoint(box.node))}
      tabIndex={0}
      aria-label={`Point ${box.label}, ${words}`}
      data-point={box.label}
    >
      <rect
        className="focus-box"
        x={box.x - 23}
        y={box.y - 23}
        width={46}
        height={46}
        fill="transparent"
        stroke="transparent"
        strokeWidth={3}
      />
      {asked ? (
        <circle
          cx={box.x}
          cy={box.y}
          r={RADIUS + 4.5}
          fill="var(--sheet)"
          stroke="var(--pencil)"
          strokeWidth={2}
        />
      ) : null}
      <circle
        cx={box.x}
        cy={box.y}
        r={RADIUS}
        fill={asked ? 'var(--pencil)' : read ? 'var(--ink)' : 'var(--sheet)'}
        stroke={asked ? 'var(--pencil)' : 'var(--ink)'}
        strokeWidth={2.4}
        strokeDasharray={far ? '4 4' : undefined}
      />
      <text
        x={box.x}
        y={named ? box.y + RADIUS + 17 : box.y + 5.5}
        textAnchor="middle"
        fontSize={!named && box.label.length > 2 ? 12 : 16}
        className="point-number fig-bold"
        style={{ fill: !named && (asked || read) ? 'var(--sheet)' : 'var(--ink)' }}
      >
        {box.label}
      </text>
    </g>
  );
  if (box.hangs.length === 0) return point;
  return (
    <>
      {point}
      {box.hangs.map((at, line) => (
        <Hanging
          key={at}
          part={parts[at]!.part}
          standing={standings[at]!}
          x={box.x}
          y={box.y + RADIUS + HANG_DROP * (line + (named ? 2 : 1))}
          onPress={() => onRun(at)}
        />
      ))}
    </>
  );
}

/** A part that hangs on a point and leads nowhere else: its reference under the point, with its turns. */
function Hanging({
  part,
  standing,
  x,
  y,
  onPress,
}: {
  part: Part;
  standing: Standing;
  x: number;
  y: number;
  onPress: () => void;
}) {
  const { state, turns } = standing;
  const mark = state === 'spared' ? '✓ ' : state === 'bad' ? '✕ ' : '';
  return (
    <g
      {...pressable(onPress)}
      tabIndex={-1}
      aria-label={`${part.ref} ${part.label ?? ''}: ${wordState(standing)}`}
      data-part={part.ref}
      data-state={state}
    >
      <text
        x={x}
        y={y}
        textAnchor="middle"
        fontSize={16}
        className="fig-bold"
        stroke="var(--sheet)"
        strokeWidth={4}
        style={{ fill: STATE_INK[state], paintOrder: 'stroke' }}
      >
        {mark}
        {part.ref}
        {state === 'doubt' && turns > 0 ? <tspan fill="var(--copper-ink)"> {turns}</tspan> : null}
      </text>
      <title>{`${part.ref} ${part.label ?? ''}`}</title>
    </g>
  );
}
