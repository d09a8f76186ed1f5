'use client';

import type { CompiledPart } from '@/core/circuit/compile';
import type { Lane, Lanes, Step } from '@/core/path/lanes';
import type { Standing } from '@/core/path/standing';
import { inTwenty, TurnStrokes } from '../Turns';
import type { Pin } from './PathMarks';

/** One row of the upright axis: a run in doubt, or a cleared stretch folded to one line. */
type Row =
  | { kind: 'folded'; steps: Step[]; state: 'spared' | 'held' }
  /** `again`: another piece of the same part stood earlier, and its turns with it. */
  | { kind: 'run'; step: Step; fall: boolean; again: boolean };

export interface PhonePathProps {
  lane: Lane;
  lanes: Lanes;
  parts: readonly CompiledPart[];
  standings: readonly Standing[];
  pins: readonly Pin[];
  leads: { plus: number; minus: number } | null;
  onPoint: (node: number) => void;
  onLane: (id: string) => void;
}

/** The axis stands up: spared runs fold to one line, doubtful ones open downward with name left and count right. */
export function PhonePath({ lane, lanes, parts, standings, pins, leads, onPoint, onLane }: PhonePathProps) {
  const steps = [...lane.feed, lane.load, ...lane.back];
  const asked = new Set(leads ? [leads.plus, leads.minus] : []);
  const rows: Row[] = [];
  for (const step of steps) {
    const { state } = standings[step.part]!;
    const last = rows.at(-1);
    if (state === 'spared' || state === 'held') {
      if (last?.kind === 'folded' && last.state === state && !asked.has(step.from)) last.steps.push(step);
      else rows.push({ kind: 'folded', steps: [step], state });
    } else {
      const again = rows.some((row) => row.kind === 'run' && row.step.part === step.part);
      rows.push({ kind: 'run', step, fall: step === lane.load, again });
    }
  }
  const hangs = (node: number) =>
    lane.hangs.flatMap((one) => {
      const { turns, state } = standings[one.part]!;
      const words = state === 'doubt' ? (turns > 0 ? ` ${inTwenty(turns)}` : '') : `, ${state}`;
      return one.node === node ? [`${parts[one.part]!.part.ref}${words}`] : [];
    });
  const others = lanes.lanes.filter(({ id }) => id !== lane.id);
  return (
    <div className="bg-sheet px-3 pb-2" aria-label="The path from supply to return" role="group">
      <ol>
        <PointRow
          node={rows.length > 0 ? firstNode(rows[0]!) : lane.load.from}
          {...{ lanes, pins, asked, hangs, onPoint }}
          first
        />
        {rows.map((row) => {
          const end = lastNode(row);
          return (
            <li key={row.kind === 'run' ? row.step.branch : `f${row.steps[0]!.branch}`}>
              {row.kind === 'folded' ? (
                <Folded row={row} parts={parts} lanes={lanes} pins={pins} />
              ) : (
                <RunRow row={row} parts={parts} standing={standings[row.step.part]!} />
              )}
              <ol>
                <PointRow node={end} {...{ lanes, pins, asked, hangs, onPoint }} />
              </ol>
            </li>
          );
        })}
      </ol>
      {others.map((other) => {
        const turns = [...other.feed, other.load, ...other.back]
          .filter(({ part }) => !steps.some((step) => step.part === part))
          .reduce((sum, { part }) => sum + standings[part]!.turns, 0);
        return (
          <button
            key={other.id}
            type="button"
            onClick={() => onLane(other.id)}
            className="mt-2.5 flex min-h-11 w-full items-center justify-between border border-edge px-3 text-left text-[15.5px]"
          >
            <span>Other lane: {parts[other.of]!.part.label ?? other.id}</span>
            <span className={turns > 0 ? 'text-copper-ink' : 'text-verdi'}>
              {turns > 0 ? inTwenty(turns) : 'no doubt'}
            </span>
          </button>
        );
      })}
    </div>
  );
}

function firstNode(row: Row): number {
  return row.kind === 'run' ? row.step.from : row.steps[0]!.from;
}

function lastNode(row: Row): number {
  return row.kind === 'run' ? row.step.to : row.steps.at(-1)!.to;
}

