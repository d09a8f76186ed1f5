'use client';

import type { KeyboardEvent } from 'react';
import type { CompiledPart } from '@/core/circuit/compile';
import type { Part } from '@/core/circuit/schema';
import {
  POINT_RADIUS,
  type BranchBox,
  type FallBox,
  type PathLayout,
  type PointBox,
  type RunBox,
} from '@/core/path/layoutPath';
import type { Standing } from '@/core/path/standing';
import { inTwenty, TurnStrokes } from '../Turns';
import { FoundPath, Leads, PinMark, SpanMark, Typed, type Pin, type Span, type Tag } from './PathMarks';
import { FluidSymbol } from './FluidSymbol';
import { AcrossDiode, BatterySymbol, LoadSymbol, PartSymbol, ReturnSymbol } from './PartSymbol';

export interface PathFigureProps {
  layout: PathLayout;
  parts: readonly CompiledPart[];
  standings: readonly Standing[];
  pins: readonly Pin[];
  spans: readonly Span[];
  /** Nodes under the red and the black lead. */
  leads: { plus: number; minus: number } | null;
  /** A node asked for without leads: where a gauge goes. */
  gauge?: number | null;
  tag: Tag;
  typed: string;
  statement: readonly string[];
  noReach: ReadonlySet<number>;
  /** Connectors apart, fuses pulled in the asked set-up. */
  apart: ReadonlySet<number>;
  /** Contacts the asked set-up closes. */
  closed: ReadonlySet<number>;
  dead: boolean;
  /** Nothing is doubted here: a drawing, not a job. */
  plain?: boolean;
  /** Words for a node that is not on the lane shown. */
  nameOf: (node: number) => string;
  /** Counts are from before the last reading; the new ones are being worked out. */
  stale: boolean;
  onPoint: (node: number) => void;
  onLane: (id: string) => void;
  onRun: (part: number) => void;
}

const STATE_INK: Readonly<Record<Standing['state'], string>> = {
  doubt: 'var(--ink)',
  held: 'var(--verdi)',
  spared: 'var(--verdi)',
  bad: 'var(--stamp)',
};
const RADIUS = POINT_RADIUS;
const NAME_DROP = 33;
const PLACE_DROP = 51;
const CHARACTER = 6.7;
/** About how wide a statement runs, px. */
const STATEMENT = 420;
const KPA_IN_BAR = 100;
const SUPPLIES: readonly Part['kind'][] = ['source', 'airSupply', 'pump'];

