'use client';

import { useVirtualizer } from '@tanstack/react-virtual';
import { useRef, type ClipboardEvent, type KeyboardEvent } from 'react';
import { pastedRows } from '@/formats/table';
import { outputGround } from '@/ui/outputGround';
import { Field, FIELD, PlainKey } from '@/ui/sheet';
import { namesOf, pasteInto, voltsIn, type Draft } from './benchDraft';
import type { Next } from '@/core/sheets/sheet';
import type { Column, FieldSpec } from './benchSpecs';

interface Props<S extends FieldSpec = FieldSpec> {
  spec: S;
  draft: Draft;
  /** What the sheet asks for next: a cell of a grid stands out. */
  asked: Next | null;
  onChange: (draft: Draft) => void;
}

/** One field of a sheet: a figure, a choice, names, a table or a grid. */
export function BenchField({ spec, ...more }: Props) {
  switch (spec.kind) {
    case 'table':
      return <TableField spec={spec} {...more} />;
    case 'grid':
      return <GridField spec={spec} {...more} />;
    case 'byName':
      return <ByNameField spec={spec} {...more} />;
    default:
      return <PlainField spec={spec} {...more} />;
  }
}

const YES_NO = [
  ['yes', 'yes'],
  ['no', 'no'],
] as const;

function PlainField({
  spec,
  draft,
  onChange,
}: Props<Exclude<FieldSpec, { kind: 'table' | 'grid' | 'byName' }>>) {
  const value = draft.fields[spec.field] ?? '';
  const set = (next: string) => onChange({ ...draft, fields: { ...draft.fields, [spec.field]: next } });
  const unit = 'unit' in spec && spec.unit ? `, ${spec.unit}` : '';
  const wide = spec.kind === 'figures' || spec.kind === 'names';
  return (
    <Field label={`${spec.label}${unit}`} className={wide ? 'col-span-full' : ''}>
      {spec.kind === 'choice' || spec.kind === 'yesNo' ? (
        <Choice
          value={value}
          options={spec.kind === 'choice' ? spec.options : YES_NO}
          unset={spec.kind === 'choice' ? spec.unset : undefined}
          onChange={set}
        />
      ) : (
        <input
          className={`${FIELD} ${spec.kind === 'names' || spec.kind === 'text' ? '' : 'fig'}`}
          value={value}
          maxLength={4000}
          inputMode={spec.kind === 'figure' ? 'text' : undefined}
          placeholder={spec.kind === 'names' ? spec.hint : ''}
          onChange={(event) => set(event.target.value)}
          onKeyDown={toNextCell}
        />
      )}
    </Field>
  );
}

function Choice({
  label,
  value,
  options,
  unset = 'not known',
  onChange,
}: {
  label?: string;
  unset?: string | undefined;
  value: string;
  options: readonly (readonly [string, string])[];
  onChange: (value: string) => void;
}) {
  return (
    <select
      className={FIELD}
      aria-label={label}
      value={value}
      onChange={(event) => onChange(event.target.value)}
    >
      <option value="">{unset}</option>
      {options.map(([one, words]) => (
        <option key={one} value={one}>
          {words}
        </option>
      ))}
    </select>
  );
}

const CELL = 'block min-h-11 w-full min-w-[74px] border-[1.5px] border-edge bg-sheet px-2 text-[16px]';

/** Up to here every line stands on the page; of more only those that are near. */
const ALL_AT_ONCE = 60;
/** A line with its room, and what a test takes for the table's window, pixels. */
const ROW_HEIGHT = 48;
const FIRST_RECT = { width: 600, height: 480 };

