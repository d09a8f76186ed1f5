import { InputError } from '@/core/circuit/inputError';
import { heldAgainst, type HeldRow } from '@/core/sheets/heldAgainst';
import { parseSheet } from '@/core/sheets/parseSheet';
import type { SheetAnswer } from '@/core/sheets/sheet';
import { computeSheet, type SheetName } from '@/core/sheets/sheets';
import { shopMarks, type ShopMarks } from '@/core/tables/marks';
import { parseFigure } from '@/core/units/parseFigure';
import { parseReading } from '@/core/units/parseReading';
import { baseUnit, type Quantity } from '@/core/units/quantities';
import { readAs } from '@/core/units/readAs';
import { BENCH_FORMS, type Column, type FieldSpec } from './benchSpecs';

/** A sheet as it is being typed: every field as text, tables row by row. */
export interface Draft {
  fields: Record<string, string>;
  tables: Record<string, Record<string, string>[]>;
  /** By row and column name. */
  grids: Record<string, Record<string, Record<string, string>>>;
}

export const BLANK: Draft = { fields: {}, tables: {}, grids: {} };

export type BenchResult =
  | { ok: true; document: object; answer: SheetAnswer & Record<string, unknown>; held: HeldRow[] }
  | { ok: false; trouble: string };

/** What a draft amounts to: the sheet's document and its answer, or the first thing that is wrong with what was typed. */
export function computeDraft(sheet: SheetName, draft: Draft, marks: ShopMarks = shopMarks({})): BenchResult {
  try {
    const document = documentOf(sheet, draft);
    const parsed = parseSheet(document);
    const answer = computeSheet(parsed, marks) as SheetAnswer & Record<string, unknown>;
    return { ok: true, document, answer, held: heldAgainst(parsed, answer, marks) };
  } catch (error) {
    if (error instanceof InputError) return { ok: false, trouble: error.message };
    throw error;
  }
}

/** A sheet's document out of what was typed; what was left empty is not in it. Throws `InputError` for what is no figure. */
export function documentOf(sheet: SheetName, draft: Draft): object {
  const document: Record<string, unknown> = { format: 'spiraxis-sheet', version: 1, sheet };
  for (const spec of BENCH_FORMS[sheet]) fill(document, spec, draft);
  return document;
}

function fill(document: Record<string, unknown>, spec: FieldSpec, draft: Draft): void {
  switch (spec.kind) {
    case 'figure':
      return put(document, spec.field, figureOf(draft.fields[spec.field], spec.label, spec.quantity));
    case 'figures':
      return put(document, spec.field, figuresOf(draft.fields[spec.field], spec.label, spec.quantity));
    case 'choice':
    case 'text':
      return put(document, spec.field, wordOf(draft.fields[spec.field]));
    case 'yesNo':
      return put(document, spec.field, yesNoOf(draft.fields[spec.field]));
    case 'names':
      return put(document, spec.field, namesOf(draft.fields[spec.field]));
    case 'table': {
      const rows = (draft.tables[spec.field] ?? []).filter((row) =>
        Object.values(row).some((one) => one.trim() !== ''),
      );
      if (rows.length === 0) return;
      const list = rows.map((row, at) => rowOf(row, spec.columns, `${spec.label}, line ${at + 1}`));
      if (!spec.columnArrays) return put(document, spec.field, list);
      for (const { key } of spec.columns)
        put(
          document,
          key,
          list.map((row) => row[key]),
        );
      return;
    }
    case 'byName':
      for (const { key, label, quantity } of spec.columns) {
        const table: Record<string, unknown> = {};
        for (const [name, cells] of Object.entries(draft.grids[spec.label] ?? {})) {
          const value = figureOf(cells[key], `${label}, ${name}`, quantity);
          if (value !== undefined) table[name] = value;
        }
        if (Object.keys(table).length > 0) put(document, key, table);
      }
      return;
    case 'grid': {
      const table: Record<string, Record<string, unknown>> = {};
      for (const [row, cells] of Object.entries(draft.grids[spec.field] ?? {}))
        for (const [column, typed] of Object.entries(cells)) {
          const value = figureOf(typed, `${row}, ${column}`, spec.quantity);
          if (value !== undefined) (table[row] ??= {})[column] = value;
        }
      if (Object.keys(table).length > 0) put(document, spec.field, table);
      return;
    }
  }
}

/** Puts a value at a path of names; nothing stays away. */
function put(document: Record<string, unknown>, path: string, value: unknown): void {
  if (value === undefined) return;
  const [first, ...rest] = path.split('.') as [string, ...string[]];
  if (rest.length === 0) document[first] = value;
  else put((document[first] ??= {}) as Record<string, unknown>, rest.join('.'), value);
}

function rowOf(
  row: Readonly<Record<string, string>>,
  columns: readonly Column[],
  where: string,
): Record<string, unknown> {
  const made: Record<string, unknown> = {};
  for (const column of columns) {
    const typed = row[column.key];
    const value =
      column.kind === 'figure'
        ? figureOf(typed, `${where}, ${column.label}`, column.quantity)
        : column.kind === 'figures'
          ? figuresOf(typed, `${where}, ${column.label}`, column.quantity)
          : column.kind === 'yesNo'
            ? yesNoOf(typed)
            : column.kind === 'names'
              ? namesOf(typed)
              : wordOf(typed);
    if (value !== undefined) made[column.key] = value;
  }
  return made;
}

function wordOf(typed: string | undefined): string | undefined {
  const word = typed?.trim() ?? '';
  return word === '' ? undefined : word;
}

function yesNoOf(typed: string | undefined): boolean | undefined {
  return typed === 'yes' ? true : typed === 'no' ? false : undefined;
}

