'use client';

import { SheetDialog } from '@/ui/SheetDialog';

const KEYS: readonly (readonly [string, string])[] = [
  ['0–9 . , − > m k M G', 'type the value, from anywhere'],
  ['O or L', 'OL, over-range'],
  ['~', 'between values of a display that wanders: 5.2~7.1~6.4'],
  ['1 2 3', 'choose, where the answer is not a number'],
  ['Enter', 'pin it'],
  ['H', 'tick the hold'],
  ['Esc', 'clear the value, then close what is open'],
  ['← →', 'move the red lead along the path'],
  ['Shift ← →', 'move the black lead'],
  ['↑ ↓, Space', 'walk the suspects, open one'],
  ['Ctrl Z', 'unpin the last reading; it stays in the record'],
  ['[ and ]', 'step back, step on'],
  ['Ctrl K', 'jump to any job, step, machine or page'],
  ['?', 'this list'],
];

export function KeysDialog({ open, onOpenChange }: { open: boolean; onOpenChange: (open: boolean) => void }) {
  return (
    <SheetDialog open={open} onOpenChange={onOpenChange} title="Keys">
      <dl className="grid grid-cols-[200px_1fr] px-5 py-3">
        {KEYS.map(([key, does]) => (
          <div key={key} className="contents">
            <dt className="fig-bold border-b border-rule py-2 text-[15.5px]">{key}</dt>
            <dd className="border-b border-rule py-2">{does}</dd>
          </div>
        ))}
      </dl>
    </SheetDialog>
  );
}