function TableField({ spec, draft, onChange }: Props<Extract<FieldSpec, { kind: 'table' }>>) {
  const stored = draft.tables[spec.field] ?? [];
  // One line more than is filled: there is always one to go on in.
  const rows = [...stored, {} as Record<string, string>];
  const put = (next: Record<string, string>[]) =>
    onChange({ ...draft, tables: { ...draft.tables, [spec.field]: trimmed(next) } });
  const set = (at: number, key: string, value: string) =>
    put(rows.map((row, k) => (k === at ? { ...row, [key]: value } : row)));
  const paste = (event: ClipboardEvent, row: number, key: string) => {
    const pasted = pastedRows(event.clipboardData.getData('text'));
    if (pasted === null) return;
    event.preventDefault();
    put(
      pasteInto(
        stored,
        spec.columns.map((one) => one.key),
        { row, key },
        pasted,
      ),
    );
  };
  const scroller = useRef<HTMLDivElement>(null);
  const long = rows.length > ALL_AT_ONCE;
  const virtual = useVirtualizer({
    count: rows.length,
    enabled: long,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW_HEIGHT,
    overscan: 10,
    initialRect: FIRST_RECT,
  });
  const near = virtual.getVirtualItems();
  const shown = long ? near.map(({ index }) => index) : rows.map((_row, at) => at);
  return (
    <div
      ref={scroller}
      className={`col-span-full overflow-x-auto pt-1 ${long ? 'max-h-[60vh] overflow-y-auto' : ''}`}
    >
      <table
        className="w-full border-collapse text-left"
        aria-label={spec.label}
        aria-rowcount={rows.length + 1}
      >
        <caption className="pb-1 text-left text-[15.5px] font-[700]">{spec.label}</caption>
        <thead className="text-[15px] text-ink2">
          <tr>
            {spec.columns.map((column) => (
              <th key={column.key} className="px-0.5 font-[550]">
                {column.label}
                {'unit' in column && column.unit ? `, ${column.unit}` : ''}
              </th>
            ))}
            <th aria-label="Take the line out" />
          </tr>
        </thead>
        <tbody>
          {long ? <Gap pixels={near[0]?.start ?? 0} /> : null}
          {shown.map((at) => (
            <tr key={at} aria-rowindex={at + 2}>
              {spec.columns.map((column) => (
                <td key={column.key} className="p-0.5 align-top">
                  <TableCell
                    column={column}
                    label={`${column.label}, line ${at + 1}`}
                    value={rows[at]?.[column.key] ?? ''}
                    onChange={(value) => set(at, column.key, value)}
                    onPaste={(event) => paste(event, at, column.key)}
                  />
                </td>
              ))}
              <td className="w-11 p-0.5 align-top print:hidden">
                {at < stored.length ? (
                  <PlainKey
                    className="px-3!"
                    aria-label={`Take out line ${at + 1}`}
                    onClick={() => put(stored.filter((_row, k) => k !== at))}
                  >
                    ×
                  </PlainKey>
                ) : null}
              </td>
            </tr>
          ))}
          {long ? <Gap pixels={virtual.getTotalSize() - (near.at(-1)?.end ?? 0)} /> : null}
        </tbody>
      </table>
    </div>
  );
}

/** The room of lines that are not on the page. */
function Gap({ pixels }: { pixels: number }) {
  return pixels > 0 ? (
    <tr aria-hidden style={{ height: pixels }}>
      <td />
    </tr>
  ) : null;
}

function TableCell({
  column,
  label,
  value,
  onChange,
  onPaste,
}: {
  column: Column;
  label: string;
  value: string;
  onChange: (value: string) => void;
  onPaste: (event: ClipboardEvent) => void;
}) {
  if (column.kind === 'choice' || column.kind === 'yesNo')
    return (
      <Choice
        label={label}
        value={value}
        options={column.kind === 'choice' ? column.options : YES_NO}
        onChange={onChange}
      />
    );
  return (
    <input
      className={`${CELL} ${column.kind === 'figure' ? 'fig' : ''}`}
      aria-label={label}
      value={value}
      maxLength={2000}
      onChange={(event) => onChange(event.target.value)}
      onPaste={onPaste}
      onKeyDown={toNextCell}
    />
  );
}