/** The path from supply to return, at the height of its expected volts. The main way to move about a job. */
export function PathFigure(props: PathFigureProps) {
  const { layout, parts, standings, statement, leads, tag, dead, pins } = props;
  const { width, height, supplyY, floorY, supplyVolts, points, fall } = layout;
  const first = points[0]!;
  const last = points.at(-1)!;
  const fluid = layout.lane.medium === 'fluid';
  const levels = [1 / 3, 2 / 3].map((share) => ({
    y: floorY - share * (floorY - supplyY),
    text: fluid
      ? (supplyVolts * share) / KPA_IN_BAR >= 10
        ? ((supplyVolts * share) / KPA_IN_BAR).toFixed(0)
        : ((supplyVolts * share) / KPA_IN_BAR).toFixed(1)
      : String(Math.round(supplyVolts * share)),
  }));
  const forks = new Set(
    layout.branches.flatMap(({ fork }) => (fork ? [points.find(({ x }) => x === fork.x)?.node] : [])),
  );
  // Under the level run where it is long enough, else right of the whole path.
  const rightOf = last.x + 96;
  const ground =
    fall.x < 540 && width - rightOf > 400 ? { x: rightOf, y: supplyY + 40 } : { x: 70, y: supplyY + 86 };
  // A run that has come down, such as air behind its regulator, pushes the statement under its names.
  const lowest = Math.max(
    ...layout.runs
      .filter(({ x1, x2 }) => x2 > ground.x && x1 < ground.x + STATEMENT && x2 <= fall.x)
      .map(({ y1, y2 }) => Math.max(y1, y2) + PLACE_DROP + 27),
    ground.y,
  );
  const room = Math.max(2, Math.min(3, Math.floor((floorY - 10 - lowest) / 25) + 1));
  const source = parts.find(({ part, nodes }) => SUPPLIES.includes(part.kind) && nodes.includes(first.node));
  const sourceTurns = source ? standings[source.index]!.turns : 0;
  return (
    <svg
      className="figure block overflow-visible"
      width={width}
      height={height}
      viewBox={`0 0 ${width} ${height}`}
      role="group"
      aria-label="The path from supply to return"
      data-stale={props.stale}
    >
      <g fontSize={15} className="fig" opacity={0.95}>
        {levels.map(({ y, text }) => (
          <g key={y}>
            <line x1={56} x2={width - 24} y1={y} y2={y} stroke="var(--rule)" strokeWidth={1} />
            <text x={46} y={y + 5} textAnchor="end" style={{ fill: 'var(--ink2)' }}>
              {text}
            </text>
          </g>
        ))}
        <line x1={56} x2={width - 24} y1={floorY} y2={floorY} stroke="var(--rule)" strokeWidth={2} />
        <text x={46} y={floorY + 5} textAnchor="end" style={{ fill: 'var(--ink2)' }}>
          {fluid ? '0 bar' : '0 V'}
        </text>
      </g>

      {layout.branches.map((branch) => (
        <BranchLine key={branch.lane.id} branch={branch} {...props} />
      ))}

      <g style={{ color: source ? STATE_INK[standings[source.index]!.state] : 'var(--ink)' }}>
        {fluid ? (
          <Pipe d={`M${first.x - 36} ${first.y}H${first.x}`} />
        ) : (
          <path
            d={`M${first.x - 40} ${first.y}H${first.x}`}
            stroke="currentColor"
            strokeWidth={dead ? 1.6 : 3}
          />
        )}
        {fluid ? (
          <FluidSymbol kind={source?.part.kind ?? 'airSupply'} x={first.x - 44} y={first.y} />
        ) : (
          <BatterySymbol x={first.x - 40} y={first.y} />
        )}
      </g>
      {fluid ? null : (
        <text x={first.x - 62} y={first.y + 6} fontSize={18} fontWeight={700} textAnchor="middle">
          +
        </text>
      )}
      {source && sourceTurns > 0 ? (
        <g>
          <TurnStrokes count={sourceTurns} x={first.x - 26} y={first.y} height={24} room={26} />
          <Count turns={sourceTurns} x={first.x - 34} y={first.y - 26} short />
        </g>
      ) : null}
      {dead ? (
        <text x={first.x - 54} y={first.y + 36} fontSize={15} style={{ fill: 'var(--ink2)' }}>
          dead
        </text>
      ) : null}

      {layout.runs.map((run) => (
        <Run key={run.parts.join()} run={run} {...props} />
      ))}
      <Fall
        fall={fall}
        {...props}
        high={points.find(({ node }) => node === fall.high)!}
        low={points.find(({ node }) => node === fall.low)!}
      />

      <g style={{ color: 'var(--ink)' }}>
        {fluid ? (
          <g>
            <Pipe d={`M${last.x} ${last.y}h26`} />
            <path
              d={`M${last.x + 26} ${last.y - 8}l14 8l-14 8`}
              fill="none"
              stroke="currentColor"
              strokeWidth={2.2}
            />
          </g>
        ) : (
          <g>
            <path d={`M${last.x} ${last.y}h40`} stroke="currentColor" strokeWidth={dead ? 1.6 : 3} />
            <ReturnSymbol x={last.x + 40} y={last.y} />
          </g>
        )}
      </g>

      <g fontSize={19} fontWeight={650}>
        {statement.slice(0, room).map((line, at) => (
          <text key={line} x={ground.x} y={lowest + 25 * at}>
            {line}
          </text>
        ))}
      </g>

      <FoundPath pins={pins} layout={layout} />
      {props.spans.map((span) => (
        <SpanMark key={`${span.from}-${span.to}`} span={span} layout={layout} />
      ))}
      {pins.map((pin) => (
        <PinMark key={pin.node} pin={pin} layout={layout} aside={forks.has(pin.node)} />
      ))}
      {leads ? <Leads leads={leads} tag={tag} layout={layout} nameOf={props.nameOf} /> : null}
      {points.map((box) => (
        <Point key={box.node} box={box} {...props} />
      ))}
      {leads && props.typed ? (
        <Typed text={props.typed} box={points.find(({ node }) => node === leads.plus)} />
      ) : null}
    </svg>
  );
}

