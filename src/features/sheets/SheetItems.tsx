'use client';

import { type ComponentType, type ReactNode } from 'react';
import { sheetsOfCircuit } from '@/core/sheets/onCircuit/build';
import { SHEET_TITLE } from '@/words/en/sheets';
import { useDesk } from '../desk/desk';
import { stepAddress } from '../desk/steps';

/** The sheets that this circuit fills in, as lines of a menu. */
export function SheetItems({
  Item,
  Label,
}: {
  Item: ComponentType<{ onSelect: () => void; className?: string; children: ReactNode }>;
  Label: ComponentType<{ children: ReactNode }>;
}) {
  const { job, speaker } = useDesk();
  const sheets = sheetsOfCircuit(speaker.model);
  if (sheets.length === 0) return null;
  return (
    <>
      <Label>Many readings beside each other</Label>
      {sheets.map((sheet) => (
        <Item
          key={sheet}
          className="gap-3 border-b border-rule py-1.5 last:border-b-0"
          onSelect={() => window.history.pushState(null, '', stepAddress(job.number, 'test', { sheet }))}
        >
          <span className="font-[650]">{SHEET_TITLE[sheet]}</span>
        </Item>
      ))}
    </>
  );
}
