'use client';

import { useMemo } from 'react';
import {
  createColumnHelper,
  createSortedRowModel,
  rowSortingFeature,
  tableFeatures,
  useTable,
  type Header,
  type Row,
} from '@tanstack/react-table';
import { ArrowDown, ArrowUp } from 'lucide-react';
import type { JobSheet, SheetCell, SheetRow } from '@/core/sheets/onCircuit/jobSheet';
import type { AnyVerdict } from '@/core/sheets/onCircuit/verdicts';
import { cellWords, columnWords, rowTitle, sheetVerdictWords, verdictTone } from '@/words/en/sheets';
import { outputGround } from '@/ui/outputGround';
import { useDesk } from '../desk/desk';

const TONE = {
  good: 'text-verdi',
  watch: 'bg-copper-t text-copper-ink',
  bad: 'bg-stamp-t text-stamp',
} as const;

const features = tableFeatures({ rowSortingFeature, sortedRowModel: createSortedRowModel() });
type Features = typeof features;
const helper = createColumnHelper<Features, SheetRow>();
/** What the sheet says of a row, the worst first. */
const WORST = ['bad', 'watch', 'good'] as const;

/** By what an accessor gives; what is not known stands last whichever way. */
function byValue(a: Row<Features, SheetRow>, b: Row<Features, SheetRow>, column: string): number {
  const [one, two] = [a.getValue<number>(column), b.getValue<number>(column)];
  return one === two ? 0 : one - two;
}

/** Place of a cell in its column: the figure; over range above all; nothing where it was not read. */
function placeOf(cell: SheetCell | null | undefined): number | undefined {
  const value = cell?.value;
  if (value === null || value === undefined) return undefined;
  if (typeof value === 'number') return Math.abs(value);
  if (value === 'OL') return Infinity;
  if (value === 'weak') return 0.5;
  return value === true || value === 'works' ? 1 : 0;
}

/** A sheet's cells, of which one is chosen. */
export interface GridProps {
  sheet: JobSheet;
  at: readonly [number, number] | null;
  onChoose: (at: [number, number]) => void;
}

/** From so many columns of figures on there is no room for words beside them. */
const CROWDED = 6;