function press(action: () => void) {
  return (event: KeyboardEvent) => {
    if (event.key !== 'Enter' && event.key !== ' ') return;
    event.preventDefault();
    event.stopPropagation();
    action();
  };
}

function Count({ turns, x, y, short }: { turns: number; x: number; y: number; short: boolean }) {
  return (
    <text
      x={x}
      y={y}
      textAnchor="middle"
      fontSize={16}
      fontWeight={750}
      style={{ fill: 'var(--copper-ink)' }}
    >
      {short && turns > 0 ? turns : inTwenty(turns)}
    </text>
  );
}

function fit(text: string, room: number): string {
  const most = Math.max(4, Math.floor(room / CHARACTER));
  return text.length > most ? `${text.slice(0, most - 1).trimEnd()}…` : text;
}

/** A pipe: two lines where a wire is one. */
function Pipe({ d, dashed = false }: { d: string; dashed?: boolean }) {
  return (
    <g fill="none" strokeLinejoin="round">
      <path d={d} stroke="currentColor" strokeWidth={7} strokeDasharray={dashed ? '13 7' : undefined} />
      <path d={d} stroke="var(--sheet)" strokeWidth={3} />
    </g>
  );
}

function symbolRoom(kind: Part['kind']): number {
  if (kind === 'wire') return 0;
  if (kind === 'valve') return 58;
  return kind === 'driver' ? 56 : kind === 'pin' ? 26 : 46;
}

