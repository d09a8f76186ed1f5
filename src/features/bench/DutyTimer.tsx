'use client';

import { useState } from 'react';
import { coolSeconds } from '@/core/sheets/coil/service';
import { Heading, MainKey, PlainKey, Trouble } from '@/ui/sheet';
import { useNow } from '@/ui/useNow';
import { stopwatchWords } from '@/words/en/times';

const LOOK_MS = 250;

type Clock =
  { is: 'off' } | { is: 'on'; sinceMs: number } | { is: 'cooling'; sinceMs: number; onSeconds: number };

/** How long a coil under test is on, with a warning at what its label allows; then how long it has to cool. */
export function DutyTimer({
  sheet,
}: {
  /** What its label says: on for at most this share of a cycle. */
  sheet: { dutyShare?: number | undefined; cycleSeconds?: number | undefined } | null;
}) {
  const [clock, setClock] = useState<Clock>({ is: 'off' });
  const now = useNow(LOOK_MS, clock.is !== 'off');
  const share = sheet?.dutyShare;
  const most = share !== undefined && sheet?.cycleSeconds !== undefined ? share * sheet.cycleSeconds : null;
  const seconds = clock.is === 'off' ? 0 : Math.max(now - clock.sinceMs, 0) / 1000;
  const wait =
    clock.is === 'cooling' && share !== undefined ? coolSeconds(clock.onSeconds, share) - seconds : null;
  const over = clock.is === 'on' && most !== null && seconds >= most;
  return (
    <section
      aria-labelledby="duty"
      className="pt-2 print:hidden"
      data-testid="duty"
      data-state={over ? 'over' : clock.is}
    >
      <Heading
        id="duty"
        aside={
          most === null
            ? 'its label’s duty and cycle are not typed: no limit'
            : `at most ${stopwatchWords(most)} at a time`
        }
      >
        On the bench supply
      </Heading>
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2 pt-2">
        {clock.is === 'on' ? (
          <MainKey
            onClick={() => setClock({ is: 'cooling', sinceMs: Date.now(), onSeconds: seconds })}
            className={over ? 'bg-stamp!' : ''}
          >
            Switched off
          </MainKey>
        ) : (
          <PlainKey onClick={() => setClock({ is: 'on', sinceMs: Date.now() })}>Switched on</PlainKey>
        )}
        {clock.is === 'off' ? null : (
          <strong className="fig-bold text-[30px] leading-[34px]" role="timer">
            {stopwatchWords(clock.is === 'on' ? seconds : Math.max(wait ?? seconds, 0))}
          </strong>
        )}
        {clock.is === 'cooling' ? (
          <span className="text-[17px]" aria-live="polite">
            {wait === null ? 'off' : wait > 0 ? 'left to cool' : 'It has cooled as long as its label asks.'}
          </span>
        ) : null}
      </div>
      {over ? <Trouble>Off now: this is all that its label allows at a time.</Trouble> : null}
    </section>
  );
}
