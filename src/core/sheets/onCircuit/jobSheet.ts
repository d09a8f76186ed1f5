import type { Branch } from '../../circuit/compile';
import { oncePerModel, type CircuitModel } from '../../circuit/model';
import type { Edit } from '../../circuit/edits';
import type { Reading, Setup, Test } from '../../circuit/schema';
import { nodesOfTest, partOfTest } from '../../circuit/testPlace';
import { setupMinutes } from '../../diagnosis/access';
import { listCandidateTests, type CandidateTest } from '../../diagnosis/candidateTests';
import { askedPlace, placeOf, testKey } from '../../diagnosis/observations';
import type { Baseline } from '../../diagnosis/yardsticks';
import { ALONE_SHARE } from '../../diagnosis/windingRead';
import { bindTest, predict, predictedValue } from '../../diagnosis/predict';
import type { PastWinding } from '../../job/provedMeasures';
import type { CoilSheet } from '../coil/coil';
import type { Bearing } from './bearing';
import type { HeldRow } from '../heldAgainst';
import type { SheetAnswer } from '../sheet';
import type { SheetVerdicts } from './verdicts';
import { middleShown } from '../../units/wandering';

/** Sheets that a circuit fills in: their cells are tests on the machine, and what is typed into one is a reading of the job. */
export const JOB_SHEETS = [
  'functions',
  'coil',
  'windings',
  'contacts',
  'terminals',
  'diodes',
  'interlocks',
  'timeline',
  'drop',
  'insulation',
  'conductors',
  'outputs',
  'survey',
  'needs',
  'cylinders',
  'proofChain',
  'actuation',
] as const;
export type JobSheetName = (typeof JOB_SHEETS)[number];

/** One cell: a test in its set-up, what the sound machine shows there, and what was read. */
export interface SheetCell {
  test: Test;
  expected: Reading['value'];
  /** Position among the readings of the job of what was read; null while nothing was. */
  reading: number | null;
  value: Reading['value'] | null;
  /** Every value of a display that wandered; the cell's is their middle. */
  wandered?: readonly Reading['value'][];
  /** What the same test read when jobs on this function were closed, the latest first. */
  past: readonly Baseline[];
}

/** What jobs that were handed over left proved. */
export interface JobPast {
  /** Of this function, the latest first. */
  baselines: readonly Baseline[];
  /** Of the windings of its types, over the whole shed. */
  windings: readonly PastWinding[];
}
/** A winding as it is judged, and what its type read in jobs before, also where that judges nothing. */
export interface CoilOfJob {
  document: CoilSheet;
  past: Record<'own' | 'fleet', readonly PastWinding[]>;
}
export const NO_PAST: JobPast = { baselines: [], windings: [] };

export interface SheetRow<N extends JobSheetName = JobSheetName> {
  /** What the row is about: a part, a point, an output; with its two points where a part has several contacts. */
  name: string;
  between?: readonly [string, string];
  /** The other part of a pair that is judged together. */
  with?: string;
  /** Plug that is taken off for it, to see on which side of it a leak lies. */
  cut?: string;
  /** Which look at it, where a sheet has several of one part. */
  check?: string;
  /** Parts ahead of it that cannot be told from it here. */
  ahead?: readonly string[];
  cells: (SheetCell | null)[];
  /** What the sheet says of it; null where what was read does not decide. */
  verdict: SheetVerdicts[N] | null;
}

/** A sheet as it stands in a job. */
export interface JobSheet<N extends JobSheetName = JobSheetName> {
  name: N;
  /** What each column reads; of a matrix the points. */
  columns: string[];
  rows: SheetRow<N>[];
  /** Row and column that would settle most, as far as they were not read. */
  next: [row: number, column: number] | null;
  answers: SheetAnswer[];
  /** Of a matrix that judges each cell by itself: what it says of each, row by row. */
  verdicts?: readonly (readonly (SheetVerdicts[N] | null)[])[];
  /** Of coils: what each was judged from, row by row. */
  coils?: readonly CoilOfJob[];
  /** What in the run of an output does not bear what its load draws. */
  bearing?: readonly Bearing[];
  /** Limits that its verdicts lean on. */
  held?: readonly HeldRow[];
  /** Parts that what reads bad lies on, and nothing that reads good. */
  liesOn?: readonly string[];
}

