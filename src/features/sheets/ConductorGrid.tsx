'use client';

import type { InsulationVerdict } from '@/core/sheets/insulation/insulation';
import type { SheetCell } from '@/core/sheets/onCircuit/jobSheet';
import type { Reading } from '@/core/circuit/schema';
import { LeakMatrix, type LeakCell } from '@/ui/LeakMatrix';
import { ohmsWords } from '@/words/en/readings';
import { sheetVerdictWords } from '@/words/en/sheets';
import type { GridProps } from './SheetGrid';

/** The conductors of the job's circuit by each other and the frame; a pair is read by pressing it. */
export function ConductorGrid({ sheet, at, onChoose }: GridProps) {
  const frame = sheet.columns.length - 1;
  /** The frame is the last column of the sheet, and the last row of the picture. */
  const placeOf = (row: number, column: number): [number, number] =>
    row === frame ? [column, frame] : [row, column];
  const cellAt = ([row, column]: readonly [number, number]): SheetCell | null =>
    sheet.rows[row]?.cells[column] ?? null;
  const today = (row: number, column: number): LeakCell | null => {
    const place = placeOf(row, column);
    const cell = cellAt(place);
    return (
      cell && {
        ohms: ohmsOf(cell.value),
        verdict: (sheet.verdicts?.[place[0]]?.[place[1]] ?? null) as InsulationVerdict | null,
        chosen: at?.[0] === place[0] && at[1] === place[1],
        onChoose: () => onChoose(place),
      }
    );
  };
  return (
    <LeakMatrix
      places={sheet.columns}
      today={today}
      before={(row, column) => ohmsOf(cellAt(placeOf(column, row))?.past[0]?.value)}
      shown={ohmsWords}
      verdictWords={(verdict) => sheetVerdictWords('conductors', verdict)}
    />
  );
}

function ohmsOf(value: Reading['value'] | null | undefined): number | 'OL' | undefined {
  return typeof value === 'number' || value === 'OL' ? value : undefined;
}
