import { significant } from '@/core/units/significant';
import { InputError } from '@/core/circuit/inputError';
import { bookRowSchema, type BookRow } from '@/core/codes/bookRow';
import type { CodeSighting, LoggedCode, LogSummary } from '@/core/codes/codeLog';
import type { FoundCode } from '@/core/codes/describe';
import { findCodes } from '@/core/codes/findCodes';
import { FAILURE_MODES } from '@/core/codes/failureModes';
import { readTable, writeTable, type TableRow } from './table';

const BOOK_COLUMNS = [
  'system',
  'code',
  'mode',
  'means',
  'text',
  'function',
  'part',
  'sheet',
  'note',
] as const;
const MOST_ROWS = 5000;

/** Reads a code book. Throws `InputError` naming line and field; nothing is taken from a bad file. */
export function readCodeBook(text: string): BookRow[] {
  const rows = readTable(text, ['system', 'code']);
  if (rows.length > MOST_ROWS) throw new InputError('file', `${rows.length} lines; at most ${MOST_ROWS}`);
  return rows.map(({ line, cells }) => {
    const means = cells.means?.trim() ?? '';
    if (means !== '' && !/^\d{1,2}$/.test(means)) {
      throw new InputError(
        `line ${line}, means`,
        `"${means}" is no failure mode; write 0 to 31 or leave it empty`,
      );
    }
    const parsed = bookRowSchema.safeParse({
      ...Object.fromEntries(BOOK_COLUMNS.map((column) => [column, cells[column]?.trim() ?? ''])),
      system: systemOf(cells.system ?? ''),
      means: means === '' ? null : Number(means),
    });
    if (!parsed.success) {
      const issue = parsed.error.issues[0]!;
      const field = String(issue.path[0]);
      throw new InputError(`line ${line}, ${field}`, `"${cells[field] ?? ''}": ${issue.message}`);
    }
    return parsed.data;
  });
}

export function writeCodeBook(book: readonly BookRow[]): string {
  return writeTable(BOOK_COLUMNS, book);
}

/** System names in whatever case they were typed. */
function systemOf(text: string): string {
  const plain = text.trim().toLowerCase();
  return (
    { j1939: 'J1939', j1587: 'J1587', obd: 'OBD', uds: 'UDS', maker: 'maker', blink: 'blink' }[plain] ?? text
  );
}

/** Columns of the reference's CSV log of J1939 faults; a log of five-character codes has `code` and `ftb` instead. */
export function isCodeTable(header: string): boolean {
  const names = header
    .toLowerCase()
    .split(/[,;]/)
    .map((name) => name.replace(/["\s\uFEFF]/g, ''));
  return names.includes('timestamp_iso') && (names.includes('spn') || names.includes('code'));
}

/** One row of a CSV log as what it says, or `null` for a damaged row. Times without a zone are taken as UTC. */
export function sightingOf({ cells }: TableRow): CodeSighting | null {
  const time = secondsOf(cells.timestamp_iso ?? '');
  if (time === null) return null;
  const address = cells.source_address ?? cells.unit ?? '';
  const sourceAddress = address.trim() === '' ? -1 : wholeNumber(address);
  if (sourceAddress === null) return null;
  const code = cells.spn === undefined ? codeOf(cells) : pairOf(cells);
  return code ? { code, sourceAddress, time } : null;
}

function pairOf(cells: TableRow['cells']): FoundCode | null {
  const [spn, fmi] = [wholeNumber(cells.spn ?? ''), wholeNumber(cells.fmi ?? '')];
  if (spn === null || fmi === null || spn > 524_287 || fmi >= FAILURE_MODES.length) return null;
  const count = wholeNumber(cells.occurrence ?? '');
  const active = cells.active?.trim().toLowerCase() ?? '';
  return {
    system: 'J1939',
    component: spn,
    failureMode: fmi,
    text: FAILURE_MODES[fmi]!,
    ...(count === null ? {} : { count }),
    ...(active === '' ? {} : { active: ['1', 'true', 'yes'].includes(active) }),
  };
}

function codeOf(cells: TableRow['cells']): FoundCode | null {
  const type = cells.ftb?.trim() ?? '';
  return findCodes(type === '' ? (cells.code ?? '') : `${cells.code}-${type}`)[0] ?? null;
}

function wholeNumber(text: string): number | null {
  const plain = text.trim().replace(/,0+$/, '');
  if (/^0x[0-9a-f]{1,6}$/i.test(plain)) return parseInt(plain, 16);
  return /^\d{1,9}$/.test(plain) ? Number(plain) : null;
}

function secondsOf(text: string): number | null {
  const plain = text.trim().replace(',', '.');
  const match = /^(\d{4}-\d\d-\d\d)[T ](\d\d:\d\d(?::\d\d(?:\.\d+)?)?)(Z|[+-]\d\d:?\d\d)?$/i.exec(plain);
  if (!match) return null;
  const time = Date.parse(`${match[1]}T${match[2]}${match[3] ?? 'Z'}`);
  return Number.isNaN(time) ? null : time / 1000;
}

/** A log's codes as a table: one row a code and sender. */
export function writeLogTable({ codes, from }: LogSummary): string {
  return writeTable(
    [
      'system',
      'source_address',
      'code',
      'mode',
      'text',
      'active',
      'messages',
      'occurrence',
      'first_s',
      'last_s',
      'drops',
      'drops_per_hour',
      'spans_s',
    ],
    codes.map((code) => ({
      system: code.system,
      source_address: code.sourceAddress < 0 ? '' : code.sourceAddress,
      code: code.component,
      mode: code.failureMode ?? '',
      text: code.text,
      active: code.active ?? '',
      messages: code.count,
      occurrence: code.occurrences ?? '',
      first_s: seconds(code.first - from),
      last_s: seconds(code.last - from),
      drops: code.drops,
      drops_per_hour: significant(code.dropsPerHour, 3),
      spans_s: spansText(code, from),
    })),
  );
}

function spansText({ spans }: LoggedCode, from: number): string {
  return spans.map(([start, end]) => `${seconds(start - from)}-${seconds(end - from)}`).join(' ');
}

const seconds = (value: number) => Number(value.toFixed(3));
