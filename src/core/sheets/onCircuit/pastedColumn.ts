import type { CircuitModel } from '../../circuit/model';
import type { Test } from '../../circuit/schema';
import { cautionsOf, type Caution } from '../../diagnosis/cautionsOf';
import { putIn } from '../../safety/putIn';
import type { JobSheet } from './jobSheet';

/** A line of a column that was copied elsewhere: where it goes, or why it goes nowhere. */
export type PastedLine<T> =
  | { is: 'taken'; at: [row: number, column: number]; test: Test; figure: T }
  /** The sheet has no cell there any more, or nothing may be read in it. */
  | { is: 'noCell' }
  | { is: 'otherHold'; at: [row: number, column: number] };

/**
 * Lays figures into a sheet from a cell on downwards, as a column of a spreadsheet goes in; a blank one, null, leaves its cell out. A cell
 * that is held by more than the first, or that another set-up opens, is taken by itself: what was said to be clear was not said of it.
 */
export function placeColumn<T>(
  model: CircuitModel,
  sheet: JobSheet,
  at: readonly [number, number],
  figures: readonly (T | null)[],
  isOpen: (test: Test) => boolean,
): PastedLine<T>[] {
  const first = sheet.rows[at[0]]?.cells[at[1]]?.test;
  if (first === undefined) return [];
  const isCleared = (test: Test) => test === first || (isHeldAlike(model, first, test) && isOpen(test));
  return placeAt(sheet, downwards(sheet, at), figures, isCleared);
}

/**
 * Lays figures into a row of a sheet, from its first column on: what a trace shows of one wire at moment after moment. All that holds any of
 * them has been said to be clear: see {@link cautionsOfRow}.
 */
export function placeRow<T>(
  sheet: JobSheet,
  row: number,
  figures: readonly (T | null)[],
  isOpen: (test: Test) => boolean,
): PastedLine<T>[] {
  const along = sheet.columns.map((_name, column): [number, number] => [row, column]);
  return placeAt(sheet, along, figures, isOpen);
}

/** Everything that holds back any reading of a row: what a hand does who runs through all of it. */
export function cautionsOfRow(model: CircuitModel, { rows }: JobSheet, row: number): Caution[] {
  const tests = rows[row]?.cells.flatMap((cell) => cell?.test ?? []) ?? [];
  return [...new Set(tests.flatMap((test) => cautionsOf(model, test)))];
}

function placeAt<T>(
  sheet: JobSheet,
  places: readonly [number, number][],
  figures: readonly (T | null)[],
  isCleared: (test: Test) => boolean,
): PastedLine<T>[] {
  return figures.flatMap((figure, line): PastedLine<T>[] => {
    if (figure === null) return [];
    const place = places[line];
    const test = place && sheet.rows[place[0]]!.cells[place[1]]?.test;
    if (!place || !test) return [{ is: 'noCell' }];
    return [isCleared(test) ? { is: 'taken', at: place, test, figure } : { is: 'otherHold', at: place }];
  });
}

/** Cells under one, as the sheet is drawn: a matrix has its frame, the last column, as its last row. */
function downwards({ name, rows, columns }: JobSheet, [row, column]: readonly [number, number]) {
  const frame = columns.length - 1;
  if (name === 'conductors' && column === frame) return [[row, column] as [number, number]];
  const down = rows.slice(row).map((_row, more): [number, number] => [row + more, column]);
  return name === 'conductors' ? [...down, [column, frame] as [number, number]] : down;
}

/** Whether all that holds a test back, and all that it puts into the machine, was already so for another. */
function isHeldAlike(model: CircuitModel, cleared: Test, test: Test): boolean {
  const known = cautionsOf(model, cleared);
  const inMachine = putIn(cleared.setup).map(({ item }) => item);
  return (
    cautionsOf(model, test).every((caution) => known.includes(caution)) &&
    putIn(test.setup).every(({ item }) => inMachine.includes(item))
  );
}