function Run({
  run,
  layout,
  parts,
  standings,
  apart,
  closed,
  dead,
  onRun,
  onLane,
  stale,
}: { run: RunBox } & PathFigureProps) {
  const { x1, x2, y1, y2 } = run;
  const middle = (x1 + x2) / 2;
  const y = (y1 + y2) / 2;
  const part = parts[run.parts[0]!]!;
  const standing = standings[part.index]!;
  const ink = STATE_INK[standing.state];
  const cleared = standing.state === 'spared' || standing.state === 'held';
  const fluid = layout.lane.medium === 'fluid';
  const line = `M${x1} ${y1}L${x2} ${y2}`;
  if (run.folded) {
    const names = run.parts.map((at) => parts[at]!.part.ref);
    return (
      <g style={{ color: 'var(--verdi)' }}>
        {fluid ? <Pipe d={line} /> : <path d={line} stroke="currentColor" strokeWidth={4} />}
        <text x={middle} y={y + NAME_DROP} textAnchor="middle" fontSize={15} style={{ fill: 'var(--verdi)' }}>
          ✓ {fit(`${names[0]} to ${names.at(-1)}`, x2 - x1 - 20)}
        </text>
        <text x={middle} y={y + PLACE_DROP} textAnchor="middle" fontSize={15} style={{ fill: 'var(--ink2)' }}>
          {names.length} parts spared
        </text>
        <title>{names.join(', ')}: spared</title>
      </g>
    );
  }
  const { turns, state } = standing;
  const symbol = symbolRoom(part.part.kind);
  const room = x2 - x1 - 2 * RADIUS - 8;
  const wound = turns > 0 && state === 'doubt' && !run.again;
  const symbolX = wound && symbol > 0 ? x1 + RADIUS + 6 + symbol / 2 : middle;
  const windX =
    wound && symbol > 0 ? symbolX + symbol / 2 + (x2 - RADIUS - 2 - (symbolX + symbol / 2)) / 2 : middle;
  const windRoom = symbol > 0 ? room - symbol : room;
  const narrow = x2 - x1 < 150;
  const label = part.part.label ?? part.part.place ?? '';
  return (
    <g
      role="button"
      tabIndex={-1}
      aria-label={`${part.part.ref} ${label}: ${wordState(standing)}`}
      onClick={() => onRun(part.index)}
      style={{ color: ink }}
      data-part={part.part.ref}
      data-state={state}
    >
      <rect
        x={x1 + RADIUS}
        y={Math.min(y1, y2) - 22}
        width={x2 - x1 - 2 * RADIUS}
        height={78}
        fill="transparent"
      />
      {apart.has(part.index) ? (
        <g stroke="currentColor" strokeWidth={3}>
          <path d={`M${x1} ${y1}H${middle - 11}M${middle + 11} ${y2}H${x2}`} />
          <path d={`M${middle - 11} ${y - 12}v24M${middle + 11} ${y - 12}v24`} strokeWidth={2.4} />
          <path d={`M${middle - 5} ${y - 6}l10 12m0 -12l-10 12`} strokeWidth={2} />
        </g>
      ) : (
        <>
          {fluid ? (
            <Pipe d={line} dashed={state === 'held'} />
          ) : (
            <path
              d={line}
              stroke="currentColor"
              strokeWidth={dead ? 1.6 : state === 'spared' ? 4 : 3}
              strokeDasharray={state === 'held' ? '13 7' : undefined}
            />
          )}
          {state === 'bad' ? null : fluid ? (
            <FluidSymbol kind={part.part.kind} x={symbolX} y={y} />
          ) : (
            <PartSymbol kind={part.part.kind} x={symbolX} y={y} on={closed.has(part.index)} />
          )}
        </>
      )}
      {state === 'bad' ? (
        <g>
          <rect x={middle - 42} y={y - 16} width={84} height={32} fill="var(--stamp)" />
          <text
            x={middle}
            y={y + 6}
            textAnchor="middle"
            fontSize={16}
            fontWeight={750}
            style={{ fill: 'var(--sheet)', stroke: 'none' }}
          >
            BAD 2/2
          </text>
        </g>
      ) : null}
      {part.part.kind === 'valve' ? (
        <CoilLink
          x={symbolX}
          y={y}
          coil={layout.lane.coils.find((coil) => valveCoils(part.part).includes(coil)) ?? part.part.coil}
          onLane={onLane}
        />
      ) : null}
      {wound ? (
        <g opacity={stale ? 0.4 : 1}>
          <TurnStrokes count={turns} x={windX} y={y} room={windRoom} />
          <Count turns={turns} x={windX} y={y - 24} short={narrow} />
        </g>
      ) : null}
      <text
        x={middle}
        y={Math.max(y1, y2) + NAME_DROP}
        textAnchor="middle"
        fontSize={16}
        className="fig-bold"
        style={{ fill: cleared ? 'var(--verdi)' : state === 'bad' ? 'var(--stamp)' : 'var(--ink)' }}
      >
        {state === 'spared' ? '✓ ' : state === 'bad' ? '✕ ' : ''}
        {part.part.ref}
      </text>
      <text
        x={middle}
        y={Math.max(y1, y2) + PLACE_DROP}
        textAnchor="middle"
        fontSize={15}
        style={{ fill: 'var(--ink2)' }}
      >
        {run.again
          ? 'the same part'
          : state === 'held'
            ? fit('Not loaded yet', x2 - x1)
            : fit(label, x2 - x1 - 4)}
      </text>
      <title>{`${part.part.ref} ${label} ${part.part.place ?? ''}: ${wordState(standing)}`}</title>
    </g>
  );
}

