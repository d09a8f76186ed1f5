import type { CircuitModel } from '../../src/core/circuit/model';
import type { Reading } from '../../src/core/circuit/schema';
import type { Edit } from '../../src/core/circuit/edits';
import { bindTest, predict, predictedValue } from '../../src/core/diagnosis/predict';
import type { JobSheet, SheetCell } from '../../src/core/sheets/onCircuit/jobSheet';

/** Whether a fault shows where a sheet looks. */

/** What two figures differ by at least where a person would call them two, as a share of the larger, and volts or ohms. */
const OTHER_SHARE = 0.25;
const OTHER_LEAST = 1;
/** From here on ohms are none. */
const NO_WAY = 1e6;

function differs(one: Reading['value'], two: Reading['value']): boolean {
  if (typeof one === 'boolean' || typeof two === 'boolean') return one !== two;
  const [a, b] = [one, two].map((value) =>
    value === 'OL' ? NO_WAY : typeof value === 'number' ? Math.min(Math.abs(value), NO_WAY) : null,
  );
  if (a === null || b === null || a === undefined || b === undefined) return one !== two;
  return Math.abs(a - b) > Math.max(OTHER_SHARE * Math.max(a, b), OTHER_LEAST);
}

/** Whether a cell shows another thing with a fault in the circuit than without. */
export function isOther(model: CircuitModel, { test, expected }: SheetCell, edits: readonly Edit[]): boolean {
  return differs(
    predictedValue(test.kind, predict(bindTest(model, test), edits)) as Reading['value'],
    expected,
  );
}

export function showsInCells(model: CircuitModel, { rows }: JobSheet, edits: readonly Edit[]): boolean {
  return rows.some(({ cells }) => cells.some((cell) => cell !== null && isOther(model, cell, edits)));
}

/** What a valve moves does another thing on command than it should. */
export function showsOnCommand(model: CircuitModel, first: JobSheet, edits: readonly Edit[]): boolean {
  return showsInCells(
    model,
    { ...first, rows: first.rows.filter(({ check }) => check === 'commanded') },
    edits,
  );
}

/** Less than this of the supply at an output nobody calls a fault. */
const NOTICED_SHARE = 0.07;

export function showsAtOutputs(model: CircuitModel, { rows }: JobSheet, edits: readonly Edit[]): boolean {
  const least = NOTICED_SHARE * model.compiled.supplyVolts;
  return rows.some(({ cells }) =>
    cells.some((cell) => {
      if (cell === null) return false;
      const value = predictedValue(cell.test.kind, predict(bindTest(model, cell.test), edits));
      return Math.abs(Number(value) - Number(cell.expected)) > least;
    }),
  );
}
