import type { CompiledPart } from '../../circuit/compile';
import { oncePerModel, type CircuitModel } from '../../circuit/model';
import type { Reading, Setup } from '../../circuit/schema';
import { mayTake } from '../../diagnosis/candidateTests';
import { bothApart, powerOff, setApart } from '../../diagnosis/setApart';
import type { ShopMarks } from '../../tables/marks';
import { areAlike, tellWindings, type WindingsAnswer } from '../windings/windings';
import { aloneCell, coilSheetOf } from './coilSheet';
import {
  cellOf,
  figure,
  firstOpen,
  HEAD,
  nameOf,
  type JobPast,
  type JobSheet,
  type SheetCell,
} from './jobSheet';
import type { SheetVerdicts } from './verdicts';

/** Two windings of one solenoid on three wires: the pull-in is the one of fewer ohms. */
interface WindingPair {
  pullIn: CompiledPart;
  holdIn: CompiledPart;
  /** Names of the three places. */
  wires: { pullIn: string; holdIn: string; common: string };
}

/** What the three readings of a pair say, and what the drawing has. */
export interface WindingPairAnswer extends WindingsAnswer {
  pair: { pullIn: string; holdIn: string };
  drawn: WindingPair['wires'];
  /** Windings that are not as the drawing has them, though it is known which is which. */
  off: string[];
}

/** At this place only the two windings and what leads away from them meet. */
const MOST_ON_COMMON = 3;

/** The pairs of windings that a circuit has: one place of their own in common, and ohms that tell them apart. */
const pairsOf = oncePerModel((model): readonly WindingPair[] => {
  const coils = model.compiled.parts.filter(({ part }) => part.kind === 'coil');
  return coils.flatMap((one, at) =>
    coils.slice(at + 1).flatMap((two): WindingPair[] => {
      const [a, b] = [one.branches[0]!, two.branches[0]!];
      const shared = one.nodes.filter((node) => two.nodes.includes(node));
      if (shared.length !== 1 || shared[0] === model.compiled.frame) return [];
      if (a.reactance > 0 || b.reactance > 0 || !a.ohmsKnown || !b.ohmsKnown) return [];
      if (areAlike(a.ohms, b.ohms)) return [];
      const [common] = shared as [number];
      const onIt = model.compiled.parts.filter(({ nodes }) => nodes.includes(common));
      if (onIt.length > MOST_ON_COMMON) return [];
      const [pullIn, holdIn] = a.ohms < b.ohms ? [one, two] : [two, one];
      const far = ({ nodes }: CompiledPart) =>
        nameOf(
          model,
          nodes.find((node) => node !== common)!,
        );
      return [
        {
          pullIn,
          holdIn,
          wires: { pullIn: far(pullIn), holdIn: far(holdIn), common: nameOf(model, common) },
        },
      ];
    }),
  );
});

/**
 * Pull-in and hold-in of one solenoid by the three readings between its three wires: which wire is which, worked out from them and
 * held against the drawing; each winding's own ohms then as the coils' sheet judges them.
 */
export function windingsSheetOf(
  model: CircuitModel,
  readings: readonly Reading[],
  marks: ShopMarks,
  past: JobPast,
): JobSheet<'windings'> | null {
  const pairs = pairsOf(model);
  if (pairs.length === 0) return null;
  const coils = new Map(
    coilSheetOf(model, readings, marks, past).rows.map(({ name, verdict }) => [name, verdict]),
  );
  const rows = pairs.map((pair) => {
    const { pullIn, holdIn, wires } = pair;
    const cells = [
      aloneCell(model, pullIn, readings),
      aloneCell(model, holdIn, readings),
      cellOf(model, overBoth(model, pair), readings),
    ];
    const told = tellWindings({
      ...HEAD,
      sheet: 'windings',
      wires: [wires.pullIn, wires.holdIn, wires.common],
      ohms: [
        shown(wires.pullIn, wires.common, cells[0]),
        shown(wires.holdIn, wires.common, cells[1]),
        shown(wires.pullIn, wires.holdIn, cells[2]),
      ].flat(),
      // The job's readings have their leads off already.
      leadOhms: 0,
    });
    const asDrawn =
      told.common === wires.common && told.pullIn === wires.pullIn && told.holdIn === wires.holdIn;
    const judged = [pullIn.part.ref, holdIn.part.ref].filter((ref) => {
      const verdict = coils.get(ref) ?? null;
      return verdict !== null && verdict !== 'good';
    });
    const answer: WindingPairAnswer = {
      ...told,
      pair: { pullIn: pullIn.part.ref, holdIn: holdIn.part.ref },
      drawn: wires,
      // By the wrong wire a sound winding would be called bad.
      off: told.verdict === 'good' && asDrawn ? judged : [],
    };
    return {
      name: pullIn.part.ref,
      with: holdIn.part.ref,
      cells,
      verdict: verdictOf(answer, asDrawn),
      answer,
    };
  });
  return {
    name: 'windings',
    columns: ['pullInOhms', 'holdInOhms', 'overBoth'],
    rows: rows.map(({ answer: _answer, ...row }) => row),
    // Two open pairs are enough: what leads nowhere is known without the third.
    next: firstOpen(
      rows.map((row) => (row.verdict === null ? row : { ...row, cells: row.cells.map(() => null) })),
    ),
    answers: rows.map(({ answer }) => answer),
  };
}

function verdictOf(
  { verdict, off, findings }: WindingPairAnswer,
  asDrawn: boolean,
): SheetVerdicts['windings'] | null {
  if (verdict === 'unknown') return findings.some(({ code }) => code === 'doNotAdd') ? 'doNotAdd' : null;
  if (verdict !== 'good') return verdict;
  if (!asDrawn) return 'exchanged';
  return off.length > 0 ? 'off' : 'good';
}

/** Ohms over both windings in a row, with everything else off all three wires; null where that may not be read. */
function overBoth(model: CircuitModel, { pullIn, holdIn, wires }: WindingPair) {
  const [one, two] = [pullIn, holdIn].map(({ part, nodes }) => setApart(model, part.ref, nodes.slice(0, 2)));
  if (!one || !two) return null;
  const setup: Setup = bothApart(powerOff(model), bothApart(one, two));
  return mayTake(model, { kind: 'ohms', from: wires.pullIn, to: wires.holdIn, setup });
}

function shown(from: string, to: string, cell: SheetCell | null | undefined) {
  const value = figure(cell);
  return value === undefined ? [] : [{ from, to, value }];
}
