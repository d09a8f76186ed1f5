'use client';

import { useState } from 'react';
import type { CoilCondition } from '@/core/trace/conditions';
import type { StandingRow } from '@/words/en/traces';

/** What it can be the trace of, in twentieths as everywhere; pressed, its expected curve lies behind. */
export function Standings({
  rows,
  behind,
  onBehind,
}: {
  rows: readonly StandingRow[];
  behind: CoilCondition | null;
  onBehind: (condition: CoilCondition) => void;
}) {
  const [all, setAll] = useState(false);
  const seen = rows.filter(({ share, drawn }) => share >= LEAST_TOLD || (all && drawn));
  return (
    <div className="max-w-[460px]" data-testid="trace-standings">
      <ul aria-label="What it can be the trace of">
        {seen.map(({ condition, words, share, drawn }) => (
          <li key={condition} className="border-b-[1.5px] border-rule">
            <button
              type="button"
              disabled={!drawn}
              aria-pressed={behind === condition}
              title={drawn ? 'Lay its expected curve behind' : undefined}
              onClick={() => onBehind(condition)}
              className="flex min-h-9 w-full items-center justify-between gap-3 px-1 text-left text-[16px] font-[600] aria-pressed:bg-pencil-t"
            >
              {words}
              <span className="fig shrink-0 text-copper-ink">
                {share < LEAST_TOLD ? 'under 1' : `${Math.round(20 * share)} in 20`}
              </span>
            </button>
          </li>
        ))}
      </ul>
      {all ? null : (
        <button
          type="button"
          onClick={() => setAll(true)}
          className="min-h-9 text-[15.5px] underline underline-offset-4"
        >
          Every condition, to lay its curve behind
        </button>
      )}
    </div>
  );
}
/** Half a twentieth: less is not told. */
const LEAST_TOLD = 0.025;
