'use client';

import { DropdownMenu } from 'radix-ui';
import type { Test } from '@/core/circuit/schema';
import type { RankedTest } from '@/core/diagnosis/rankTests';
import { minutesWords } from '@/words/en/minutes';
import { modeName, testPlace, type Speaker } from '@/words/en/readings';

/** Every other test worth taking, and reads of a code with one thing changed. */
export function OtherTests({
  speaker,
  others,
  unplug,
  onChoose,
}: {
  speaker: Speaker;
  others: readonly RankedTest[];
  unplug: readonly Test[];
  onChoose: (test: Test | null) => void;
}) {
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger className="min-h-11 flex-1 border-l border-edge bg-sheet px-3.5 text-[16px] font-[650] whitespace-nowrap">
        Other tests
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="end"
          collisionPadding={12}
          className="z-50 max-h-[60vh] w-[420px] max-w-[calc(100vw-24px)] overflow-y-auto border-2 border-ink bg-sheet py-1 text-ink"
        >
          {others.length === 0 && unplug.length === 0 ? (
            <p className="px-4 py-3">No other test here tells the suspects apart.</p>
          ) : null}
          {others.map((one) => (
            <DropdownMenu.Item
              key={JSON.stringify(one.test)}
              onSelect={() => onChoose(one.test)}
              className="flex min-h-11 items-center gap-3 border-b border-rule px-4 py-1.5 last:border-b-0 data-highlighted:bg-pencil-t"
            >
              <span className="fig-bold whitespace-nowrap">{testPlace(speaker, one.test)}</span>
              <span className="min-w-0 flex-1 text-[15.5px] leading-[18px]">
                {modeName(speaker, one.test)}
                {setupNote(one.test)}
              </span>
              <span className="text-[15.5px] whitespace-nowrap text-ink2">{minutesWords(one.minutes)}</span>
            </DropdownMenu.Item>
          ))}
          {unplug.length > 0 ? (
            <DropdownMenu.Label className="border-b border-rule bg-well px-4 py-1.5 text-[15px] text-ink2">
              Does the code change when one thing is changed?
            </DropdownMenu.Label>
          ) : null}
          {unplug.map((test) => (
            <DropdownMenu.Item
              key={JSON.stringify(test)}
              onSelect={() => onChoose(test)}
              className="flex min-h-11 items-center gap-3 border-b border-rule px-4 py-1.5 last:border-b-0 data-highlighted:bg-pencil-t"
            >
              <span className="fig-bold whitespace-nowrap">{testPlace(speaker, test)}</span>
              <span className="min-w-0 flex-1 text-[15.5px] leading-[18px]">
                {modeName(speaker, test)}
                {setupNote(test)}
              </span>
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

function setupNote({ setup }: Test): string {
  const notes = [
    ...(setup.pulled?.length ? [`${setup.pulled.join(', ')} pulled`] : []),
    ...(setup.unplugged?.length ? [`${setup.unplugged.join(', ')} unplugged`] : []),
    ...(setup.removed?.length ? [`${setup.removed.join(', ')} out`] : []),
    ...(setup.swapped ?? []).map(([one, other]) => `${one} and ${other} swapped`),
    ...(setup.isolated?.length ? [`${setup.isolated.join(', ')} isolated`] : []),
  ];
  return notes.length > 0 ? `, ${notes.join(', ')}` : '';
}