/** A reading of the same kind at the same place counts for a cell where the sound machine would show the same there, within this share. */
const SAME_SHARE = 0.02;
/** Kinds that tell of the command they were watched in, and of no other. */
const ONE_COMMAND: readonly Test['kind'][] = ['function', 'moves', 'gauge', 'amps'];
/** Kinds that say another thing with a plug or a wire off, though the sound machine shows the same then. */
const AS_IT_STANDS: readonly Test['kind'][] = ['volts', 'insulation', 'pressure', 'flow', 'hold'];

/** Kinds that read what leads from one place to another: beside each other two parts may read alike. */
const OF_WHAT_LIES_BETWEEN: readonly Test['kind'][] = ['ohms', 'diode'];

/** Tests that may be taken on a circuit at all, whatever the doubt. */
export const testsOf = oncePerModel((model): readonly CandidateTest[] => listCandidateTests(model).tests);

/** The quickest test that may be taken between two points and fits what a cell wants; null where none may. */
export function pickBetween(
  model: CircuitModel,
  kind: Test['kind'],
  [a, b]: readonly [string, string],
  fits: (test: Test, expected: Reading['value']) => boolean,
): Test | null {
  return pick(
    model,
    (test) => {
      if (test.kind !== kind) return false;
      const nodes = nodesOfTest(test);
      return nodes.includes(a) && nodes.includes(b);
    },
    fits,
  );
}

/** The same of a part. */
export function pickOf(
  model: CircuitModel,
  kind: Test['kind'],
  ref: string,
  fits: (test: Test, expected: Reading['value']) => boolean,
): Test | null {
  return pick(model, (test) => test.kind === kind && partOfTest(test) === ref, fits);
}

const AT_REST: Setup = {};

function pick(
  model: CircuitModel,
  meant: (test: Test) => boolean,
  fits: (test: Test, expected: Reading['value']) => boolean,
): Test | null {
  const found = testsOf(model)
    .filter(({ bound }) => meant(bound.test))
    .filter(({ bound }) =>
      fits(bound.test, predictedValue(bound.test.kind, predict(bound, [])) as Reading['value']),
    )
    .map(({ bound: { test, drive }, minutes }) => ({
      test,
      // With the power off nobody holds a button down for what shows the same without it. Live the set-up is what is asked of it.
      minutes: minutes + (drive.mode === 'live' ? 0 : setupMinutes(model, AT_REST, test.setup)),
    }))
    .sort((one, two) => one.minutes - two.minutes)[0];
  return found?.test ?? null;
}

/** A cell with what was read there, in its own set-up or in another that means the same. */
export function cellOf(
  model: CircuitModel,
  test: Test | null,
  readings: readonly Reading[],
): SheetCell | null {
  if (!test) return null;
  const expected = soundValue(model, test);
  const key = testKey(test);
  const exact = readings.findLastIndex((one) => testKey(one) === key);
  // What works in one command says nothing of another.
  const at =
    exact >= 0 || ONE_COMMAND.includes(test.kind)
      ? exact
      : readings.findLastIndex((one) => meansTheSame(model, test, expected, one));
  const wandered = at < 0 ? [] : wanderedAt(readings, at);
  return {
    test,
    expected,
    reading: at < 0 ? null : at,
    value: at < 0 ? null : wandered.length > 1 ? middleShown(wandered) : readings[at]!.value,
    ...(wandered.length > 1 ? { wandered } : {}),
    past: [],
  };
}

/** Values of the display that wandered up to a reading: those right before it of the same test. None where it stood still. */
function wanderedAt(readings: readonly Reading[], at: number): Reading['value'][] {
  const key = testKey(readings[at]!);
  const isOfRun = (one: Reading) => one.unsteady === true && testKey(one) === key;
  const before = readings.slice(0, at + 1).findLastIndex((one) => !isOfRun(one));
  return readings.slice(before + 1, at + 1).map(({ value }) => value);
}

