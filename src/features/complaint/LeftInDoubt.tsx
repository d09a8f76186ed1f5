'use client';

import { useMemo } from 'react';
import { functionsSheetOf } from '@/core/sheets/onCircuit/functionsSheet';
import type { SheetRow } from '@/core/sheets/onCircuit/jobSheet';
import { sheetFoundWords } from '@/words/en/sheetFound';
import { rowTitle } from '@/words/en/sheets';
import { useDesk } from '../desk/desk';

/** What is left when the parts of all that works are cleared, before any meter is out. */
export function LeftInDoubt() {
  const { speaker, readings, outlook } = useDesk();
  const { model } = speaker;
  const sheet = useMemo(() => functionsSheetOf(model, readings), [model, readings]);
  if (!sheet?.rows.some(({ verdict }) => verdict !== null)) return null;
  const titleOf = (row: SheetRow) => rowTitle(speaker, sheet, row);
  const next = sheet.next && sheet.rows[sheet.next[0]];
  return (
    <div role="status" className="py-2 text-[17px] leading-[22px]" data-testid="left-in-doubt">
      {sheetFoundWords(speaker, sheet, outlook?.diagnosis.suspects).map((line) => (
        <p key={line}>{line}</p>
      ))}
      {next ? <p className="text-ink2">What tells most, tried next: {titleOf(next)}.</p> : null}
    </div>
  );
}
