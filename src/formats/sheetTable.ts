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
