import type { CircuitModel } from '../../circuit/model';
import type { Reading } from '../../circuit/schema';
import type { ShopMarks } from '../../tables/marks';
import { uniqueRows, type HeldRow } from '../heldAgainst';
import type { InsulationAnswer } from '../insulation/insulation';
import {
  cellOf,
  MOST_ROWS,
  nameOf,
  pastOf,
  sizeOf,
  testsOf,
  type JobPast,
  type JobSheet,
  type SheetRow,
} from './jobSheet';
import { judgedInsulation } from './insulationCell';
import {
  farPoint,
  leakPlaces,
  nextCut,
  partsLeaking,
  type Ends,
  type InsulationTest,
  type LeakReading,
} from './leakSearch';

/** Rows that the pairs of a loom get at most, of all. */
const MOST_PAIRS = 24;

interface Line extends SheetRow<'insulation'> {
  test: InsulationTest;
  answer: InsulationAnswer;
  held: HeldRow[];
}

/**
 * Each conductor to the frame, as far as a tester harms nothing there; where one leaks, plug by plug to where; then the wires of a loom
 * against each other.
 */
export function insulationSheetOf(
  model: CircuitModel,
  readings: readonly Reading[],
  marks: ShopMarks,
  { baselines }: JobPast,
): JobSheet<'insulation'> | null {
  const { compiled } = model;
  const frame = nameOf(model, compiled.frame);
  const line = (
    test: InsulationTest,
    more: Pick<SheetRow<'insulation'>, 'name' | 'between' | 'cut'>,
  ): Line => {
    const cell = cellOf(model, test, readings)!;
    return {
      ...more,
      test,
      ...judgedInsulation(model, test, cell, marks, readings, pastOf(test, baselines)),
      cells: [cell],
    };
  };
  const quickest = quickestOf(model);
  const toFrame = [...quickest.values()].filter(({ test }) => test.from === frame || test.to === frame);
  const quick = toFrame.slice(0, MOST_ROWS - MOST_PAIRS);
  const pairs = [...quickest.values()]
    .filter(({ test }) => test.from !== frame && test.to !== frame)
    .slice(0, Math.min(MOST_PAIRS, MOST_ROWS - quick.length));
  if (quick.length + pairs.length === 0) return null;
  const at = ({ test }: { test: InsulationTest }) => compiled.nodeIndex.get(farPoint(test, frame))!;
  // Shown along the drawing; asked for the quickest first.
  const points = quick
    .toSorted((a, b) => at(a) - at(b))
    .map(({ test }) => line(test, { name: farPoint(test, frame) }));
  const { cuts, places } = cutsOf(model, readings, points, line);
  const between = pairs.map(({ test }) =>
    line(test, { name: `${test.from} ${test.to}`, between: [test.from, test.to] }),
  );
  const lines = [...points, ...cuts, ...between];
  const next = nextOf(lines, quick.map(at), at);
  return {
    name: 'insulation',
    columns: ['insulation'],
    rows: lines.map(({ test: _test, answer: _answer, held: _held, ...row }) => row),
    next: next < 0 ? null : [next, 0],
    answers: lines.map(({ answer }) => answer),
    held: uniqueRows(lines.flatMap(({ held }) => held)),
    liesOn: partsLeaking(
      model,
      places,
      lines.flatMap(({ verdict, between, test, cells: [cell] }) =>
        verdict === 'bad' && !between ? [{ test, ohms: sizeOf(cell!.value!) }] : [],
      ),
    ),
  };
}

/** The quickest insulation test of each point to the frame, and of each pair. */
function quickestOf(model: CircuitModel): Map<string, { test: InsulationTest; minutes: number }> {
  const quickest = new Map<string, { test: InsulationTest; minutes: number }>();
  for (const { bound, minutes } of testsOf(model)) {
    const { test } = bound;
    if (test.kind !== 'insulation') continue;
    const place = JSON.stringify([test.from, test.to].sort());
    const known = quickest.get(place);
    if (!known || minutes < known.minutes) quickest.set(place, { test, minutes });
  }
  return quickest;
}

/** Plugs taken off in what leaks: those that were read, and the one that halves the rest; and where the leak may still lie. */
function cutsOf(
  model: CircuitModel,
  readings: readonly Reading[],
  points: readonly Line[],
  line: (test: InsulationTest, more: Pick<SheetRow<'insulation'>, 'name' | 'cut'>) => Line,
): { cuts: Line[]; places: Ends } {
  const frame = nameOf(model, model.compiled.frame);
  const cuts: Line[] = [];
  const read: LeakReading[] = points.filter(({ verdict }) => verdict !== null);
  for (;;) {
    const places = leakPlaces(model, read);
    const base = read.findLast(({ verdict }) => verdict === 'bad');
    const cut = base ? nextCut(model, places, base.test) : null;
    if (!cut) return { cuts, places };
    const own = line(cut.test, { name: farPoint(cut.test, frame), cut: cut.connector });
    cuts.push(own);
    // What was not read yet ends it; so does a cut that tells nothing.
    if (own.verdict === null || cuts.length > readings.length) return { cuts, places };
    read.push(own);
  }
}

/** The cut that is open, then the quickest of the points, then the pairs; once a leak is found the other points can wait. */
function nextOf(lines: readonly Line[], quickFirst: readonly number[], at: (line: Line) => number): number {
  const open = (line: Line) => line.cells[0]!.value === null;
  const cut = lines.findIndex((line) => line.cut !== undefined && open(line));
  if (cut >= 0) return cut;
  for (const node of quickFirst) {
    const point = lines.findIndex(
      (line) => line.cut === undefined && line.between === undefined && at(line) === node && open(line),
    );
    if (point >= 0) return point;
  }
  return lines.findIndex((line) => line.between !== undefined && open(line));
}
