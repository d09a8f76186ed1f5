import Papa from 'papaparse';
import { InputError } from '@/core/circuit/inputError';
import type { Trace } from '@/core/trace/trace';

/** A trace as a file has it: seconds, and one line of values for each of its channels. */
export interface TraceFile {
  seconds: number[];
  channels: TraceChannel[];
}

export interface TraceChannel {
  /** As the file calls it; `channel 1` where it does not. */
  name: string;
  quantity: 'amps' | 'volts' | null;
  values: number[];
}

/** More points than this are no trace of one switching. */
const MOST_POINTS = 2_000_000;
const LEAST_POINTS = 8;
/** Lines at the top of a file that may be about the instrument. */
const MOST_HEAD_LINES = 200;
/** Share of rows that may be damaged. */
const DAMAGED = 0.02;
const SOME = 2;

const TIME_SCALE: Readonly<Record<string, number>> = {
  s: 1,
  sec: 1,
  second: 1,
  seconds: 1,
  ms: 1e-3,
  us: 1e-6,
  µs: 1e-6,
  ns: 1e-9,
};
const VALUE_SCALE: Readonly<Record<string, { by: number; quantity: 'amps' | 'volts' }>> = {
  a: { by: 1, quantity: 'amps' },
  amp: { by: 1, quantity: 'amps' },
  amps: { by: 1, quantity: 'amps' },
  ampere: { by: 1, quantity: 'amps' },
  ma: { by: 1e-3, quantity: 'amps' },
  v: { by: 1, quantity: 'volts' },
  volt: { by: 1, quantity: 'volts' },
  volts: { by: 1, quantity: 'volts' },
  mv: { by: 1e-3, quantity: 'volts' },
};

/**
 * Reads a trace from text: columns split by commas, semicolons, tabs or blanks, decimal points or commas, lines about the instrument before
 * them, a header with or without units, damaged rows left out. One column alone needs its step in a line such as `Sample interval, 1e-4`.
 * Throws `InputError` with the line where it is none.
 */
export function readTraceText(text: string): TraceFile {
  const lines = text.replace(/^\uFEFF/, '').split(/\r\n|\n|\r/);
  const delimiter = delimiterOf(lines);
  const decimalComma =
    delimiter !== ',' && lines.slice(0, 400).some((line) => /\d,\d/.test(line) && !/\d\.\d/.test(line));
  const cellsOf = (line: string) =>
    delimiter === ' '
      ? line.trim().split(/\s+/)
      : (Papa.parse<string[]>(line, { delimiter }).data[0] ?? []).map((cell) => cell.trim());
  const figure = (cell: string) => {
    const plain = decimalComma ? cell.replace(',', '.') : cell;
    return /^[+-]?(\d+\.?\d*|\.\d+)(e[+-]?\d+)?$/i.test(plain) ? Number(plain) : NaN;
  };
  const isRow = (line: string | undefined) =>
    line !== undefined &&
    line.trim() !== '' &&
    cellsOf(line).every((cell) => cell === '' || !Number.isNaN(figure(cell)));
  // The table begins where three rows of figures stand one under another.
  const first = lines.findIndex((_line, at) => [0, 1, 2].every((k) => isRow(lines[at + k])));
  if (first < 0 || first > MOST_HEAD_LINES)
    throw new InputError('trace', 'no rows of figures were found; give seconds and values, one pair a line');
  const head = lines.slice(0, first).filter((line) => line.trim() !== '');
  if (lines.length - first > MOST_POINTS)
    throw new InputError('trace', `has more than ${MOST_POINTS} points; cut out the switching`);
  const body = lines
    .slice(first)
    .map((line) => (delimiter === ' ' ? line.trim().replaceAll(/\s+/g, ' ') : line));
  const { data } = Papa.parse<string[]>(body.join('\n'), { delimiter, skipEmptyLines: 'greedy' });
  const read = data.map((cells) => cells.map((cell) => (cell.trim() === '' ? NaN : figure(cell.trim()))));
  const rows = read.filter((row) => row.some((one) => Number.isFinite(one)));
  const damaged = read.length - rows.length;
  if (damaged > SOME + DAMAGED * rows.length)
    throw new InputError('trace', `${damaged} of its rows are no figures`);
  if (rows.length < LEAST_POINTS)
    throw new InputError(
      'trace',
      `has ${rows.length} points; ${LEAST_POINTS} are the least that show anything`,
    );
  return tableOf(rows, head.map(cellsOf));
}

