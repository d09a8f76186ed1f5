'use client';

import { X } from 'lucide-react';
import { Dialog } from 'radix-ui';

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
    <Dialog.Root open={open} onOpenChange={onOpenChange}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-film/70" />
        <Dialog.Content
          className="fixed top-1/2 left-1/2 z-50 w-[520px] max-w-[calc(100vw-24px)] -translate-x-1/2 -translate-y-1/2 border-2 border-ink bg-sheet"
          aria-describedby={undefined}
        >
          <div className="flex items-center justify-between border-b-2 border-ink pl-5">
            <Dialog.Title className="text-[19px] font-[780]">Keys</Dialog.Title>
            <Dialog.Close className="flex size-12 items-center justify-center" aria-label="Close">
              <X size={22} aria-hidden />
            </Dialog.Close>
          </div>
          <dl className="grid grid-cols-[200px_1fr] px-5 py-3">
            {KEYS.map(([key, does]) => (
              <div key={key} className="contents">
                <dt className="fig-bold border-b border-rule py-2 text-[15.5px]">{key}</dt>
                <dd className="border-b border-rule py-2">{does}</dd>
              </div>
            ))}
          </dl>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
