'use client';

import { useEffect, useState } from 'react';
import type { EntryOf } from '@/core/job/entries';
import { PlainKey } from '@/ui/sheet';
import { useDesk } from '../job/desk';

export const LEDGER_KINDS: Readonly<Record<EntryOf<'ledger'>['body']['kind'], string>> = {
  jumper: 'Jumper',
  override: 'Override',
  plug: 'Plug or clamp',
  lifted: 'Lifted wire',
  other: 'Other',
};
const MINUTE_MS = 60_000;

/** What stands in the ledger, each with its time and the way out of it. */
export function LedgerItems() {
  const { log } = useDesk();
  const now = useNow();
  return (
    <ul>
      {log.state.ledger.map(({ id, at, body, person }) => {
        const left = body.minutes
          ? Math.ceil((Date.parse(at) + body.minutes * MINUTE_MS - now) / MINUTE_MS)
          : null;
        return (
          <li
            key={id}
            className="flex min-h-[48px] flex-wrap items-center gap-3 border-b-[1.5px] border-rule"
            data-testid="ledger-item"
          >
            <strong className="font-[700]">{body.item}</strong>
            <span
              className={`min-w-0 flex-1 text-[16px] ${left !== null && left <= 0 ? 'font-[700] text-stamp' : 'text-ink2'}`}
            >
              {LEDGER_KINDS[body.kind].toLowerCase()}, by {person}
              {left === null
                ? ''
                : left > 0
                  ? `, ${left} min left`
                  : ', over its time: the machine is out of service'}
            </span>
            <PlainKey
              className="px-3! text-[16px]!"
              onClick={() => log.write({ type: 'ledgerOut', body: { item: body.item } })}
            >
              {body.kind === 'lifted' ? 'It is back on' : 'It is out'}
            </PlainKey>
          </li>
        );
      })}
    </ul>
  );
}

function useNow(): number {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), 10_000);
    return () => clearInterval(timer);
  }, []);
  return now;
}
