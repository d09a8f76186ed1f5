import type { ReactNode } from 'react';
import { POINT_RADIUS as RADIUS, type PathLayout, type PointBox } from '@/core/path/layoutPath';
import { courseLine, type Course } from './leadCourses';

/** A reading pinned at a point, at the height it reads. */
export interface Pin {
  node: number;
  text: string;
  condition?: string;
  /** Height it reads when that is off the expected one by more than its band. */
  trueVolts?: number;
  off?: 'fallen' | 'lifted';
  over?: boolean;
}

/** A reading across two neighbouring points, drawn as a bracket. */
export interface Span {
  from: number;
  to: number;
  text: string;
}

/** Where the next-test tag hangs: its edges, and how far under the figure. */
export interface Tag {
  left: number;
  right: number;
  drop: number;
  /** How far the path is scrolled, px: what belongs to its edge stays there. */
  scrolled: number;
}

function heightOf({ floorY, supplyY, supplyVolts }: PathLayout, volts: number): number {
  return floorY - Math.min(Math.max(volts / supplyVolts, -0.12), 1.12) * (floorY - supplyY);
}

export function PinMark({ pin, layout, aside }: { pin: Pin; layout: PathLayout; aside: boolean }) {
  const box = layout.points.find(({ node }) => node === pin.node);
  if (!box) return null;
  const trueY = pin.trueVolts === undefined ? box.y : heightOf(layout, pin.trueVolts);
  const moved = Math.abs(trueY - box.y) > 6;
  const top = box.y - 38;
  // Beside the first point stands the supply, with its own doubt over it.
  const first = !aside && layout.points[0]?.node === pin.node;
  const anchor = aside ? 'end' : first ? 'start' : 'middle';
  const x = aside ? box.x - 7 : first ? box.x - RADIUS : box.x;
  return (
    <g style={{ color: 'var(--pencil)' }} pointerEvents="none">
      <line x1={box.x} x2={box.x} y1={box.y - RADIUS} y2={top + 3} stroke="currentColor" strokeWidth={1.6} />
      {moved ? (
        <>
          <line x1={box.x} x2={box.x} y1={box.y} y2={trueY} stroke="currentColor" strokeWidth={2.4} />
          <circle cx={box.x} cy={trueY} r={5} fill="currentColor" />
        </>
      ) : null}
      <text
        x={x}
        y={top - 1}
        textAnchor={anchor}
        fontSize={18}
        className="fig-bold"
        style={{ fill: 'var(--pencil)' }}
      >
        {pin.off === 'fallen' ? '▼ ' : pin.off === 'lifted' ? '▲ ' : pin.over ? '⊖ ' : ''}
        {pin.text}
      </text>
      {pin.condition ? (
        <text x={x} y={top - 20} textAnchor={anchor} fontSize={15} style={{ fill: 'var(--pencil)' }}>
          {pin.condition}
        </text>
      ) : null}
    </g>
  );
}

/** Two or more off-height readings next to each other: the path as found. */
export function FoundPath({ pins, layout }: { pins: readonly Pin[]; layout: PathLayout }) {
  const moved = layout.points.flatMap((box) => {
    const pin = pins.find(({ node }) => node === box.node);
    return pin?.off && pin.trueVolts !== undefined ? [{ x: box.x, y: heightOf(layout, pin.trueVolts) }] : [];
  });
  if (moved.length < 2) return null;
  return (
    <polyline
      points={moved.map(({ x, y }) => `${x},${y}`).join(' ')}
      fill="none"
      stroke="var(--pencil)"
      strokeWidth={2.4}
      strokeDasharray="8 5"
    />
  );
}

/** Over the count of a part that the doubt sits on, where one lies between its points; and over what is pinned at them besides. */
const OVER_COUNT = 22;
const OVER_PIN = 14;