function delimiterOf(lines: readonly string[]): string {
  const sample = lines.slice(0, 400).filter((line) => /\d/.test(line));
  const count = (sign: string) => sample.filter((line) => line.includes(sign)).length;
  if (count('\t') > sample.length / 2) return '\t';
  if (count(';') > sample.length / 2) return ';';
  // `0,5 1,2` is two figures with decimal commas, not four.
  const blanks = sample.filter((line) => /^\s*\S+\s+\S+/.test(line) && !/,\s/.test(line.trim())).length;
  if (blanks > sample.length / 2 && !sample.every((line) => /^[^\s]*,[^\s]*$/.test(line.trim()))) return ' ';
  return ',';
}

function tableOf(rows: readonly number[][], head: readonly string[][]): TraceFile {
  const width = Math.max(...rows.slice(0, 50).map((row) => row.filter((one) => Number.isFinite(one)).length));
  const titles =
    head.findLast((cells) => cells.length >= width && cells.some((cell) => /[a-z]/i.test(cell))) ?? [];
  const units = head.filter((cells) => cells.length >= width).flatMap((cells) => [cells]);
  const unitAt = (column: number, known: Readonly<Record<string, unknown>>) => {
    for (const cells of units.toReversed()) {
      const cell = cells[column] ?? '';
      const named = /[([]\s*([^)\]]+?)\s*[)\]]/.exec(cell)?.[1] ?? cell;
      const unit = named.trim().toLowerCase();
      if (Object.hasOwn(known, unit)) return unit;
    }
    return null;
  };
  const step = width === 1 ? stepIn(head) : null;
  if (width === 1 && step === null)
    throw new InputError(
      'trace',
      'has one column and no sample interval; give the seconds of each value too',
    );
  const timeScale = step === null ? (TIME_SCALE[unitAt(0, TIME_SCALE) ?? 's'] ?? 1) : 1;
  const times = rows.map((row, at) => (step === null ? row[0]! * timeScale : at * step));
  const rising = times.map((at, k) => Number.isFinite(at) && (k === 0 || at > times[k - 1]!));
  // An instrument that rounds its clock writes a moment twice.
  const kept = rows.map((_row, k) => k).filter((k) => rising[k]);
  if (kept.length < 0.5 * rows.length)
    throw new InputError('trace', 'its first column does not rise; it has to be the time');
  const columns = step === null ? Array.from({ length: width - 1 }, (_one, k) => k + 1) : [0];
  const channels = columns.map((column, k): TraceChannel => {
    const known = VALUE_SCALE[unitAt(column, VALUE_SCALE) ?? ''];
    const title = (titles[column] ?? '').replace(/[([].*$/, '').trim();
    return {
      name: title === '' || Object.hasOwn(VALUE_SCALE, title.toLowerCase()) ? `channel ${k + 1}` : title,
      quantity: known?.quantity ?? null,
      values: kept.map((row) => (rows[row]![column] ?? NaN) * (known?.by ?? 1)),
    };
  });
  const whole = channels.filter(({ values }) => values.every((value) => Number.isFinite(value)));
  if (whole.length === 0) throw new InputError('trace', 'no column has a value in every row');
  return { seconds: kept.map((row) => times[row]!), channels: whole };
}

/** Seconds between two values, from a line about the instrument. */
function stepIn(head: readonly string[][]): number | null {
  for (const cells of head) {
    const [name = '', value = '', unit = ''] = cells;
    if (/interval|increment|period|delta ?t|^dt$/i.test(name) && Number(value) > 0)
      return Number(value) * (TIME_SCALE[unit.toLowerCase()] ?? 1);
    if (/sample ?rate|samples? per second|frequency/i.test(name) && Number(value) > 0)
      return 1 / Number(value);
  }
  return null;
}

/** One channel of a file as a trace. */
export function channelTrace({ seconds, channels }: TraceFile, at: number): Trace {
  return { seconds, values: channels[at]!.values };
}
