import type { Edit } from '../circuit/edits';
import type { CircuitModel } from '../circuit/model';
import { spentFuse, type FaultTable, type Fit, type Row } from './faultTable';
import { logLikelihood, type Observation } from './observations';
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
  /** What all observations say each by itself at a place of the grid, log, without its own chance. */
  fit: (s: number) => number;
  /** About what they say together over the grid, log, with its own chance. */
  evidence: () => number;
  /**
   * The most that `evidence` may come to at severities between two places of the grid.
   *
   * @param reaches the same of each observation by itself, of the fault alone
   */
  reach: (reaches: (observation: number) => number) => number;
  /** Everything was read of the fault alone: the table says it all. */
  isPlain: boolean;
  /** What was wrong while each observation was made, and what may be wrong by now; null where it always was the fault alone. */
  told: ((severity: number) => Told[]) | null;
}

/** One way in which a story goes on; the shares of all ways add to one. */
interface Told {
  share: number;
  during: (observation: number) => readonly Edit[];
  now: readonly Edit[];
}

/** A fuse that a fault would have taken unseen: between which observations it would have been gone, and under which severities. */
interface Spent {
  fuse: number;
  /** Each from the run that took it until somebody looked, in order; the last may still last. */
  spells: readonly { from: number; until: number }[];
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
  const ways = spentUnder(read, row);
  if (ways.length === 0 && !mended.has(part)) return [simply(read, row)];
  const wasMended = mended.has(part) ? [false, true] : [false];
  return wasMended.flatMap((isMended) => {
    const chance = mended.has(part) ? Math.log(isMended ? MENDED_PRIOR : 1 - MENDED_PRIOR) : 0;
    const whole = stoodWith(read, row, isMended, null);
    const gone = ways.map((spent) => stoodWith(read, row, isMended, spent));
    const taken = (severity: number) => ways[0]?.takes[placeIn(row.grid, severity)] ?? false;
    const seen = gone.filter(({ during }) => during.includes('spent'));
    // Nothing was read yet that would be another with the fuse gone.
    if (seen.length === 0)
      return [
        storyOf(
          read,
          row,
          whole,
          [whole, ...gone.slice(0, 1)],
          () => chance,
          (severity) => (taken(severity) ? 1 : 0),
        ),
      ];
    return [
      storyOf(read, row, whole, [whole], (severity) =>
        taken(severity) ? chance + Math.log(1 - SPENT_PRIOR) : chance,
      ),
      ...seen.map((standing) =>
        storyOf(read, row, standing, [standing], (severity) =>
          taken(severity) ? chance + Math.log(SPENT_PRIOR / seen.length) : -Infinity,
        ),
      ),
    ];
  });
}

/** The fault alone, from the first reading to the last. */
function simply({ observations, fits, totals }: Read, { variant, start, grid, logMass }: Row): Story {
  return {
    log: () => 0,
    peek: (s, k) => fits[k]!.predictions.peek(start + s),
    predicted: (severity, k) => predict(observations[k]!.bound, variant.edits(severity)),
    fit: (s) => totals[start + s]!,
    evidence: () => logSum(grid.map((_severity, s) => totals[start + s]! + logMass[s]!)),
    reach: (reaches) => fits.reduce((sum, _fit, k) => sum + reaches(k), 0),
    isPlain: true,
    told: null,
  };
}

/** How the machine stood while each observation was made, and how it stands now. */
interface Standing {
  during: readonly Stood[];
  now: Stood;
  /** The fuse that is gone where it stood `spent`. */
  fuse: number | null;
}

function stoodWith(
  { model, table, observations, fits }: Read,
  { start, fault }: Row,
  isMended: boolean,
  spent: Spent | null,
): Standing {
  const { part } = table.faults[fault]!;
  const refOf = (fuse: number) => model.compiled.parts[fuse]!.part.ref;
  const isGone = (k: number) => {
    if (!spent?.spells.some(({ from, until }) => k >= from && k < until)) return false;
    // Out of its holder it was gone anyway.
    if (observations[k]!.bound.test.setup.pulled?.includes(refOf(spent.fuse))) return false;
    // What takes the fuse itself reads the same with the fuse gone before.
    const { takes } = fits[k]!.predictions;
    return spent.takes.some((isTaken, s) => isTaken && takes[start + s] !== spent.fuse);
  };
  return {
    during: observations.map(({ mended }, k): Stood => {
      if (isMended && mended.has(part)) return 'sound';
      return isGone(k) ? 'spent' : 'faulty';
    }),
    now: isMended ? 'sound' : spent?.spells.at(-1)!.until === Infinity ? 'spent' : 'faulty',
    fuse: spent?.fuse ?? null,
  };
}