/** Rows by columns: what was read, and where nothing was, what the sound machine shows there. A head sorts by its column. */
export function SheetGrid({ sheet, at, onChoose }: GridProps) {
  const { speaker } = useDesk();
  // The last of many columns would be out of sight, or a finger wide: it stands under the name there, on a phone always.
  const crowded = sheet.columns.length >= CROWDED;
  const wide = crowded ? 'hidden' : 'max-tablet:hidden';
  const full = sheet.name === 'outputs' ? fullOf(sheet) : null;
  const columns = useMemo(
    () =>
      helper.columns([
        ...sheet.columns.map((column, c) =>
          helper.accessor((row) => placeOf(row.cells[c]), {
            id: `c${c}`,
            header: columnWords(column),
            sortFn: byValue,
            sortDescFirst: false,
            sortUndefined: 'last',
          }),
        ),
        helper.accessor(
          ({ verdict }) => {
            const tone = verdictTone(verdict);
            return tone === null ? undefined : WORST.indexOf(tone);
          },
          { id: 'says', header: 'It says', sortFn: byValue, sortDescFirst: false, sortUndefined: 'last' },
        ),
      ]),
    [sheet.columns],
  );
  const table = useTable({ features, columns, data: sheet.rows });
  const heads = table.getHeaderGroups()[0]!.headers;
  return (
    <div className="max-h-[60vh] overflow-auto print:max-h-none print:overflow-visible">
      <table className="w-full border-collapse text-left">
        <thead className="sticky top-0 bg-film text-[15px] text-ink2">
          <tr className="border-b-[1.5px] border-rule">
            <th className="min-w-[88px] py-1 font-[550]">
              {sheet.name === 'outputs' ? 'Commanded' : 'What'}
            </th>
            {heads.map((header) => (
              <Head key={header.id} header={header} className={header.id === 'says' ? wide : ''} />
            ))}
          </tr>
        </thead>
        <tbody>
          {table.getRowModel().rows.map(({ original: row, index: r }) => {
            const tone = verdictTone(row.verdict);
            return (
              <tr
                key={`${row.name} ${row.cut ?? ''} ${row.check ?? ''}`}
                className="border-b-[1.5px] border-rule"
                data-testid="sheet-row"
                data-verdict={row.verdict ?? ''}
              >
                <th scope="row" className="fig-bold py-1 pr-2 text-[16px] font-normal">
                  {rowTitle(speaker, sheet, row)}
                  {row.verdict !== null ? (
                    <span
                      className={`-ml-1 block px-1 text-[15px] leading-[18px] font-[650] ${crowded ? '' : 'tablet:hidden'} ${tone ? TONE[tone] : 'text-ink2'}`}
                    >
                      <Says sheet={sheet} verdict={row.verdict} />
                    </span>
                  ) : null}
                </th>
                {row.cells.map((cell, c) => (
                  <td key={sheet.columns[c]} className="p-0.5">
                    {cell ? (
                      <CellKey
                        label={`${rowTitle(speaker, sheet, row)}, ${columnWords(sheet.columns[c]!)}`}
                        cell={cell}
                        chosen={at?.[0] === r && at[1] === c}
                        ground={
                          full === null
                            ? (CELL_GROUND[sheet.verdicts?.[r]?.[c] ?? ''] ?? '')
                            : `${r === c ? 'border-solid! border-ink!' : ''} ${cell.value === null ? '' : outputGround(sizeOf(cell.value), full)}`
                        }
                        onChoose={() => onChoose([r, c])}
                      />
                    ) : (
                      <span className="block px-2 text-[15px] text-ink2" title="Nothing may be read here">
                        –
                      </span>
                    )}
                  </td>
                ))}
                <td
                  className={`px-2 text-[16px] leading-[19px] font-[650] ${wide} ${tone ? TONE[tone] : 'text-ink2'}`}
                >
                  <Says sheet={sheet} verdict={row.verdict} />
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}

function Head({ header, className }: { header: Header<Features, SheetRow>; className: string }) {
  const { column } = header;
  const sorted = column.getIsSorted();
  const words = String(column.columnDef.header);
  return (
    <th
      className={`px-2 py-0 font-[550] ${className}`}
      aria-sort={sorted === false ? 'none' : sorted === 'asc' ? 'ascending' : 'descending'}
    >
      <button
        type="button"
        className="flex min-h-11 items-center gap-1 text-left font-[550]"
        onClick={column.getToggleSortingHandler()}
      >
        {words}
        {sorted === 'asc' ? <ArrowUp size={16} aria-hidden /> : null}
        {sorted === 'desc' ? <ArrowDown size={16} aria-hidden /> : null}
      </button>
    </th>
  );
}

function Says({ sheet, verdict }: { sheet: JobSheet; verdict: AnyVerdict | null }) {
  const tone = verdictTone(verdict);
  return (
    <>
      {tone === 'good' ? '✓ ' : tone === 'bad' ? '✕ ' : ''}
      {sheetVerdictWords(sheet.name, verdict)}
    </>
  );
}

/** Of a sheet that judges each cell by itself. */
const CELL_GROUND: Readonly<Record<string, string>> = { bad: 'bg-stamp-t text-stamp', good: 'bg-verdi-t' };

/** Volts of an output that is on, as drawn. */
function fullOf({ rows }: JobSheet): number {
  const drawn = rows.flatMap(({ cells }) => cells.map((cell) => sizeOf(cell?.expected)));
  return Math.max(...drawn, 1);
}

function sizeOf(value: SheetCell['value'] | undefined): number {
  return typeof value === 'number' ? Math.abs(value) : 0;
}

function CellKey({
  label,
  cell,
  chosen,
  ground,
  onChoose,
}: {
  label: string;
  cell: SheetCell;
  chosen: boolean;
  /** Classes of what the figure lies on. */
  ground: string;
  onChoose: () => void;
}) {
  const { speaker } = useDesk();
  const words = (value: SheetCell['expected']) => cellWords(speaker, cell.test, value);
  return (
    <button
      type="button"
      aria-label={`${label}: ${cell.value === null ? `not read, sound ${words(cell.expected)}` : words(cell.value)}`}
      aria-pressed={chosen}
      data-read={cell.value !== null}
      onClick={onChoose}
      className={`fig flex min-h-11 w-full min-w-[76px] items-center justify-center gap-1.5 border-[1.5px] px-1.5 text-[16px] whitespace-nowrap ${
        chosen
          ? 'border-[3px] border-pencil'
          : cell.value === null
            ? 'border-dashed border-edge'
            : 'border-transparent'
      } ${ground}`}
    >
      {cell.value === null ? (
        <>
          <span aria-hidden className="inline-block size-2 rounded-full border-[1.5px] border-edge" />
          <span className="text-[15px] font-normal text-ink2">{words(cell.expected)}</span>
        </>
      ) : (
        <strong>{words(cell.value)}</strong>
      )}
    </button>
  );
}
