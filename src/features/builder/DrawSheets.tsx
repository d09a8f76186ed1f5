'use client';

import { Tabs } from 'radix-ui';
import type { Circuit } from '@/core/circuit/schema';
import { KIND_NAMES } from '@/words/en/drawing';

export const SHEETS = ['Parts', 'Try it', 'Versions'] as const;
export type Sheet = (typeof SHEETS)[number];

/** The sheets below a drawing, one at a time, and the part that is looked at. */
export function DrawSheets({
  circuit,
  sheet,
  onSheet,
  chosen,
  onChosen,
  panels,
}: {
  circuit: Circuit;
  sheet: Sheet;
  onSheet: (sheet: Sheet) => void;
  chosen: string | null;
  onChosen: (ref: string | null) => void;
  panels: Record<Sheet, React.ReactNode>;
}) {
  return (
    <Tabs.Root
      value={sheet}
      onValueChange={(value) => onSheet(value as Sheet)}
      className="flex min-h-0 flex-col pb-2"
    >
      <div className="flex min-h-11 items-end border-b-2 border-ink">
        <Tabs.List aria-label="Below the drawing" className="flex gap-x-1">
          {SHEETS.map((one) => (
            <Tabs.Trigger
              key={one}
              value={one}
              className="min-h-11 px-4 text-[17px] font-[650] whitespace-nowrap text-ink2 max-tablet:px-2 aria-selected:bg-sheet aria-selected:font-[780] aria-selected:text-ink"
            >
              {one}
            </Tabs.Trigger>
          ))}
        </Tabs.List>
        <label className="ml-auto flex min-w-0 items-center gap-2 pb-1 text-[15.5px]">
          <span className="max-tablet:sr-only">Part</span>
          <select
            className="fig min-h-9 max-w-[220px] min-w-0 border-[1.5px] max-tablet:max-w-[110px] border-edge bg-sheet px-2"
            value={chosen ?? ''}
            onChange={(event) => onChosen(event.target.value || null)}
          >
            <option value="">all</option>
            {circuit.parts.map(({ ref, label }) => (
              <option key={ref} value={ref}>
                {ref} {label ?? ''}
              </option>
            ))}
          </select>
        </label>
      </div>
      {SHEETS.map((one) => (
        // Another part begins at the head of its form, not where the one before was scrolled to.
        <Tabs.Content
          key={one === 'Parts' ? `${one} ${chosen}` : one}
          value={one}
          className="min-h-0 flex-1 overflow-y-auto outline-offset-[-2px]"
        >
          {panels[one]}
        </Tabs.Content>
      ))}
    </Tabs.Root>
  );
}

/** Every part of a drawing, to be looked at. */
export function PartList({ circuit, onChosen }: { circuit: Circuit; onChosen: (ref: string) => void }) {
  return (
    <ul aria-label="Parts of the drawing">
      {circuit.parts.map(({ ref, kind, label }) => (
        <li key={ref} className="border-b-[1.5px] border-rule">
          <button
            type="button"
            className="flex min-h-11 w-full items-center gap-4 text-left"
            onClick={() => onChosen(ref)}
          >
            <span className="fig-bold w-24 truncate">{ref}</span>
            <span className="min-w-0 flex-1 truncate">{label ?? KIND_NAMES[kind]}</span>
            <span className="text-[15.5px] text-ink2">{label ? KIND_NAMES[kind] : ''}</span>
          </button>
        </li>
      ))}
    </ul>
  );
}
