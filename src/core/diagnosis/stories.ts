import type { Edit } from '../circuit/edits';
import type { CircuitModel } from '../circuit/model';
import { spentFuse, type FaultTable, type Fit, type Row } from './faultTable';
import type { Observation } from './observations';
import { predict } from './predict';
import type { Prediction } from './prediction';
import { logSum } from './severity';

/** Chance that a part that was repaired or renewed has the fault no more. */
const MENDED_PRIOR = 0.95;
/** Chance that a fuse which a fault took, with nobody seeing it, lies there open; else somebody had put in another. */
const SPENT_PRIOR = 0.5;

type Stood = 'faulty' | 'sound' | 'spent';

/**
 * One way in which a machine with a given fault may have stood while it was read. A machine is not read in one moment: a part is mended,
 * and what is read then is read of a sound one; a short takes its fuse when it is first run, and unless somebody looks at the fuse all
 * that is read after that is read with it gone.
 */
export interface Story {
  /** Logarithm of its chance beside the fault's other stories, at a severity; -Infinity where it cannot have been. */
  log: (severity: number) => number;
  /** What an observation would have read at a place of the row's grid; read it, do not keep it. */
  peek: (s: number, observation: number) => Prediction;
  /** The same at any severity. */
  predicted: (severity: number, observation: number) => Prediction;
  /** About what all observations together say on the grid, log, with its own chance. */
  evidence: () => number;
  /** What was wrong while each observation was made, and what is wrong by now; null where it always was the fault alone. */
  edits:
    ((severity: number) => { during: (observation: number) => readonly Edit[]; now: readonly Edit[] }) | null;
}

/** A fuse that a fault would have taken unseen: between which observations it would have been gone, and under which severities. */
interface Spent {
  fuse: number;
  from: number;
  until: number;
  takes: readonly boolean[];
}

interface Read {
  model: CircuitModel;
  table: FaultTable;
  observations: readonly Observation[];
  fits: readonly Fit[];
  /** What each observation reads on the sound machine, and how well that fits. */
  healthy: readonly Prediction[];
  noFaultFits: readonly number[];
  /** Of each cell, over all observations. */
  totals: Float64Array;
  /** Parts that were mended up to now. */
  mended: ReadonlySet<number>;
}

/** The ways in which the machine may have stood, were it one variant of a fault. */
export function storiesOf(read: Read, row: Row): Story[] {
  const { table, mended } = read;
  const { part } = table.faults[row.fault]!;
  const spent = spentUnder(read, row);
  return [false, ...(mended.has(part) ? [true] : [])].flatMap((isMended) =>
    [null, ...(spent ? [spent] : [])].map((gone) => {
      const chance = mended.has(part) ? Math.log(isMended ? MENDED_PRIOR : 1 - MENDED_PRIOR) : 0;
      return storyOf(read, row, isMended, gone, (severity) => {
        const taken = spent !== null && spent.takes[placeIn(row.grid, severity)]!;
        if (gone) return taken ? chance + Math.log(SPENT_PRIOR) : -Infinity;
        return taken ? chance + Math.log(1 - SPENT_PRIOR) : chance;
      });
    }),
  );
}

function storyOf(
  { model, table, observations, fits, healthy, noFaultFits, totals }: Read,
  row: Row,
  isMended: boolean,
  gone: Spent | null,
  log: (severity: number) => number,
): Story {
  const { variant, grid, start, logMass, fault } = row;
  const { part } = table.faults[fault]!;
  const stood = observations.map((observation, k): Stood => {
    if (isMended && observation.mended.has(part)) return 'sound';
    return gone && k >= gone.from && k < gone.until ? 'spent' : 'faulty';
  });
  const open = gone && spentFuse(model, gone.fuse);
  const editsOf = (how: Stood, severity: number): readonly Edit[] =>
    how === 'sound' ? [] : how === 'spent' ? [...variant.edits(severity), open!] : variant.edits(severity);
  const now: Stood = isMended ? 'sound' : gone && gone.until === Infinity ? 'spent' : 'faulty';
  // With its fuse gone a fault is, for a first look, what that fuse is by itself when it is open.
  const openFuse =
    gone && table.rows.find((one) => table.faults[one.fault]!.part === gone.fuse && one.grid.length === 1);
  return {
    log,
    peek: (s, k) =>
      stood[k] === 'sound'
        ? healthy[k]!
        : stood[k] === 'spent'
          ? table.predictedSpent(observations[k]!.bound, row, gone!.fuse)[s]!
          : fits[k]!.predictions.peek(start + s),
    predicted: (severity, k) =>
      stood[k] === 'sound' ? healthy[k]! : predict(observations[k]!.bound, editsOf(stood[k]!, severity)),
    evidence: () =>
      logSum(
        grid.map((severity, s) => {
          let total = totals[start + s]! + logMass[s]! + log(severity);
          stood.forEach((how, k) => {
            if (how === 'faulty') return;
            const { cells } = fits[k]!;
            const other = how === 'sound' ? noFaultFits[k]! : openFuse ? cells[openFuse.start]! : 0;
            total += other - cells[start + s]!;
          });
          return total;
        }),
      ),
    edits:
      now === 'faulty' && stood.every((how) => how === 'faulty')
        ? null
        : (severity) => {
            const worlds = new Map<Stood, readonly Edit[]>();
            const world = (how: Stood) => {
              const known = worlds.get(how) ?? editsOf(how, severity);
              worlds.set(how, known);
              return known;
            };
            return { during: (k) => world(stood[k]!), now: world(now) };
          },
  };
}

/**
 * The fuse that a fault would have taken when the machine was first run, unseen: gone from there until somebody looks at it or it is
 * renewed. Null where it takes none, or somebody has seen it go first.
 */
function spentUnder({ model, table, observations, fits }: Read, { start, grid, fault }: Row): Spent | null {
  for (let k = 0; k < observations.length; k++) {
    const { takes } = fits[k]!.predictions;
    const at = grid.findIndex((_severity, s) => takes[start + s]! >= 0);
    if (at < 0) continue;
    const fuse = takes[start + at]!;
    if (fuse === table.faults[fault]!.part) return null;
    const sees = ({ bound: { test } }: Observation) =>
      test.kind === 'fuse' && model.compiled.partIndex.get(test.part) === fuse;
    const looked = observations.findIndex((one) => sees(one) || one.mended.has(fuse));
    if (looked >= 0 && looked <= k) return null;
    return {
      fuse,
      from: k,
      until: looked < 0 ? Infinity : looked,
      takes: grid.map((_severity, s) => takes[start + s] === fuse),
    };
  }
  return null;
}

/** Place of the greatest severity of a grid that is not above a given one. */
function placeIn(grid: readonly number[], severity: number): number {
  let at = 0;
  while (at + 1 < grid.length && grid[at + 1]! <= severity) at++;
  return at;
}
