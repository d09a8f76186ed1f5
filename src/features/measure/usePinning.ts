'use client';

import { useCallback, useState } from 'react';
import type { Reading } from '@/core/circuit/schema';
import { toPutBack } from '@/core/job/rules/putBack';
import { testKey } from '@/core/diagnosis/observations';
import type { RankedTest } from '@/core/diagnosis/rankTests';
import { pinnedWords, valueWords } from '@/words/en/readings';
import { useDesk } from '../desk/desk';
import { asShown, readWith, type MeterInHand } from './meterProfile';
import { WANDERS } from '@/core/units/wandering';
import { checkTyped, type TypedCheck } from './typedValue';
import type { useHold } from './useHold';

/** A value on its way to the record: typed, checked against the test, asked for again where it fits nothing, pinned. */
export interface Pinning {
  text: string;
  setText: (text: string) => void;
  check: TypedCheck;
  /** The value fits no outcome and is asked for once more: gloves and wet glass mistype. */
  askAgain: boolean;
  onKey: (pressed: string) => void;
  onErase: () => void;
  onPin: () => void;
  /** Pins one of the answers of a test that is not a number. */
  pinChoice: (value: Reading['value'] | undefined) => void;
  /** Nothing typed, nothing asked for again. */
  clear: () => void;
}

const MOST_TYPED = 40;

export function usePinning(
  ranked: RankedTest | undefined,
  meter: MeterInHand,
  hold: ReturnType<typeof useHold>,
  /** What a live meter shows, and what it calls itself: it stands in the keyline as long as nothing is typed. */
  live: { text: string; instrument: string },
  onPinned: (words: string) => void,
): Pinning {
  const { speaker, log } = useDesk();
  const key = ranked ? testKey(ranked.test) : '';
  // What was typed for one test is never pinned to another that comes in its place.
  const [typedFor, setTypedFor] = useState({ key: '', text: '' });
  const entered = typedFor.key === key ? typedFor.text : '';
  const change = useCallback(
    (edit: (now: string) => string) =>
      setTypedFor((now) => ({ key, text: edit(now.key === key ? now.text : '') })),
    [key],
  );
  const setText = useCallback((to: string) => change(() => to), [change]);
  const [confirmed, setConfirmed] = useState('');
  /** By whom a live value was shown that is asked for again: it stays as it was shown. What is typed after it is nobody's but the person's. */
  const [frozen, setFrozen] = useState<{ text: string; instrument: string } | null>(null);
  const clear = useCallback(() => {
    setText('');
    setConfirmed('');
    setFrozen(null);
  }, [setText]);
  const isLive = entered === '' && live.text !== '';
  const text = isLive ? live.text : entered;
  const check: TypedCheck = ranked
    ? checkTyped(
        text
          .split(WANDERS)
          .map((piece) => asShown(piece, meter))
          .join(WANDERS),
        ranked,
        speaker.model.compiled.supplyVolts,
        speaker.gaugeUnit,
      )
    : { state: 'empty' };

  const confirming = `${key} ${text}`;
  const shownBy = isLive ? live.instrument : frozen?.text === text ? frozen.instrument : '';
  const pin = (value: Reading['value'], typed: string, wandered?: readonly Reading['value'][]) => {
    if (!ranked) return;
    const { test } = ranked;
    // The test was asked for without them: they are said to be out by whoever took it, and still to be shown so.
    for (const { entry } of toPutBack(log.state, test).lines)
      log.write({ type: 'ledgerOut', body: { item: entry.body.item } });
    for (const one of wandered ?? [value]) {
      const reading = readWith(meter, test, one, wandered ? { unsteady: true } : {});
      const instrument = typed === text ? shownBy : '';
      log.write({ type: 'reading', body: { reading, typed, ...(instrument ? { instrument } : {}) } });
    }
    clear();
    onPinned(pinnedWords(speaker, test, value));
  };
  /** What has to be held first is pointed at; nothing is pinned before it is. */
  const held = () => {
    if (hold.blocked) document.querySelector<HTMLInputElement>('[data-hold]')?.focus();
    return !hold.blocked;
  };
  const onPin = () => {
    if (!ranked || check.state !== 'ready' || !held()) return;
    if (check.outcome === null && confirmed !== confirming) {
      // The display goes on flickering; what is asked for again is what was there when it was pressed.
      setFrozen({ text, instrument: shownBy });
      setText(text);
      setConfirmed(confirming);
    } else pin(check.value, text, check.wandered);
  };
  const onKey = useCallback(
    (pressed: string) => {
      setConfirmed('');
      setFrozen(null);
      change((now) => {
        if (pressed === 'OL') return now.endsWith(WANDERS) ? `${now}OL` : 'OL';
        return (now === 'OL' && pressed !== WANDERS ? pressed : `${now}${pressed}`).slice(0, MOST_TYPED);
      });
    },
    [change],
  );
  return {
    text,
    setText,
    check,
    askAgain: text !== '' && confirmed === confirming,
    onKey,
    onErase: () => {
      setFrozen(null);
      change((now) => now.slice(0, -1));
    },
    onPin,
    pinChoice: (value) => {
      if (ranked && value !== undefined && held())
        pin(value, valueWords(ranked.test.kind, value, speaker.gaugeUnit));
    },
    clear,
  };
}
