'use client';

import { useMemo } from 'react';
import type { Reading } from '@/core/circuit/schema';
import type { RankedTest } from '@/core/diagnosis/rankTests';
import { useDesk } from '../desk/desk';
import { supposedValues } from './supposedValues';
import { valueWords } from '@/words/en/readings';

/** A slider over what the next reading could be: the suspects show what each value would leave. Nothing is pinned. */
export function WhatIf({
  ranked: { test, outcomes, expected },
  whatIf,
  onWhatIf,
}: {
  ranked: RankedTest;
  whatIf: Reading | null;
  onWhatIf: (reading: Reading | null) => void;
}) {
  const { gaugeUnit } = useDesk().speaker;
  const values = useMemo(() => supposedValues(outcomes, expected), [outcomes, expected]);
  if (values.length < 2 || !('from' in test || test.kind === 'amps' || test.kind === 'pressure')) return null;
  const at = whatIf ? values.indexOf(whatIf.value as number | 'OL') : -1;
  return (
    <div className="flex min-h-9 shrink-0 items-center gap-3 border-t-[1.5px] border-rule px-4 text-[15.5px] max-tablet:hidden">
      <label className="flex min-w-0 flex-1 items-center gap-3">
        <span className="whitespace-nowrap">What if it reads</span>
        <input
          type="range"
          className="min-w-0 flex-1 accent-pencil"
          min={0}
          max={values.length - 1}
          value={at < 0 ? Math.floor(values.length / 2) : at}
          data-testid="what-if"
          onChange={(event) => onWhatIf({ ...test, value: values[Number(event.target.value)]! } as Reading)}
        />
        <span className="fig-bold w-24 text-pencil">
          {at < 0 ? '' : valueWords(test.kind, values[at]!, gaugeUnit)}
        </span>
      </label>
      {at < 0 ? null : (
        <button
          type="button"
          className="min-h-9 px-2 underline underline-offset-4"
          onClick={() => onWhatIf(null)}
        >
          Back to what is known
        </button>
      )}
    </div>
  );
}
