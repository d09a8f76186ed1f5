import type { FallBox, PointBox } from '@/core/path/layoutPath';
import { Pipe, pressable } from '../figure';
import { inTwenty, TurnStrokes } from '../Turns';
import { FluidSymbol } from './FluidSymbol';
import type { PathFigureProps } from './pathProps';
import { Count, STATE_INK, wordState } from './pathInk';
import { AcrossDiode, LoadSymbol } from './PartSymbol';

/** The load: the fall itself. */
export function PathFall({
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
        {...pressable(() => onRun(fall.part))}
        tabIndex={-1}
        aria-label={`${part.part.ref}: ${wordState(standing)}`}
      >
        <text x={textX} y={middle - 42} fontSize={16} className="fig-bold">
          {standing.state === 'spared' ? '✓ ' : standing.state === 'bad' ? '✕ ' : ''}
          {part.part.ref}
        </text>
        <text x={textX} y={middle - 24} fontSize={15} style={{ fill: 'var(--ink2)' }}>
          {part.part.label ?? ''}
        </text>
      </g>
      {standing.state === 'bad' ? (
        <text x={textX} y={middle - 62} fontSize={16} fontWeight={750} style={{ fill: 'var(--stamp)' }}>
          BAD
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
