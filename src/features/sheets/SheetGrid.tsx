'use client';

import type { JobSheet, SheetCell } from '@/core/sheets/onCircuit/jobSheet';
import { cellWords, columnWords, rowTitle, sheetVerdictWords, verdictTone } from '@/words/en/sheets';
import { outputGround } from '@/ui/outputGround';
import { useDesk } from '../desk/desk';

const TONE = {
  good: 'text-verdi',
  watch: 'bg-copper-t text-copper-ink',
  bad: 'bg-stamp-t text-stamp',
} as const;

/** Rows by columns: what was read, and where nothing was, what the sound machine shows there. */
export function SheetGrid({
  sheet,
  at,
  onChoose,
}: {
  sheet: JobSheet;
  at: readonly [number, number] | null;
  onChoose: (at: [number, number]) => void;
}) {
  const { speaker } = useDesk();
  // On a phone the last of many columns would be out of sight: it stands under the name there.
  const wide = sheet.columns.length > 2 ? 'max-tablet:hidden' : '';
  const full = sheet.name === 'outputs' ? fullOf(sheet) : null;
  return (
    <div className="max-h-[60vh] overflow-auto">
      <table className="w-full border-collapse text-left">
        <thead className="sticky top-0 bg-film text-[15px] text-ink2">
          <tr className="border-b-[1.5px] border-rule">
            <th className="min-w-[88px] py-1 font-[550]">
              {sheet.name === 'outputs' ? 'Commanded' : 'What'}
            </th>
            {sheet.columns.map((column) => (
              <th key={column} className="px-2 py-1 font-[550]">
                {columnWords(column)}
              </th>
            ))}
            <th className={`px-2 py-1 font-[550] ${wide}`}>It says</th>
          </tr>
        </thead>
        <tbody>
          {sheet.rows.map((row, r) => {
            const tone = verdictTone(row.verdict);
            return (
              <tr
                key={`${row.name} ${row.cut ?? ''} ${row.check ?? ''}`}
                className="border-b-[1.5px] border-rule"
                data-testid="sheet-row"
                data-verdict={row.verdict ?? ''}
              >
                <th className="fig-bold py-1 pr-2 text-[16px] font-normal">
                  {rowTitle(speaker, sheet, row)}
                  {wide && row.verdict !== null ? (
                    <span
                      className={`-ml-1 block px-1 text-[15px] leading-[18px] font-[650] tablet:hidden ${tone ? TONE[tone] : 'text-ink2'}`}
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
                            ? ''
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

function Says({ sheet, verdict }: { sheet: JobSheet; verdict: string | null }) {
  const tone = verdictTone(verdict);
  return (
    <>
      {tone === 'good' ? '✓ ' : tone === 'bad' ? '✕ ' : ''}
      {sheetVerdictWords(sheet.name, verdict)}
    </>
  );
}

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
