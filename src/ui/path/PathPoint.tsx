import { POINT_RADIUS as RADIUS, type PointBox } from '@/core/path/layoutPath';
import { pressable } from '../figure';
import type { PathFigureProps } from './pathProps';

/** A test point: open, read, asked or out of reach. */
export function PathPoint({
  box,
  leads,
  gauge,
  pins,
  noReach,
  onPoint,
}: { box: PointBox } & PathFigureProps) {
  const asked =
    gauge === box.node || (leads !== null && (leads.plus === box.node || leads.minus === box.node));
  const read = pins.some(({ node }) => node === box.node);
  const far = noReach.has(box.node);
  // A word stands under its point, a number in it.
  const named = /^\D{3,}$/.test(box.label);
  const words = asked ? 'asked' : far ? 'no reach' : read ? 'read' : 'not read';
  return (
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
}