/** Names with commas, semicolons or line ends between them. */
export function namesOf(typed: string | undefined): string[] | undefined {
  const names = (typed ?? '')
    .split(/[,;\n]/)
    .map((one) => one.trim())
    .filter((one) => one !== '');
  return names.length > 0 ? names : undefined;
}

function figuresOf(
  typed: string | undefined,
  label: string,
  quantity: Quantity | undefined,
): (number | 'OL')[] | undefined {
  const pieces = (typed ?? '').split(/[;\s]+/).filter((one) => one !== '');
  return pieces.length > 0 ? pieces.map((one) => figureOf(one, label, quantity)!) : undefined;
}

const INSTRUMENT = /^-?\d+(\.\d+)?e[+-]?\d{1,3}$/i;
const SIGNS: Partial<Record<Quantity, string>> = { ohms: 'ohm', volts: 'V', amps: 'A' };

/** A figure as a meter shows it, or a plain one. Throws `InputError` for anything else, with what was typed. */
function figureOf(
  typed: string | undefined,
  label: string,
  quantity: Quantity | undefined,
): number | 'OL' | undefined {
  const text = typed?.trim() ?? '';
  if (text === '') return undefined;
  if (quantity === undefined) {
    const plain = parseFigure(text);
    if (plain.is === 'figure') return plain.value;
    // No person types an exponent; instruments write small figures so.
    if (INSTRUMENT.test(text)) return Number(text);
    throw new InputError(label, `“${text}” is no figure; type it as 27.4`);
  }
  const read = parseReading(text);
  if (!read)
    throw new InputError(label, `“${text}” is no reading; type it as the meter shows it: 27.4, 4k7, OL`);
  if (read.unit !== undefined && read.unit !== SIGNS[quantity])
    throw new InputError(label, `“${text}” is another quantity; ${quantity} are wanted`);
  return read.overRange ? 'OL' : read.value;
}

/** Volts that were typed in a cell, as the sheet takes them; null where it holds none. */
export function voltsIn(typed: string | undefined): number | null {
  const read = readAs('volts', typed ?? '', baseUnit('volts'));
  return read.ok ? Math.abs(read.value) : null;
}

/** Rows of a spreadsheet, pasted: into a table from one cell on, downwards and to the right. */
export function pasteInto(
  rows: readonly Readonly<Record<string, string>>[],
  keys: readonly string[],
  at: { row: number; key: string },
  pasted: readonly (readonly string[])[],
): Record<string, string>[] {
  const filled = rows.map((row) => ({ ...row }));
  const first = keys.indexOf(at.key);
  pasted.forEach((cells, down) => {
    const row = (filled[at.row + down] ??= {});
    cells.forEach((cell, right) => {
      const key = keys[first + right];
      if (key !== undefined) row[key] = cell.trim();
    });
  });
  return filled.map((row) => row ?? {});
}

/** Whether something kept on the tablet is a draft at all. */
export function isDraft(value: unknown): value is Draft {
  if (typeof value !== 'object' || value === null) return false;
  return ['fields', 'tables', 'grids'].every(
    (key) => typeof (value as Record<string, unknown>)[key] === 'object',
  );
}

/** A sheet's document as it would have been typed. Throws `InputError` for a document of another sheet, or none. */
export function draftOf(sheet: SheetName, data: unknown): Draft {
  const parsed = parseSheet(data) as unknown as Record<string, unknown>;
  if (parsed['sheet'] !== sheet)
    throw new InputError('sheet', `this file is a sheet "${String(parsed['sheet'])}"; open it there`);
  const draft: Draft = { fields: {}, tables: {}, grids: {} };
  const at = (path: string) =>
    path
      .split('.')
      .reduce<unknown>((value, key) => (value as Record<string, unknown> | undefined)?.[key], data);
  for (const spec of BENCH_FORMS[sheet]) {
    switch (spec.kind) {
      case 'table': {
        const list = spec.columnArrays ? columnsOf(spec.columns, at) : at(spec.field);
        if (Array.isArray(list))
          draft.tables[spec.field] = list.map((row: Record<string, unknown>) =>
            Object.fromEntries(
              spec.columns.map(({ key, kind }) => [key, typed(row[key], kind === 'figures' ? ' ' : ', ')]),
            ),
          );
        break;
      }
      case 'byName':
        for (const { key } of spec.columns)
          for (const [name, value] of Object.entries((at(key) ?? {}) as Record<string, unknown>))
            ((draft.grids[spec.label] ??= {})[name] ??= {})[key] = typed(value);
        break;
      case 'grid':
        for (const [row, cells] of Object.entries(
          (at(spec.field) ?? {}) as Record<string, Record<string, unknown>>,
        ))
          for (const [column, value] of Object.entries(cells))
            ((draft.grids[spec.field] ??= {})[row] ??= {})[column] = typed(value);
        break;
      default:
        if (at(spec.field) !== undefined && at(spec.field) !== null)
          draft.fields[spec.field] = typed(at(spec.field), spec.kind === 'figures' ? ' ' : ', ');
    }
  }
  return draft;
}

function columnsOf(columns: readonly Column[], at: (path: string) => unknown): Record<string, unknown>[] {
  const lists = columns.map(({ key }) => [key, (at(key) ?? []) as unknown[]] as const);
  const most = Math.max(...lists.map(([, list]) => list.length));
  return Array.from({ length: most }, (_one, k) =>
    Object.fromEntries(lists.map(([key, list]) => [key, list[k]])),
  );
}

function typed(value: unknown, between = ', '): string {
  if (value === undefined || value === null) return '';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  return Array.isArray(value) ? value.join(between) : String(value as string | number);
}