function valveCoils(part: Part): readonly (string | undefined)[] {
  return part.kind === 'valve' ? [part.coil, part.coil2] : [];
}

/** The dotted link from a valve to the coil that shifts it: the other medium's lane. */
function CoilLink({
  x,
  y,
  coil,
  onLane,
}: {
  x: number;
  y: number;
  coil: string;
  onLane: (id: string) => void;
}) {
  return (
    <g
      role="button"
      tabIndex={0}
      aria-label={`Shifted by ${coil}: show its lane`}
      onClick={(event) => {
        event.stopPropagation();
        onLane(coil);
      }}
      onKeyDown={press(() => onLane(coil))}
    >
      <path d={`M${x} ${y - 15}V${y - 62}`} stroke="var(--ink2)" strokeWidth={2} strokeDasharray="2 5" />
      <rect
        className="focus-box"
        x={x - 40}
        y={y - 90}
        width={80}
        height={30}
        fill="var(--sheet)"
        stroke="transparent"
        strokeWidth={3}
      />
      <text x={x} y={y - 69} textAnchor="middle" fontSize={15} className="fig-bold">
        {coil}
      </text>
    </g>
  );
}

function wordState({ state, turns }: Standing): string {
  if (state === 'spared') return 'spared';
  if (state === 'held') return 'held, nothing drawn through it yet';
  if (state === 'bad') return 'proved bad';
  return inTwenty(turns);
}

function Fall({
  fall,
  layout,
  high,
  low,
  parts,
  standings,
  dead,
  onRun,
  stale,
}: { fall: FallBox; high: PointBox; low: PointBox } & PathFigureProps) {
  const { x, y1, y2 } = fall;
  const fluid = layout.lane.medium === 'fluid';
  const part = parts[fall.part]!;
  const standing = standings[fall.part]!;
  const diodes = fall.across.map((at) => parts[at]!);
  const middle = (y1 + y2) / 2;
  const textX = x + (diodes.length > 0 ? 54 : 24);
  return (
    <g style={{ color: STATE_INK[standing.state] }} data-part={part.part.ref} data-state={standing.state}>
      {fluid ? (
        <>
          <Pipe d={`M${high.x} ${y1}H${x}V${y2}H${low.x}`} />
          <FluidSymbol kind={part.part.kind} x={x} y={middle} />
        </>
      ) : (
        <>
          <path d={`M${high.x} ${y1}H${x}`} stroke="currentColor" strokeWidth={dead ? 1.6 : 3} fill="none" />
          <path d={`M${x} ${y2}H${low.x}`} stroke="currentColor" strokeWidth={dead ? 1.6 : 3} fill="none" />
          <LoadSymbol kind={part.part.kind} x={x} y1={y1} y2={y2} />
        </>
      )}
      {diodes.length > 0 ? (
        <g style={{ color: STATE_INK[standings[diodes[0]!.index]!.state] }}>
          <AcrossDiode x={x + 34} y1={y1} y2={y2} />
        </g>
      ) : null}
      <g
        role="button"
        tabIndex={-1}
        onClick={() => onRun(fall.part)}
        aria-label={`${part.part.ref}: ${wordState(standing)}`}
      >
        <text x={textX} y={middle - 42} fontSize={16} className="fig-bold">
          {standing.state === 'spared' ? '✓ ' : standing.state === 'bad' ? '✕ ' : ''}
          {part.part.ref}
        </text>
        <text x={textX} y={middle - 24} fontSize={15} style={{ fill: 'var(--ink2)' }}>
          {part.part.label ?? part.part.kind}
        </text>
      </g>
      {standing.state === 'bad' ? (
        <text x={textX} y={middle - 62} fontSize={16} fontWeight={750} style={{ fill: 'var(--stamp)' }}>
          BAD 2/2
        </text>
      ) : standing.turns > 0 ? (
        <g opacity={stale ? 0.4 : 1}>
          <TurnStrokes
            count={standing.turns}
            x={x}
            y={y1 + 20}
            height={26}
            room={Math.min(70, 12 + standing.turns * 6)}
            upright={false}
          />
          <Count turns={standing.turns} x={textX + 26} y={middle - 62} short={false} />
        </g>
      ) : null}
      {diodes.map((diode, at) => (
        <text
          key={diode.part.ref}
          x={textX}
          y={middle - 4 + 18 * at}
          fontSize={15}
          style={{ fill: 'var(--ink2)' }}
        >
          <tspan className="fig-bold">{diode.part.ref}</tspan>{' '}
          {standings[diode.index]!.turns > 0 ? (
            <tspan style={{ fill: 'var(--copper-ink)' }}>{inTwenty(standings[diode.index]!.turns)}</tspan>
          ) : (
            'diode'
          )}
        </text>
      ))}
    </g>
  );
}