function GridField({ spec, draft, asked, onChange }: Props<Extract<FieldSpec, { kind: 'grid' }>>) {
  const names = namesOf(draft.fields[spec.names]) ?? [];
  const master = draft.fields['master']?.trim();
  const columns = master && !names.includes(master) ? [...names, master] : names;
  if (names.length === 0) return null;
  return (
    <Grid
      label={spec.label}
      corner="Commanded"
      rows={names}
      columns={columns.map((name) => ({ key: name, label: name }))}
      cells={draft.grids[spec.field] ?? {}}
      full={fullOf(draft)}
      asked={
        isCell(asked) && (asked.how === 'lowImpedance') === (spec.field === 'lowImpedance') ? asked : null
      }
      onChange={(cells) => onChange({ ...draft, grids: { ...draft.grids, [spec.field]: cells } })}
    />
  );
}

const isCell = (next: Next | null): next is Extract<Next, { commanded: string }> =>
  typeof next === 'object' && next !== null && 'commanded' in next;

/** What a live output stands at; nothing while the supply is not typed. */
function fullOf(draft: Draft): number | null {
  const volts = voltsIn(draft.fields['supplyVolts']);
  return volts === null || volts === 0 ? null : volts;
}

function ByNameField({ spec, draft, onChange }: Props<Extract<FieldSpec, { kind: 'byName' }>>) {
  const names = namesOf(draft.fields[spec.names]) ?? [];
  if (names.length === 0) return null;
  return (
    <Grid
      label={spec.label}
      corner=""
      rows={names}
      columns={spec.columns}
      cells={draft.grids[spec.label] ?? {}}
      onChange={(cells) => onChange({ ...draft, grids: { ...draft.grids, [spec.label]: cells } })}
    />
  );
}

function Grid({
  label,
  corner,
  rows,
  columns,
  cells,
  full = null,
  asked = null,
  onChange,
}: {
  /** Volts that count as all there is: cells are tinted by what they have of it. */
  full?: number | null;
  asked?: { commanded: string; measured: string } | null;
  label: string;
  corner: string;
  rows: readonly string[];
  columns: readonly { key: string; label: string; unit?: string }[];
  cells: Readonly<Record<string, Record<string, string>>>;
  onChange: (cells: Record<string, Record<string, string>>) => void;
}) {
  return (
    <div className="col-span-full overflow-x-auto pt-1">
      <table className="border-collapse text-left" aria-label={label}>
        <caption className="pb-1 text-left text-[15.5px] font-[700]">{label}</caption>
        <thead className="text-[15px] text-ink2">
          <tr>
            <th className="pr-2 font-[550]">{corner}</th>
            {columns.map((column) => (
              <th key={column.key} className="px-0.5 font-[550]">
                {column.label}
                {column.unit ? `, ${column.unit}` : ''}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row}>
              <th className="fig-bold pr-2 text-[16px]">{row}</th>
              {columns.map((column) => (
                <td key={column.key} className="p-0.5">
                  <input
                    className={`${CELL} fig ${
                      asked?.commanded === row && asked.measured === column.key
                        ? 'border-[3px] border-pencil'
                        : row === column.key
                          ? 'border-[2.5px] border-ink'
                          : ''
                    } ${tintOf(cells[row]?.[column.key], full)}`}
                    aria-label={`${row}, ${column.label}`}
                    value={cells[row]?.[column.key] ?? ''}
                    maxLength={40}
                    onChange={(event) =>
                      onChange({ ...cells, [row]: { ...cells[row], [column.key]: event.target.value } })
                    }
                    onKeyDown={toNextCell}
                  />
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function tintOf(typed: string | undefined, full: number | null): string {
  const volts = voltsIn(typed);
  if (full === null || volts === null) return '';
  return outputGround(volts, full);
}

/** Lines at the end that hold nothing are none. */
function trimmed(rows: readonly Record<string, string>[]): Record<string, string>[] {
  const last = rows.findLastIndex((row) => Object.values(row).some((one) => one.trim() !== ''));
  return rows.slice(0, last + 1);
}

/** Enter goes on to the next cell of the sheet. */
function toNextCell(event: KeyboardEvent<HTMLInputElement>): void {
  if (event.key !== 'Enter') return;
  event.preventDefault();
  const section = event.currentTarget.closest('section');
  const fields = [...(section?.querySelectorAll<HTMLElement>('input:not([type=file]),select') ?? [])];
  fields[fields.indexOf(event.currentTarget) + 1]?.focus();
}
