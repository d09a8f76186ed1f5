import Papa from 'papaparse';
import { InputError } from '@/core/circuit/inputError';

/** What begins a formula in some spreadsheet, wide forms and what is hidden before it included. */
const FORMULA = '[\\s\\u200B-\\u200F\\u2060]*[=+\\-@|%\uFF1D\uFF0B\uFF0D\uFF20\u2212]';
/** A cell that is a plain number is no formula, whatever its sign. */
const RUNS = new RegExp(
  `^(?![+-]?(?:\\d+\\.?\\d*|\\.\\d+)(?:e[+-]?\\d+)?$)'*(?:[\\t\\r\\n]|${FORMULA})`,
  'i',
);
/** The apostrophe that a written cell was made harmless with. */
const HARMLESS = new RegExp(`^'(?='*(?:[\\t\\r\\n]|${FORMULA}))`);

/** Rows of a CSV file under its header; header names in lower case without blanks around them. */
export interface TableRow {
  /** Line of the file, the header being line 1; exact where no field holds a line break. */
  line: number;
  cells: Readonly<Record<string, string>>;
}

/**
 * Reads a CSV table: comma or semicolon, any order of columns, header in any case, columns nobody knows left alone.
 * Throws `InputError` naming the line for a damaged file or a column that must be there and is not; with `keepGoing`, a
 * damaged row comes as it could be read.
 */
export function readTable(
  text: string,
  needed: readonly string[] = [],
  damaged: 'refuse' | 'keepGoing' = 'refuse',
): TableRow[] {
  const plain = text.replace(/^\uFEFF/, '');
  const { data, errors, meta } = Papa.parse<Record<string, string>>(plain, {
    header: true,
    skipEmptyLines: 'greedy',
    transformHeader: (header) => header.trim().toLowerCase(),
    // A table of our own comes back as it was.
    transform: (cell) => cell.replace(HARMLESS, ''),
  });
  const broken = errors.find(({ type }) => type === 'Quotes');
  if (broken && damaged === 'refuse')
    throw new InputError(`line ${lineAt(plain, broken.index ?? 0)}`, `${broken.message}; close the quote`);
  const missing = needed.filter((column) => !meta.fields?.includes(column));
  if (missing.length > 0) {
    throw new InputError('line 1', `no column "${missing[0]}"; the header must name ${needed.join(', ')}`);
  }
  return data.map((cells, at) => ({ line: at + 2, cells }));
}

/**
 * Writes a CSV table (RFC 4180). A cell that a spreadsheet would take for a formula, whatever stands before its sign, gets a
 * leading apostrophe; a plain number does not.
 */
export function writeTable(
  columns: readonly string[],
  rows: readonly Readonly<Record<string, unknown>>[],
): string {
  return `${Papa.unparse(
    {
      fields: [...columns],
      data: rows.map((row) => columns.map((column) => row[column] ?? '')),
    },
    { newline: '\r\n', escapeFormulae: RUNS },
  )}\r\n`;
}

const lineAt = (text: string, index: number) => text.slice(0, index).split('\n').length;

/**
 * Rows of what was copied from a spreadsheet or a list; null for a single figure, which is typed. Columns are told by tabs, or by
 * semicolons: a comma may be the decimal sign.
 */
export function pastedRows(text: string): string[][] | null {
  const trimmed = text.replace(/^[\r\n]+|[\r\n]+$/g, '');
  if (!/[\t\r\n]/.test(trimmed)) return null;
  const { data } = Papa.parse<string[]>(trimmed, {
    delimiter: trimmed.includes('\t') || !trimmed.includes(';') ? '\t' : ';',
  });
  return data.map((row) => row.map((cell) => cell.trim()));
}
