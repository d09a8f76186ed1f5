'use client';

import type { InsulationAnswer, InsulationSheet } from '@/core/sheets/insulation/insulation';
import { pairKey } from '@/core/sheets/sheet';
import { LeakMatrix } from '@/ui/LeakMatrix';
import { benchVerdictWords } from '@/words/en/benchSheets';
import { ohmsWords } from '@/words/en/readings';

/** More would be no picture. */
const MOST_PLACES = 14;

/** The matrix of a bench sheet: what was read of its conductors today, and the last proved set. */
export function InsulationMatrix({ sheet, answer }: { sheet: InsulationSheet; answer: InsulationAnswer }) {
  const places = [...sheet.conductors, ...(sheet.frame === undefined ? [] : [sheet.frame])];
  if (places.length < 2 || places.length > MOST_PLACES) return null;
  const key = (row: number, column: number) => pairKey(places[row]!, places[column]!);
  const today = new Map(answer.cells.map((cell) => [pairKey(cell.from, cell.to), cell]));
  const before = new Map((sheet.before ?? []).map((one) => [pairKey(one.from, one.to), one.ohms]));
  return (
    <LeakMatrix
      places={places}
      today={(row, column) => today.get(key(row, column)) ?? { ohms: undefined, verdict: null }}
      before={(row, column) => before.get(key(row, column))}
      shown={ohmsWords}
      verdictWords={benchVerdictWords}
    />
  );
}
