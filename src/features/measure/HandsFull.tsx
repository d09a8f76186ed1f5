'use client';

import { Dialog } from 'radix-ui';
import { X } from 'lucide-react';
import { useEffect, useState } from 'react';
import type { RankedTest } from '@/core/diagnosis/rankTests';
import { liveWords } from '@/words/en/liveMeter';
import type { PutBack } from '@/core/job/rules/putBack';
import { askedAloud } from '@/words/en/aloud';
import { modeName, testPlace, type Speaker } from '@/words/en/readings';
import { setupSteps } from '@/words/en/setupSteps';
import type { LiveReading } from '@/core/instrument/offered';
import { canSpeak, hush, keepsAloud, keptAloud, say } from './aloud';

/** One number and one sentence, to be read from where the machine is; and the test read aloud, where that is wanted. */
export function HandsFull({
  speaker,
  ranked,
  text,
  meaning,
  live,
  hold,
  back,
  blocked,
  onPin,
  onClose,
}: {
  speaker: Speaker;
  ranked: RankedTest;
  text: string;
  /** What the figure means, or why it is not taken. */
  meaning: string;
  live: LiveReading;
  hold: { text: string; mustTick: boolean };
  /** What goes back to how it was before it. */
  back: PutBack;
  blocked: boolean;
  onPin: () => void;
  onClose: () => void;
}) {
  const { test } = ranked;
  const [aloud, setAloud] = useState(keptAloud);
  const spoken = askedAloud(speaker, ranked.test, hold.text, back);
  useEffect(() => {
    if (!aloud) return;
    say(spoken);
    return hush;
  }, [aloud, spoken]);
  const steps = setupSteps(speaker, test, back);
  const shown = text || (live.is === 'moving' || live.is === 'notMoved' ? live.text : '');
  return (
    <Dialog.Root open onOpenChange={(open) => (open ? undefined : onClose())}>
      <Dialog.Portal>
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed inset-0 z-50 flex flex-col bg-sheet text-ink"
          data-testid="hands-full"
        >
          <div className="flex items-center justify-between gap-3 border-b-2 border-ink pl-5">
            <Dialog.Title className="text-[27px] leading-8 font-[800]">
              <span className="fig-bold">{testPlace(speaker, test)}</span>, {modeName(speaker, test)}
            </Dialog.Title>
            <Dialog.Close
              className="flex size-14 items-center justify-center"
              aria-label="Close the large view"
            >
              <X size={30} aria-hidden />
            </Dialog.Close>
          </div>
          <div className="flex min-h-0 flex-1 flex-col justify-center gap-3 overflow-y-auto px-5 py-3">
            <p
              className="fig-bold min-h-[1em] text-center text-[clamp(64px,17vw,190px)] leading-none text-pencil"
              data-testid="large-value"
            >
              {shown}
            </p>
            <p className="text-center text-[clamp(22px,4vw,40px)] leading-[1.2] font-[650]" role="status">
              {text ? meaning : liveWords(live) || 'Type it, or let the meter do it.'}
            </p>
            <p className="mx-auto max-w-[1000px] text-center text-[20px] leading-[26px] text-ink2">
              {steps.join(' ')}
            </p>
          </div>
          <div className="flex min-h-[76px] border-t-2 border-ink max-tablet:flex-col">
            <p className="flex flex-1 items-center bg-well px-5 py-2 text-[17px] leading-[21px] font-[650]">
              {hold.text}
            </p>
            {canSpeak() ? (
              <label className="flex min-h-14 items-center gap-3 border-l border-edge px-5 text-[17px]">
                <input
                  type="checkbox"
                  className="size-6 accent-pencil"
                  checked={aloud}
                  onChange={({ target }) => {
                    keepsAloud(target.checked);
                    setAloud(target.checked);
                  }}
                />
                Read aloud
              </label>
            ) : null}
            <button
              type="button"
              onClick={onPin}
              aria-disabled={blocked || text === ''}
              className="min-h-16 min-w-[220px] bg-pencil px-6 text-[27px] font-[750] text-sheet aria-disabled:bg-well aria-disabled:text-ink2"
            >
              Pin it
            </button>
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