/** A sheet whose cells know what they read in earlier jobs. */
export function withPast<N extends JobSheetName>(
  sheet: JobSheet<N>,
  baselines: readonly Baseline[],
): JobSheet<N> {
  if (baselines.length === 0) return sheet;
  return {
    ...sheet,
    rows: sheet.rows.map((row) => ({
      ...row,
      cells: row.cells.map((cell) => cell && { ...cell, past: pastOf(cell.test, baselines) }),
    })),
  };
}

/** What a place read when earlier jobs were closed, one value a job: it may have been read there for more than one line of the proofs. */
export function pastOf(test: Test, baselines: readonly Baseline[]): Baseline[] {
  const key = testKey(test);
  const here = baselines.filter((one) => one.key === key);
  return here.filter(({ jobNumber }, at) => here.findIndex((one) => one.jobNumber === jobNumber) === at);
}

export function soundValue(model: CircuitModel, test: Test): Reading['value'] {
  return predictedValue(test.kind, predict(bindTest(model, test), [])) as Reading['value'];
}

function meansTheSame(
  model: CircuitModel,
  test: Test,
  expected: Reading['value'],
  reading: Reading,
): boolean {
  if (placeOf(test) !== placeOf(reading)) return false;
  const { value: _value, meter: _meter, unsteady: _unsteady, ...read } = reading;
  const {
    celsius: _celsius,
    seconds: _seconds,
    ...other
  } = { celsius: undefined, seconds: undefined, ...read };
  if (AS_IT_STANDS.includes(test.kind) && askedPlace(test) !== askedPlace(other as Test)) return false;
  if (OF_WHAT_LIES_BETWEEN.includes(test.kind)) {
    const ends = endsRead(model, test);
    if (ends !== endsRead(model, other as Test)) return false;
    // Where nothing leads on the sound machine, what leads on another hangs on what was off.
    if (ends === '' && askedPlace(test) !== askedPlace(other as Test)) return false;
  }
  const there = soundValue(model, other as Test);
  if (typeof expected !== 'number' || typeof there !== 'number')
    return JSON.stringify(expected) === JSON.stringify(there);
  const [a, b] = [Math.abs(expected), Math.abs(there)];
  return Math.abs(a - b) <= SAME_SHARE * Math.max(a, b);
}

/** Pieces at the two places of a dead test that its reading hangs on: each of them broken it would be another. */
function endsRead(model: CircuitModel, test: Test): string {
  const known = endsReadOf(model);
  const key = testKey(test);
  const found = known.get(key);
  if (found !== undefined) return found;
  const { compiled } = model;
  const at = nodesOfTest(test).map((node) => compiled.nodeIndex.get(node)!);
  const ends = compiled.branches
    .filter(({ a, b, index }) => (at.includes(a) || at.includes(b)) && hangsOn(model, test, index))
    .map(({ index }) => index)
    .join(' ');
  known.set(key, ends);
  return ends;
}
const endsReadOf = oncePerModel(() => new Map<string, string>());

/** Whether a reading of the sound machine is another one, or none, with one piece of it broken. */
export function hangsOn(model: CircuitModel, test: Test, branch: number): boolean {
  const bound = bindTest(model, test);
  const of = (edits: readonly Edit[]) => predictedValue(test.kind, predict(bound, edits));
  const [sound, without] = [of([]), of([{ type: 'ohms', branch, ohms: Infinity }])];
  if (typeof sound !== 'number' || typeof without !== 'number') return sound !== without;
  return Math.abs(sound - without) > SAME_SHARE * Math.max(Math.abs(sound), Math.abs(without));
}

/** Whether a test is taken with the controls where another set-up has them. */
export function underCommand({ controls = {} }: Setup): (test: Test) => boolean {
  const wanted = JSON.stringify(controls);
  return ({ setup }) => JSON.stringify(setup.controls ?? {}) === wanted;
}

