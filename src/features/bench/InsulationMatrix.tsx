'use client';

import { Check, X } from 'lucide-react';
import type {
  InsulationAnswer,
  InsulationSheet,
  InsulationVerdict,
} from '@/core/sheets/insulation/insulation';
import { pairKey, type Shown } from '@/core/sheets/sheet';
import { TurnStrokes } from '@/ui/Turns';
import { benchVerdictWords } from '@/words/en/benchSheets';
import { quantity } from '@/words/en/readings';

/** More would be no picture. */
const MOST_PLACES = 14;

/**
 * Every conductor by every other and the frame: below the diagonal today, above it the last proved set, so that a pair and its past
 * stand in mirror cells.
 */
export function InsulationMatrix({ sheet, answer }: { sheet: InsulationSheet; answer: InsulationAnswer }) {
  const places = [...sheet.conductors, ...(sheet.frame === undefined ? [] : [sheet.frame])];
  if (places.length < 2 || places.length > MOST_PLACES) return null;
  const today = new Map(answer.cells.map((cell) => [pairKey(cell.from, cell.to), cell]));
  const before = new Map((sheet.before ?? []).map((one) => [pairKey(one.from, one.to), one.ohms]));
  return (
    <div className="overflow-x-auto py-2">
      <table className="border-collapse" aria-label="Today below the diagonal, last proved above it">
        <thead>
          <tr>
            <th />
            {places.map((place) => (
              <th key={place} className="fig h-8 min-w-[72px] text-[15px]">
                {place}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {places.map((row, r) => (
            <tr key={row}>
              <th className="fig pr-2 text-[15px]">{row}</th>
              {places.map((column, c) => {
                if (r === c) return <td key={column} className="border-[1.5px] border-rule bg-well" />;
                const key = pairKey(row, column);
                if (r < c)
                  return (
                    <Past key={column} ohms={before.get(key)} label={`${row} to ${column}, last proved`} />
                  );
                const cell = today.get(key);
                return (
                  <Today
                    key={column}
                    ohms={cell?.ohms}
                    verdict={cell?.verdict ?? null}
                    label={`${row} to ${column}`}
                  />
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

const CELL = 'h-[55px] w-[72px] border-[1.5px] border-rule text-center text-[14.5px] leading-[17px]';
const TONES: Readonly<Record<InsulationVerdict, string>> = {
  good: 'bg-sheet text-verdi',
  watch: 'bg-copper-t text-copper-ink',
  bad: 'bg-stamp text-sheet',
};

function Today({
  ohms,
  verdict,
  label,
}: {
  ohms: Shown | undefined;
  verdict: InsulationVerdict | null;
  label: string;
}) {
  const said = ohms === undefined ? 'not read' : `${shown(ohms)}, ${benchVerdictWords(verdict)}`;
  return (
    <td
      className={`${CELL} ${verdict ? TONES[verdict] : 'bg-sheet text-ink2'}`}
      aria-label={`${label}: ${said}`}
    >
      {ohms === undefined ? (
        <span aria-hidden className="inline-block size-2.5 rounded-full border-[1.5px] border-edge" />
      ) : (
        <>
          <span aria-hidden className="flex justify-center">
            {verdict === 'good' ? <Check size={18} strokeWidth={3} /> : null}
            {verdict === 'bad' ? <X size={18} strokeWidth={3} /> : null}
            {verdict === 'watch' ? (
              <svg width="24" height="18" viewBox="0 0 24 18">
                <TurnStrokes count={2} x={12} y={9} height={14} room={12} />
              </svg>
            ) : null}
          </span>
          <span className="fig">{shown(ohms)}</span>
        </>
      )}
    </td>
  );
}

function Past({ ohms, label }: { ohms: Shown | undefined; label: string }) {
  return (
    <td
      className={`${CELL} bg-film text-ink2`}
      aria-label={`${label}: ${ohms === undefined ? 'not known' : shown(ohms)}`}
    >
      {ohms === undefined ? '' : shown(ohms)}
    </td>
  );
}

function shown(ohms: Shown): string {
  return ohms === 'OL' ? 'OL' : quantity('ohms', ohms);
}
