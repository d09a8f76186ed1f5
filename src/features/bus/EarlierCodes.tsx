'use client';

import { useEffect, useState } from 'react';
import type { BusReport } from '@/core/codes/busWatch';
import { codeKey } from '@/core/codes/codeBook';
import type { BusQuestion } from '@/core/codes/requests';
import type { StoredBookRow } from '@/db/codeBook';
import { Heading, Nothing, PlainKey, Trouble } from '@/ui/sheet';
import { CodeRow } from './CodeRow';

/** As long as a control unit may take to answer, milliseconds. */
const ANSWERS_MS = 4000;

/** Codes that were there and are not now: nobody says them unasked. One question goes out when the key is pressed, and no other ever does. */
export function EarlierCodes({
  bus,
  book,
  ask,
}: {
  bus: BusReport;
  book: StoredBookRow[];
  ask: (question: BusQuestion) => Promise<string | null>;
}) {
  const [state, setState] = useState<'idle' | 'asked' | 'silent'>('idle');
  const [trouble, setTrouble] = useState<string | null>(null);
  const isAnswered = bus.earlier !== null;
  useEffect(() => {
    if (state !== 'asked') return;
    const timer = setTimeout(() => setState('silent'), ANSWERS_MS);
    return () => clearTimeout(timer);
  }, [state]);
  const press = async () => {
    setTrouble(null);
    setState('asked');
    const why = await ask('earlier');
    if (why === null) return;
    setTrouble(why);
    setState('idle');
  };
  return (
    <section aria-labelledby="earlier" className="py-2">
      <Heading id="earlier" aside="said only when asked">
        Codes of before
      </Heading>
      {isAnswered && bus.earlier!.length === 0 ? <Nothing>No code of before is kept there.</Nothing> : null}
      <ul aria-label="Codes of before">
        {(bus.earlier ?? []).map((code) => (
          <CodeRow key={`${code.sourceAddress}-${codeKey(code)}`} code={code} book={book} />
        ))}
      </ul>
      <div className="flex flex-wrap items-center gap-3 py-2">
        <PlainKey
          onClick={() => void press()}
          disabled={bus.lost !== null || (state === 'asked' && !isAnswered)}
        >
          {state === 'asked' && !isAnswered ? 'Asked, waiting' : 'Ask for codes of before'}
        </PlainKey>
        <span className="max-w-[46ch] text-[15.5px] text-ink2">
          {state === 'silent' && !isAnswered
            ? 'Nobody answered: not every control unit keeps them, some want the key on.'
            : 'One question by the standard, to everybody. It clears nothing and moves nothing.'}
        </span>
      </div>
      {trouble ? <Trouble>{trouble}</Trouble> : null}
    </section>
  );
}