function PointRow({
  node,
  lanes,
  pins,
  asked,
  hangs,
  onPoint,
  first = false,
}: {
  node: number;
  lanes: Lanes;
  pins: readonly Pin[];
  asked: ReadonlySet<number>;
  /** What hangs on a point and leads nowhere else, with its doubt. */
  hangs: (node: number) => string[];
  onPoint: (node: number) => void;
  first?: boolean;
}) {
  const point = lanes.labelOf.get(node);
  const pin = pins.find((one) => one.node === node);
  const state = asked.has(node) ? 'asked' : pin ? 'read' : 'open';
  return (
    <li className={`-my-1.5 flex items-center gap-3 ${first ? 'pt-2' : ''}`}>
      <button
        type="button"
        onClick={() => onPoint(node)}
        aria-label={`Point ${point}, ${state === 'open' ? 'not read' : state}`}
        className="flex size-11 shrink-0 items-center justify-center"
      >
        <span
          data-state={state}
          className={`fig-bold flex size-[31px] items-center justify-center rounded-full border-[2.4px] border-ink ${(point?.length ?? 0) > 2 ? 'text-[11px]' : 'text-[16px]'} data-[state=asked]:border-pencil data-[state=asked]:bg-pencil data-[state=asked]:text-sheet data-[state=asked]:outline-2 data-[state=asked]:outline-offset-2 data-[state=asked]:outline-pencil data-[state=read]:bg-ink data-[state=read]:text-sheet`}
        >
          {point}
        </span>
      </button>
      {pin ? (
        <span className="fig-bold text-[17px] text-pencil">
          {pin.off ? `${pin.off} ` : ''}
          {pin.text} <span className="text-[15px] font-normal">{pin.condition}</span>
        </span>
      ) : null}
      {hangs(node).map((words) => (
        <span key={words} className="text-[15px] text-copper-ink">
          {words}
        </span>
      ))}
    </li>
  );
}

function Folded({
  row,
  parts,
  lanes,
  pins,
}: {
  row: Extract<Row, { kind: 'folded' }>;
  parts: readonly CompiledPart[];
  lanes: Lanes;
  pins: readonly Pin[];
}) {
  const [from, to] = [row.steps[0]!.from, row.steps.at(-1)!.to].map((node) => lanes.labelOf.get(node));
  const pin = pins.findLast(({ node }) => row.steps.some((step) => step.to === node));
  const names = row.steps.map(({ part }) => parts[part]!.part.ref);
  return (
    <div className="flex min-h-7 items-center gap-3" title={names.join(', ')}>
      <span className="flex w-11 justify-center self-stretch">
        <span className={row.state === 'held' ? 'border-l-4 border-dashed border-verdi' : 'w-1 bg-verdi'} />
      </span>
      <span className="flex-1 truncate text-[15.5px] text-verdi">
        {from} to {to} {row.state === 'held' ? 'held' : 'spared ✓'}{' '}
        <span className="text-ink2">{names.join(', ')}</span>
      </span>
      {pin ? <span className="fig-bold text-pencil">{pin.text}</span> : null}
    </div>
  );
}

function RunRow({
  row,
  parts,
  standing,
}: {
  row: Extract<Row, { kind: 'run' }>;
  parts: readonly CompiledPart[];
  standing: Standing;
}) {
  const { part } = parts[row.step.part]!;
  const turns = row.again ? 0 : standing.turns;
  const height = Math.max(34, 16 + turns * 5);
  const bad = standing.state === 'bad';
  return (
    <div className="flex items-center gap-3" data-part={part.ref} data-state={standing.state}>
      <svg width={44} height={height} viewBox={`0 0 44 ${height}`} aria-hidden className="shrink-0">
        {row.fall ? (
          <path
            d={`M22 0v4${' a 11 6 0 0 1 0 12'.repeat(Math.max(1, Math.floor((height - 8) / 12)))}V${height}`}
            fill="none"
            stroke="var(--ink)"
            strokeWidth={2.6}
          />
        ) : (
          <line
            x1={22}
            x2={22}
            y1={0}
            y2={height}
            stroke={bad ? 'var(--stamp)' : 'var(--ink)'}
            strokeWidth={3}
          />
        )}
        <TurnStrokes count={turns} x={22} y={height / 2} height={24} room={height} upright={false} />
      </svg>
      <span className="min-w-0 flex-1 leading-[19px]">
        <span className={`fig-bold text-[17px] ${bad ? 'text-stamp' : ''}`}>{part.ref}</span>{' '}
        <span className="text-[15.5px] text-ink2">{part.label}</span>
      </span>
      <span className={`text-[17px] font-[750] ${bad ? 'text-stamp' : 'text-copper-ink'}`}>
        {bad ? 'BAD' : row.again ? 'the same part' : inTwenty(turns)}
      </span>
    </div>
  );
}