/** A lane that is not the asked one: flat and quiet, foldable to one line of words. */
function BranchLine({
  branch,
  plain,
  layout,
  parts,
  standings,
  onLane,
}: { branch: BranchBox } & PathFigureProps) {
  const fluid = branch.lane.medium === 'fluid';
  const coupled = fluid && branch.lane.coils.includes(layout.lane.id);
  const own = branch.parts.map((at) => standings[at]!);
  const turns = own.reduce((sum, one) => sum + one.turns, 0);
  const spared = own.every(({ state }) => state === 'spared');
  const held = own.every(({ state }) => state === 'spared' || state === 'held');
  const load = parts[branch.lane.load.part]!.part;
  const standing = plain ? '' : `${spared ? 'spared' : held ? 'held' : inTwenty(turns)}, `;
  const words = `${load.label ?? load.ref}: ${standing}${branch.parts.length} parts`;
  const ink = held ? 'var(--verdi)' : 'var(--ink2)';
  const [x1, x2] = [Math.min(branch.x1, branch.x2), Math.max(branch.x1, branch.x2)];
  const d = [
    branch.fork ? `M${branch.fork.x} ${branch.fork.y - RADIUS}V${branch.y}` : `M${x1} ${branch.y}`,
    `H${x2}`,
    branch.join ? `V${branch.join.y - RADIUS}` : '',
  ].join('');
  const middle = x1 + (x2 - x1) * 0.42;
  const room = words.length * CHARACTER + 24;
  return (
    <g
      role="button"
      tabIndex={0}
      aria-label={`Show the lane of ${words}`}
      onClick={() => onLane(branch.lane.id)}
      onKeyDown={press(() => onLane(branch.lane.id))}
    >
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

function Point({ box, leads, gauge, pins, noReach, onPoint }: { box: PointBox } & PathFigureProps) {
  const asked =
    gauge === box.node || (leads !== null && (leads.plus === box.node || leads.minus === box.node));
  const read = pins.some(({ node }) => node === box.node);
  const far = noReach.has(box.node);
  const words = asked ? 'asked' : far ? 'no reach' : read ? 'read' : 'not read';
  return (
    <g
      role="button"
      tabIndex={0}
      aria-label={`Point ${box.label}, ${words}`}
      data-point={box.label}
      onClick={() => onPoint(box.node)}
      onKeyDown={press(() => onPoint(box.node))}
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
        y={box.y + 5.5}
        textAnchor="middle"
        fontSize={box.label.length > 2 ? 12 : 16}
        className="point-number fig-bold"
        style={{ fill: asked || read ? 'var(--sheet)' : 'var(--ink)' }}
      >
        {box.label}
      </text>
    </g>
  );
}
