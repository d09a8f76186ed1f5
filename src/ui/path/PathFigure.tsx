'use client';

import { kindOf } from '@/core/kinds/part';
import { plugBodies } from '@/core/path/plugBodies';
import { pressureIn } from '@/core/units/quantities';
import { Pipe } from '../figure';
import { TurnStrokes } from '../Turns';
import { FluidSymbol } from './FluidSymbol';
import { AlternatingSymbol, BatterySymbol, ReturnSymbol } from './PartSymbol';
import { PathBranch } from './PathBranch';
import { PathFall } from './PathFall';
import { leadCourses } from './leadCourses';
import { Count, STATE_INK } from './pathInk';
import { FoundPath, Leads, PinMark, SpanMark, Typed } from './PathMarks';
import { PathPoint } from './PathPoint';
import type { PathFigureProps } from './pathProps';
import { PathRun } from './PathRun';
import { PlugBodyMark } from './PlugBodyMark';
import { placeStatement, STATEMENT_LINE } from './placeStatement';

/** The path from supply to return, at the height of its expected volts. The main way to move about a job. */
export function PathFigure(props: PathFigureProps) {
  const { layout, parts, gaugeUnit, standings, statement, leads, tag, dead, pins } = props;
  const { width, height, supplyY, floorY, supplyVolts, points, fall } = layout;
  const first = points[0]!;
  const last = points.at(-1)!;
  const fluid = layout.lane.medium === 'fluid';
  const alternating = props.alternating[first.node] === 1;
  const levels = [1 / 3, 2 / 3].map((share) => ({
    y: floorY - share * (floorY - supplyY),
    text: fluid
      ? levelText(pressureIn(gaugeUnit, supplyVolts * share))
      : String(Math.round(supplyVolts * share)),
  }));
  const forks = new Set(
    layout.branches.flatMap(({ fork }) => (fork ? [points.find(({ x }) => x === fork.x)?.node] : [])),
  );
  const courses = leads ? leadCourses(leads, tag, layout) : null;
  const said = placeStatement(layout, statement, tag, courses ?? []);
  const source = parts.find(({ part, nodes }) => kindOf(part).traits.supply && nodes.includes(first.node));
  const bodies = plugBodies(parts, layout, standings);
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
        {levels.map(({ y }) => (
          <g key={y}>
            <line x1={56} x2={width - 24} y1={y} y2={y} stroke="var(--rule)" strokeWidth={1} />
          </g>
        ))}
        <line x1={56} x2={width - 24} y1={floorY} y2={floorY} stroke="var(--rule)" strokeWidth={2} />
      </g>

      {layout.branches.map((branch) => (
        <PathBranch key={branch.lane.id} branch={branch} bodies={bodies} {...props} />
      ))}

      {bodies.map((body) => (
        <PlugBodyMark key={body.pins.join()} body={body} apart={props.apart} standings={standings} />
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
        ) : alternating ? (
          <AlternatingSymbol x={first.x - 54} y={first.y} />
        ) : (
          <BatterySymbol x={first.x - 40} y={first.y} />
        )}
      </g>
      {fluid || alternating ? null : (
        <text x={first.x - 62} y={first.y + 6} fontSize={18} fontWeight={700} textAnchor="middle">
          +
        </text>
      )}
      {source && sourceTurns > 0 ? (
        <g>
          {fluid ? (
            // Between a round symbol and its point there is no room: they stand above it.
            <>
              <TurnStrokes count={sourceTurns} x={first.x - 44} y={first.y - 30} height={18} room={44} />
              <Count turns={sourceTurns} x={first.x - 44} y={first.y - 46} short />
            </>
          ) : (
            <>
              <TurnStrokes count={sourceTurns} x={first.x - 26} y={first.y} height={24} room={26} />
              <Count turns={sourceTurns} x={first.x - 34} y={first.y - 26} short />
            </>
          )}
        </g>
      ) : null}
      {dead ? (
        <text x={first.x - 54} y={first.y + DEAD_BELOW} fontSize={15} style={{ fill: 'var(--ink2)' }}>
          dead
        </text>
      ) : null}

      {layout.runs.map((run) => (
        <PathRun key={run.steps[0]!.branch} run={run} {...props} />
      ))}
      <PathFall
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

      <FoundPath pins={pins} layout={layout} />
      {props.spans.map((span) => (
        <SpanMark
          key={`${span.from}-${span.to}`}
          span={span}
          layout={layout}
          pins={pins}
          isDoubted={(part) => standings[part]!.turns > 0}
        />
      ))}
      {/* What is being typed at a point stands where its last reading did. */}
      {pins
        .filter(({ node }) => !props.typed || node !== leads?.plus)
        .map((pin) => (
          <PinMark key={pin.node} pin={pin} layout={layout} aside={forks.has(pin.node)} />
        ))}
      {leads && courses ? <Leads leads={leads} courses={courses} tag={tag} nameOf={props.nameOf} /> : null}
      {/* Over the leads, with the sheet around it: nothing strikes through what it says. */}
      <g
        fontSize={19}
        fontWeight={650}
        style={{ paintOrder: 'stroke', stroke: 'var(--sheet)', strokeWidth: 7, strokeLinejoin: 'round' }}
      >
        {said.lines.map((line, at) => (
          <text key={at} x={said.x} y={said.y + STATEMENT_LINE * at}>
            {line}
          </text>
        ))}
      </g>
      {/* The scale stays at the edge of what is seen of a long path. */}
      <g fontSize={15} className="fig" transform={`translate(${tag.scrolled} 0)`}>
        {[
          ...levels.filter(({ y }) => !dead || Math.abs(y - (first.y + DEAD_BELOW)) > 18),
          { y: floorY, text: fluid ? `0 ${gaugeUnit}` : '0 V' },
        ].map(({ y, text }) => (
          <text
            key={y}
            x={46}
            y={y + 5}
            textAnchor="end"
            style={{ fill: 'var(--ink2)', paintOrder: 'stroke', stroke: 'var(--sheet)', strokeWidth: 6 }}
          >
            {text}
          </text>
        ))}
      </g>
      {points.map((box) => (
        <PathPoint key={box.node} box={box} {...props} />
      ))}
      {leads && props.typed ? (
        <Typed text={props.typed} box={points.find(({ node }) => node === leads.plus)} />
      ) : null}
    </svg>
  );
}

/** Under the supply of a dead path it is said that it is; a level's figure that would stand there gives way. */
const DEAD_BELOW = 36;

/** A level of the path, to the digits that a gauge is read to. */
function levelText(value: number): string {
  const size = Math.abs(value);
  // Levels of a few hundredths stand apart only so.
  return value.toFixed(size >= 10 ? 0 : size >= 0.3 || size === 0 ? 1 : 2);
}
