import { CircuitModel } from '../../circuit/model';
import type { Circuit, Reading } from '../../circuit/schema';
import { shopMarks } from '../../tables/marks';
import { TEMPLATES } from '../../templates/templates';
import { MachineUnderTest } from '../../testing/machineUnderTest';
import { jobSheet } from '../onCircuit/build';
import type { JobSheet, JobSheetName, SheetCell } from '../onCircuit/jobSheet';

export const MARKS = shopMarks({});
const MOST_READINGS = 60;

/** Fills a sheet in as it asks, on a machine with something wrong; gives it as it stands at the end, and what was read. */
export function follow(
  circuit: Circuit,
  name: JobSheetName,
  fault: [part?: string, fault?: string, ohms?: number] = [],
): { sheet: JobSheet; readings: Reading[] } {
  const model = new CircuitModel(circuit);
  const machine = new MachineUnderTest(circuit, ...fault);
  const readings: Reading[] = [];
  for (;;) {
    const sheet = jobSheet(model, name, readings, MARKS)!;
    if (!sheet.next || readings.length > MOST_READINGS) return { sheet, readings };
    const { test } = sheet.rows[sheet.next[0]]!.cells[sheet.next[1]]!;
    readings.push({ ...test, value: machine.value(test) } as Reading);
  }
}

/** What is said of each row, by its name. */
export const verdicts = ({ rows }: JobSheet): Record<string, string | null> =>
  Object.fromEntries(rows.map(({ name, verdict }) => [name, verdict]));

/** A cell of a row by the name of its column; null where the sheet has none there. */
export const cellAt = ({ rows, columns }: JobSheet, name: string, column: string): SheetCell | null =>
  rows.find((row) => row.name === name)!.cells[columns.indexOf(column)] ?? null;

/** A circuit that a new drawing may begin with. */
export function template(id: string): Circuit {
  return TEMPLATES.find((one) => one.id === id)!.build();
}