/** @param ends equally likely, what may be wrong by now; `many` says how many of them beside the first can be, at a severity */
function storyOf(
  { model, table, observations, fits, healthy, noFaultFits, totals }: Read,
  row: Row,
  { during, fuse }: Standing,
  ends: readonly Standing[],
  log: (severity: number) => number,
  many: (severity: number) => number = () => 0,
): Story {
  const { variant, grid, start, logMass } = row;
  const { supplyVolts } = model.compiled;
  const editsOf = (how: Stood, severity: number, gone: number | null): readonly Edit[] =>
    how === 'sound'
      ? []
      : how === 'spent'
        ? [...variant.edits(severity), spentFuse(model, gone!)]
        : variant.edits(severity);
  // With its fuse gone a fault is, for a first look, what that fuse is by itself when it is open.
  const openFuse =
    fuse === null
      ? undefined
      : table.rows.find((one) => table.faults[one.fault]!.part === fuse && one.grid.length === 1);
  const peek = (s: number, k: number): Prediction =>
    during[k] === 'sound'
      ? healthy[k]!
      : during[k] === 'spent'
        ? table.predictedSpent(observations[k]!.bound, row, fuse!)[s]!
        : fits[k]!.predictions.peek(start + s);
  const other = (s: number, of: (k: number) => number) =>
    during.reduce(
      (sum, how, k) => (how === 'faulty' ? sum : sum + of(k) - fits[k]!.cells[start + s]!),
      totals[start + s]!,
    );
  // For a first look: what an observation says that was not made of the fault alone.
  const atFirst = (k: number) =>
    during[k] === 'sound' ? noFaultFits[k]! : openFuse ? fits[k]!.cells[openFuse.start]! : 0;
  return {
    log,
    peek,
    predicted: (severity, k) =>
      during[k] === 'sound'
        ? healthy[k]!
        : predict(observations[k]!.bound, editsOf(during[k]!, severity, fuse)),
    fit: (s) =>
      other(s, (k) =>
        during[k] === 'sound' ? noFaultFits[k]! : logLikelihood(observations[k]!, peek(s, k), supplyVolts),
      ),
    evidence: () => logSum(grid.map((severity, s) => logMass[s]! + log(severity) + other(s, atFirst))),
    reach: (reaches) =>
      Math.max(...grid.map(log)) +
      // With the fuse gone it may read what the fault does, or what the fuse does.
      during.reduce(
        (sum, how, k) =>
          sum +
          (how === 'faulty' ? reaches(k) : how === 'spent' ? Math.max(reaches(k), atFirst(k)) : atFirst(k)),
        0,
      ),
    isPlain: during.every((how) => how === 'faulty'),
    told:
      ends.every(({ now }) => now === 'faulty') && during.every((how) => how === 'faulty')
        ? null
        : (severity) => {
            const possible = ends.slice(0, 1 + many(severity));
            return possible.map((end) => {
              const worlds = new Map<Stood, readonly Edit[]>();
              const world = (how: Stood) => {
                const known = worlds.get(how) ?? editsOf(how, severity, end.fuse);
                worlds.set(how, known);
                return known;
              };
              return {
                share: 1 / possible.length,
                during: (k: number) => world(end.during[k]!),
                now: world(end.now),
              };
            });
          },
  };
}

/**
 * The fuse that a fault would have taken when the machine was run, unseen: gone from there until somebody looks at it or it is renewed,
 * and again from the next run on, for the fault takes the new one too. Whoever saw it go put another in, or left it there for what was
 * read next: a way each, where anything was read between. None where it takes no fuse, or was seen each time it went.
 */
function spentUnder({ model, table, observations, fits }: Read, { start, grid, fault }: Row): Spent[] {
  let fuse = -1;
  /** Under which severities it goes in the first set-up that took it. */
  let takes: readonly boolean[] = [];
  const looks = (k: number) => {
    const { bound, mended } = observations[k]!;
    const isNew = mended.has(fuse) && !(observations[k - 1]?.mended.has(fuse) ?? false);
    return isNew || (bound.test.kind === 'fuse' && model.compiled.partIndex.get(bound.test.part) === fuse);
  };
  const runs = observations.map((_one, k) => {
    const { predictions } = fits[k]!;
    if (!predictions.takesAny) return false;
    const taken = grid.map((_severity, s) => predictions.takes[start + s]!);
    if (fuse < 0) {
      fuse = taken.find((one) => one >= 0) ?? -1;
      takes = taken.map((one) => one >= 0 && one === fuse);
    }
    // What takes another, or only where it is worse, is told by what it reads itself.
    return fuse >= 0 && takes.every((one, s) => one === (taken[s] === fuse));
  });
  if (fuse < 0 || fuse === table.faults[fault]!.part) return [];
  const spellsFrom = (begins: (k: number) => boolean) => {
    const spells: { from: number; until: number }[] = [];
    for (let k = 0; k < observations.length; k++) {
      if (!begins(k)) continue;
      let until = k + 1;
      while (until < observations.length && !looks(until)) until++;
      const from = looks(k) ? k + 1 : k;
      if (until > from) spells.push({ from, until: until < observations.length ? until : Infinity });
      k = until - 1;
    }
    return spells;
  };
  const renewed = spellsFrom((k) => runs[k]! && !looks(k));
  const left = spellsFrom((k) => runs[k]!);
  const ways = left.some(({ from }, at) => from !== renewed[at]?.from) ? [renewed, left] : [left];
  return ways.filter(({ length }) => length > 0).map((spells) => ({ fuse, spells, takes }));
}

/** Place of the greatest severity of a grid that is not above a given one. */
function placeIn(grid: readonly number[], severity: number): number {
  let at = 0;
  while (at + 1 < grid.length && grid[at + 1]! <= severity) at++;
  return at;
}
