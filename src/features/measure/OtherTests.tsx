'use client';

import type { Test } from '@/core/circuit/schema';
import type { RankedTest } from '@/core/diagnosis/rankTests';
import { lazyPart } from '@/ui/lazyPart';
import { LazyMenu } from '@/ui/LazyMenu';
import { minutesWords } from '@/words/en/minutes';
import {
  modeName,
  positionWords,
  testPlace,
  type Speaker,
  changedWords,
  cutWords,
} from '@/words/en/readings';

const SheetItems = lazyPart(() => import('../sheets/SheetItems').then((one) => one.SheetItems));

const ROW = 'gap-3 border-b border-rule py-1.5 last:border-b-0';

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
  const row = (test: Test, minutes?: number) => (
    <>
      <span className="fig-bold whitespace-nowrap">{testPlace(speaker, test)}</span>
      <span className="min-w-0 flex-1 text-[15.5px] leading-[18px]">
        {modeName(speaker, test)}
        {setupNote(speaker, test)}
      </span>
      {minutes === undefined ? null : (
        <span className="text-[15.5px] whitespace-nowrap text-ink2">{minutesWords(minutes)}</span>
      )}
    </>
  );
  return (
    <LazyMenu
      trigger={
        <button
          type="button"
          className="min-h-11 flex-1 border-l border-edge bg-sheet px-3.5 text-[16px] font-[650] whitespace-nowrap"
        >
          Other tests
        </button>
      }
    >
      {({ Panel, Item, Label }) => (
        <Panel align="end" className="max-h-[60vh] w-[420px] max-w-[calc(100vw-24px)] overflow-y-auto">
          {others.length === 0 && unplug.length === 0 ? (
            <p className="px-4 py-3">No other test here tells the suspects apart.</p>
          ) : null}
          {others.map(({ test, minutes }) => (
            <Item key={JSON.stringify(test)} onSelect={() => onChoose(test)} className={ROW}>
              {row(test, minutes)}
            </Item>
          ))}
          {unplug.length > 0 ? <Label>Does the code change when one thing is changed?</Label> : null}
          {unplug.map((test) => (
            <Item key={JSON.stringify(test)} onSelect={() => onChoose(test)} className={ROW}>
              {row(test)}
            </Item>
          ))}
          <SheetItems Item={Item} Label={Label} />
        </Panel>
      )}
    </LazyMenu>
  );
}

/** What tells a test from another at the same place: where the controls stand, and what is done to the machine for it. */
function setupNote({ model }: Speaker, { setup }: Test): string {
  const notes = [
    positionWords(model.compiled.circuit.controls, setup),
    ...cutWords(setup),
    ...changedWords(setup),
  ].filter(Boolean);
  return notes.length > 0 ? `, ${notes.join(', ')}` : '';
}
