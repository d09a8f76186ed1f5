'use client';

import { useEffect, useMemo, useRef } from 'react';
import { sheetsOfCircuit } from '@/core/sheets/onCircuit/build';
import type { JobSheetName } from '@/core/sheets/onCircuit/jobSheet';
import { watchedParts } from '@/core/trace/restOf';
import { SHEET_TITLE } from '@/words/en/sheets';
import { useDesk } from '../desk/desk';
import { StepLink } from '../desk/StepLink';

/** Names of the job's sheets, with the way back to the next test. */
export function SheetNav({ name }: { name: JobSheetName | 'trace' }) {
  const { model } = useDesk().speaker;
  const current = useRef<HTMLElement>(null);
  // On a phone the names of the sheets stand in one line, and this one may lie beyond its end.
  useEffect(() => {
    current.current
      ?.querySelector('[aria-current=page]')
      ?.scrollIntoView({ inline: 'center', block: 'nearest' });
  }, []);
  const names = useMemo(
    () => [...sheetsOfCircuit(model), ...(watchedParts(model).length > 0 ? (['trace'] as const) : [])],
    [model],
  );
  return (
    <nav
      ref={current}
      aria-label="Sheets of this job"
      className="flex flex-wrap gap-x-5 print:hidden gap-y-1 pt-3 whitespace-nowrap max-tablet:flex-nowrap max-tablet:overflow-x-auto"
    >
      <StepLink step="test" className="min-h-11 py-2.5 underline underline-offset-4 desk:min-h-9 desk:py-1.5">
        Back to the next test
      </StepLink>
      {names.map((one) => (
        <StepLink
          key={one}
          step="test"
          query={{ sheet: one }}
          aria-current={one === name ? 'page' : undefined}
          className="min-h-11 py-2.5 desk:min-h-9 desk:py-1.5 font-[650] underline-offset-4 aria-[current=page]:text-pencil aria-[current=page]:underline"
        >
          {one === 'trace' ? 'Trace' : SHEET_TITLE[one]}
        </StepLink>
      ))}
    </nav>
  );
}