export function SpanMark({
  span,
  layout,
  pins,
  isDoubted,
}: {
  span: Span;
  layout: PathLayout;
  pins: readonly Pin[];
  /** Whether the doubt sits on a part, by its place in the circuit. */
  isDoubted: (part: number) => boolean;
}) {
  const boxes = [span.from, span.to].map((node) => layout.points.find((box) => box.node === node));
  const [one, two] = boxes;
  if (!one || !two) return null;
  const isFall = [layout.fall.high, layout.fall.low].every((node) => node === span.from || node === span.to);
  if (isFall) {
    const { x, y1, y2 } = layout.fall;
    const middle = (y1 + y2) / 2 + 8;
    return (
      <g pointerEvents="none">
        <path d={`M${x - 14} ${middle - 30}h-8v60h8`} fill="none" stroke="var(--pencil)" strokeWidth={2.4} />
        <PencilValue x={x - 30} y={middle + 6} anchor="end">
          {span.text}
        </PencilValue>
      </g>
    );
  }
  const [left, right] = [Math.min(one.x, two.x), Math.max(one.x, two.x)];
  const counted = layout.runs.some(
    ({ x1, x2, parts }) => x1 > left - RADIUS && x2 < right + RADIUS && parts.some(isDoubted),
  );
  const isPinned = pins.some(({ node }) => node === span.from || node === span.to);
  const y = Math.min(one.y, two.y) - 26 - (counted ? OVER_COUNT + (isPinned ? OVER_PIN : 0) : 0);
  const [x1, x2] = [left + 8, right - 8];
  return (
    <g pointerEvents="none">
      <path d={`M${x1} ${y + 8}v-8H${x2}v8`} fill="none" stroke="var(--pencil)" strokeWidth={2.4} />
      <PencilValue x={(x1 + x2) / 2} y={y - 7} anchor="middle">
        {span.text}
      </PencilValue>
    </g>
  );
}

export function Typed({ text, box }: { text: string; box: PointBox | undefined }) {
  if (!box) return null;
  const room = 24 + 11 * text.length;
  return (
    <g pointerEvents="none">
      <line
        x1={box.x}
        x2={box.x}
        y1={box.y - 20}
        y2={box.y - 42}
        stroke="var(--pencil)"
        strokeWidth={1.6}
        strokeDasharray="4 3"
      />
      <rect
        x={box.x - room / 2}
        y={box.y - 74}
        width={room}
        height={32}
        fill="var(--pencil-t)"
        stroke="var(--pencil)"
        strokeWidth={2}
        strokeDasharray="6 4"
      />
      <text
        x={box.x}
        y={box.y - 52}
        textAnchor="middle"
        fontSize={19}
        className="fig-bold"
        style={{ fill: 'var(--pencil)', stroke: 'none' }}
      >
        {text}
      </text>
    </g>
  );
}

/** Slack leads from the two points to the eyelets of the tag. */
export function Leads({
  leads,
  courses: [plus, minus],
  tag,
  nameOf,
}: {
  leads: { plus: number; minus: number };
  courses: readonly [plus: Course, minus: Course];
  tag: Tag;
  nameOf: (node: number) => string;
}) {
  return (
    <g pointerEvents="none">
      <path className="lead" d={courseLine(plus)} fill="none" stroke="var(--sheet)" strokeWidth={8} />
      <path className="lead" d={courseLine(plus)} fill="none" stroke="var(--pencil)" strokeWidth={4} />
      <path className="lead" d={courseLine(minus)} fill="none" stroke="var(--sheet)" strokeWidth={8} />
      <path className="lead" d={courseLine(minus)} fill="none" stroke="var(--ink)" strokeWidth={4} />
      {plus.box ? null : <OffLane x={plus.x} y={plus.y - 5} most={tag.right} name={nameOf(leads.plus)} />}
      {minus.box ? null : <OffLane x={minus.x} y={minus.y - 5} most={tag.right} name={nameOf(leads.minus)} />}
      <Eyelet x={plus.x} y={plus.y} sign="+" ink="var(--pencil)" />
      <Eyelet x={minus.x} y={minus.y} sign="−" ink="var(--ink)" />
    </g>
  );
}

/** Room of a name beside an eyelet, px. */
const NAME_ROOM = 110;

/** End of a lead whose point is not on the lane shown: beside its eyelet, under the path, where no part has its name. */
function OffLane({ x, y, most, name }: { x: number; y: number; most: number; name: string }) {
  const left = x + NAME_ROOM > most;
  return (
    <text
      x={left ? x - 16 : x + 16}
      y={y}
      textAnchor={left ? 'end' : 'start'}
      fontSize={15}
      style={{ fill: 'var(--ink2)' }}
    >
      {name}
    </text>
  );
}

function Eyelet({ x, y, sign, ink }: { x: number; y: number; sign: string; ink: string }): ReactNode {
  return (
    <g>
      <circle cx={x} cy={y} r={10.5} fill="var(--sheet)" stroke={ink} strokeWidth={2} />
      <text
        x={x}
        y={y + 5.5}
        textAnchor="middle"
        fontSize={20}
        fontWeight={800}
        style={{ fill: ink, stroke: 'none' }}
      >
        {sign}
      </text>
    </g>
  );
}

/** A measured value in pencil. */
function PencilValue({
  x,
  y,
  anchor,
  children,
}: {
  x: number;
  y: number;
  anchor: 'middle' | 'end';
  children: ReactNode;
}) {
  return (
    <text
      x={x}
      y={y}
      textAnchor={anchor}
      fontSize={18}
      className="fig-bold"
      style={{ fill: 'var(--pencil)' }}
    >
      {children}
    </text>
  );
}