/** Cells in their order by what they ask; where several ask the same, cycle after cycle, by which of them. */
export function cellKeys({ rows }: JobSheet): { key: string; at: [number, number] }[] {
  const seen = new Map<string, number>();
  return rows.flatMap(({ cells }, row) =>
    cells.flatMap((cell, column): { key: string; at: [number, number] }[] => {
      if (!cell) return [];
      const test = testKey(cell.test);
      const nth = seen.get(test) ?? 0;
      seen.set(test, nth + 1);
      return [{ key: `${test} ${nth}`, at: [row, column] }];
    }),
  );
}

/** First cell in reading order that may be read and was not. */
export function firstOpen(rows: readonly SheetRow[]): [number, number] | null {
  for (const [row, { cells }] of rows.entries()) {
    const column = cells.findIndex((cell) => cell !== null && cell.value === null);
    if (column >= 0) return [row, column];
  }
  return null;
}

/** Head of every sheet's document. */
export const HEAD = { format: 'spiraxis-sheet', version: 1 } as const;
export const MOST_ROWS = 60;

export function nameOf({ compiled }: CircuitModel, node: number): string {
  return compiled.nodeNames[node]!;
}

/** A sheet without those of some columns in which nothing was read and nothing is asked for: what is wanted seldom leaves room for the rest. */
export function withoutColumns<N extends JobSheetName>(
  sheet: JobSheet<N>,
  some: readonly string[],
): JobSheet<N> {
  const { columns, rows, next } = sheet;
  const stays = columns.map(
    (column, at) =>
      !some.includes(column) ||
      next?.[1] === at ||
      rows.some(({ cells }) => (cells[at]?.value ?? null) !== null),
  );
  const kept = columns.flatMap((_column, at) => (stays[at] ? [at] : []));
  return {
    ...sheet,
    columns: kept.map((at) => columns[at]!),
    rows: rows.map((row) => ({ ...row, cells: kept.map((at) => row.cells[at] ?? null) })),
    next: next && [next[0], kept.indexOf(next[1])],
  };
}

/** Size of what was read in a cell; undefined where nothing was. */
export function figure(cell: SheetCell | null | undefined): number | 'OL' | undefined {
  const value = cell?.value;
  return typeof value === 'number' ? Math.abs(value) : value === 'OL' ? 'OL' : undefined;
}

/** The same of a kind that shows no over-range. */
export function volts(cell: SheetCell | null | undefined): number | undefined {
  const value = figure(cell);
  return value === 'OL' ? undefined : value;
}

/** The sound circuit shows a winding's own ohms there: nothing lies across it, and it is this one that is read and not its like beside it. */
export function isOwn(
  model: CircuitModel,
  test: Test,
  expected: Reading['value'],
  { index, ohms }: Pick<Branch, 'index' | 'ohms'>,
): boolean {
  if (typeof expected !== 'number' || Math.abs(expected / ohms - 1) > ALONE_SHARE) return false;
  return hangsOn(model, test, index);
}

/** A look at the bit by which a controller's program asks for an output, where the sound machine shows it set. */
export function asksFor(when: (test: Test) => boolean) {
  return (test: Test, expected: Reading['value']) =>
    test.kind === 'bit' && test.which === 'command' && when(test) && expected === '1';
}

/** A test with nothing but its controls set: nothing taken off, stopped, locked or fed by hand. */
export function isBare({ setup: { controls: _controls, ...more } }: Test): boolean {
  return Object.keys(more).length === 0;
}

/** Size of a figure; 0 of what is none. */
export function sizeOf(value: Reading['value']): number {
  return typeof value === 'number' ? Math.abs(value) : 0;
}

/** Size of ohms, over range as more than any. */
export function ohmsSize(value: Reading['value']): number {
  return value === 'OL' ? Infinity : sizeOf(value);
}

/** Nodes nearer than this at rest are one conductor, over wires and plugs, ohms. */
const WIRED_OHMS = 1;

/** Whether two places are one conductor while everything rests. */
export function areWired(model: CircuitModel, a: number, b: number): boolean {
  return model.situation({}).solve({ mode: 'ohms' }).changed.pairOhms(a, b) < WIRED_OHMS;
}
