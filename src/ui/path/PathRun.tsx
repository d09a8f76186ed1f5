import type { Part } from '@/core/circuit/schema';
import { POINT_RADIUS as RADIUS, type RunBox } from '@/core/path/layoutPath';
import { runSlots } from '@/core/path/runSlots';
import { fit, Pipe, pressable } from '../figure';
import { TurnStrokes } from '../Turns';
import { FluidSymbol } from './FluidSymbol';
import type { PathFigureProps } from './pathProps';
import { CHARACTER, Count, STATE_INK, wordState } from './pathInk';
import { PartSymbol } from './PartSymbol';

/** Under the line: the reference, and below it what it is. */
export const NAME_DROP = 33;
export const PLACE_DROP = 51;
/** Clear of the name beside it, px. */
const BETWEEN_NAMES = 12;

/** One part on a level stretch, or cleared ones closed to one line. */
export function PathRun({
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
          ✓ {fit(`${names[0]} to ${names.at(-1)}`, x2 - x1 - 20, CHARACTER)}
        </text>
        <text x={middle} y={y + PLACE_DROP} textAnchor="middle" fontSize={15} style={{ fill: 'var(--ink2)' }}>
          {names.length} parts spared
        </text>
        <title>{names.join(', ')}: spared</title>
      </g>
    );
  }
  const { turns, state } = standing;
  const { wound, symbolX, symbolScale, windX, windRoom } = runSlots(run, part.part.kind, standing);
  const narrow = x2 - x1 < 150;
  const label = part.part.label ?? part.part.place ?? '';
  return (
    <g
      {...pressable(() => onRun(part.index))}
      tabIndex={-1}
      aria-label={`${part.part.ref} ${label}: ${wordState(standing)}`}
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
          {state === 'bad' ? null : (
            <g
              transform={
                symbolScale < 1
                  ? `translate(${symbolX} ${y}) scale(${symbolScale}) translate(${-symbolX} ${-y})`
                  : undefined
              }
            >
              {fluid ? (
                <FluidSymbol kind={part.part.kind} x={symbolX} y={y} />
              ) : (
                <PartSymbol kind={part.part.kind} x={symbolX} y={y} on={closed.has(part.index)} />
              )}
            </g>
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
            BAD
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
            ? fit('Not loaded', x2 - x1 - BETWEEN_NAMES, CHARACTER)
            : fit(label, x2 - x1 - BETWEEN_NAMES, CHARACTER)}
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
    <g {...pressable(() => onLane(coil))} tabIndex={0} aria-label={`Shifted by ${coil}: show its lane`}>
      <path d={`M${x} ${y - 15}V${y - 48}`} stroke="var(--ink2)" strokeWidth={2} strokeDasharray="2 5" />
      <rect
        className="focus-box"
        x={x - 40}
        y={y - 76}
        width={80}
        height={28}
        fill="var(--sheet)"
        stroke="transparent"
        strokeWidth={3}
      />
      <text x={x} y={y - 57} textAnchor="middle" fontSize={15} className="fig-bold">
        {coil}
      </text>
    </g>
  );
}
