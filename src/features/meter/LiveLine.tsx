'use client';

import { useState } from 'react';
import type { LiveReading } from '@/core/instrument/offered';
import { dialWords, liveWords } from '@/words/en/liveMeter';
import { turnMeter } from './actions';
import { sent } from '../sent';

/** What stands in the keyline as long as a live meter offers no value: why not, and its dial where that can be turned from here. */
export function LiveLine({ live }: { live: LiveReading }) {
  const [trouble, setTrouble] = useState<string | null>(null);
  const [turning, setTurning] = useState(false);
  const turn = async () => {
    if (live.is !== 'wrongDial') return;
    setTurning(true);
    const answer = await sent(turnMeter(live.wanted), { trouble: 'The server does not answer.' });
    setTurning(false);
    setTrouble(answer?.trouble ?? null);
  };
  return (
    <div className="flex min-h-[57px] flex-col justify-center text-[15px] leading-[18px] text-pencil">
      <p role="status" data-testid="live">
        {trouble ?? liveWords(live)}
      </p>
      {live.is === 'wrongDial' && live.turns ? (
        <button
          type="button"
          onClick={() => void turn()}
          disabled={turning}
          className="-my-1 flex min-h-8 items-center self-start font-[650] text-ink underline underline-offset-2"
        >
          {turning ? 'Turning it' : `Turn it to ${dialWords(live.wanted)}`}
        </button>
      ) : null}
    </div>
  );
}
