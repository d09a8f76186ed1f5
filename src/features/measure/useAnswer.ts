'use client';

import { offeredBy } from '@/core/instrument/offered';
import type { AskedTest } from './useAskedTest';
import type { useHold } from './useHold';
import type { MeterInUse } from './useMeterInUse';
import { usePinning } from './usePinning';

export type Answer = ReturnType<typeof useAnswer>;

/** The answer to the test that is asked for, on its way to the record. From the first tick or key on the test is in somebody's hands. */
export function useAnswer(
  { ranked, begin, letGo }: AskedTest,
  hold: ReturnType<typeof useHold>,
  meter: MeterInUse,
  onPinned: (words: string) => void,
) {
  const pinning = usePinning(ranked, meter.profile, hold, offeredBy(meter.live), onPinned);
  const { text, check } = pinning;
  return {
    ...pinning,
    /** Which of its answers the value is; null while it is none. */
    lit: check.state === 'ready' && text !== '' ? check.outcome : null,
    tick: (ticked: boolean) => {
      if (ticked) begin();
      else if (text === '') letGo();
      hold.tick(ticked);
    },
    onKey: (pressed: string) => {
      begin();
      pinning.onKey(pressed);
    },
    onErase: () => {
      if (text.length <= 1 && !hold.held) letGo();
      pinning.onErase();
    },
    /** Takes back all that was typed. */
    drop: () => {
      pinning.setText('');
      letGo();
    },
  };
}
