import type { JobSheet, SheetRow } from '../core/sheets/onCircuit/jobSheet';
import { writeTable } from './table';

/**
 * A sheet of a job as a table, one line a row: what was read in each column, in SI, and what the sheet says. A cell that was not read is
 * empty.
 */
export function writeSheetTable(sheet: JobSheet, titleOf: (row: SheetRow) => string): string {
  const rows = sheet.rows.map((row) => ({
    what: titleOf(row),
    ...Object.fromEntries(sheet.columns.map((column, at) => [column, valueOf(row.cells[at]?.value)])),
    says: row.verdict ?? '',
  }));
  return writeTable(['what', ...sheet.columns, 'says'], rows);
}

function valueOf(value: unknown): unknown {
  return typeof value === 'boolean' ? (value ? 'yes' : 'no') : (value ?? '');
}

/**
 * A sheet by itself as a table, one figure a line, in SI as in its file: where it stands in the file (`ohms 1 from`), what it is, and, from
 * `says` on, what the sheet makes of it. What was left empty has no line.
 */
export function writeDocumentTable(document: object, answer: object): string {
  const rows = [...linesOf('', document), ...linesOf('says', answer)];
  return writeTable(['what', 'value'], rows);
}

function linesOf(path: string, value: unknown): { what: string; value: unknown }[] {
  if (value === null || value === undefined) return [];
  if (typeof value !== 'object') return [{ what: path, value: valueOf(value) }];
  // Lines of a list are counted as a person counts them.
  const entries = Array.isArray(value)
    ? value.map((one, at) => [String(at + 1), one] as const)
    : Object.entries(value);
  return entries.flatMap(([key, one]) => linesOf(path === '' ? key : `${path} ${key}`, one));
}
