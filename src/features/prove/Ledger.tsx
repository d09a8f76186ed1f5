'use client';

import { useEffect, useState } from 'react';
import type { EntryOf } from '@/core/job/entries';
import { Field, FIELD, Heading, PlainKey } from '@/ui/sheet';
import { useDesk } from '../job/desk';

type Kind = EntryOf<'ledger'>['body']['kind'];
const KINDS: Readonly<Record<Kind, string>> = {
  jumper: 'Jumper',
  override: 'Override',
  plug: 'Plug or clamp',
  lifted: 'Lifted wire',
  other: 'Other',
};
const MINUTE_MS = 60_000;

/** What was put into the machine and must come out: jumpers, overrides, plugs, lifted wires, each with its time. */
export function Ledger() {
  const { log } = useDesk();
  const [kind, setKind] = useState<Kind>('jumper');
  const [item, setItem] = useState('');
  const [minutes, setMinutes] = useState('10');
  const now = useNow();
  const { ledger } = log.state;
  return (
    <section aria-labelledby="ledger" className="mt-2">
      <Heading id="ledger" aside="must be empty before hand-over">
        Put in, must come out
      </Heading>
      {ledger.length === 0 ? <p className="py-3 text-verdi">✓ Nothing is left in.</p> : null}
      <ul>
        {ledger.map(({ id, at, body, person }) => {
          const left = body.minutes
            ? Math.ceil((Date.parse(at) + body.minutes * MINUTE_MS - now) / MINUTE_MS)
            : null;
          return (
            <li
              key={id}
              className="flex min-h-[52px] flex-wrap items-center gap-3 border-b-[1.5px] border-rule"
              data-testid="ledger-item"
            >
              <strong className="font-[700]">{body.item}</strong>
              <span
                className={`min-w-0 flex-1 text-[16px] ${left !== null && left <= 0 ? 'font-[700] text-stamp' : 'text-ink2'}`}
              >
                {KINDS[body.kind].toLowerCase()}, by {person}
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
                It is out
              </PlainKey>
            </li>
          );
        })}
      </ul>
      <form
        className="grid grid-cols-[130px_1fr_90px_auto] items-end gap-2 py-2 max-tablet:grid-cols-2"
        onSubmit={(event) => {
          event.preventDefault();
          if (item.trim() === '') return;
          const whole = Math.round(Number(minutes));
          log.write({
            type: 'ledger',
            body: { item: item.trim(), kind, ...(whole >= 1 && whole <= 480 ? { minutes: whole } : {}) },
          });
          setItem('');
        }}
      >
        <Field label="What">
          <select className={FIELD} value={kind} onChange={(event) => setKind(event.target.value as Kind)}>
            {Object.entries(KINDS).map(([key, label]) => (
              <option key={key} value={key}>
                {label}
              </option>
            ))}
          </select>
        </Field>
        <Field label="Where">
          <input
            className={FIELD}
            value={item}
            maxLength={120}
            onChange={(event) => setItem(event.target.value)}
          />
        </Field>
        <Field label="Minutes">
          <input
            className={`${FIELD} fig`}
            inputMode="numeric"
            value={minutes}
            onChange={(event) => setMinutes(event.target.value)}
          />
        </Field>
        <PlainKey type="submit" disabled={item.trim() === ''}>
          It is in
        </PlainKey>
      </form>
      <p className="pb-2 text-[15.5px] text-ink2">
        Never across an emergency stop, two-hand control, presence sensing, over-pressure, high limit,
        overspeed or load limit.
      </p>
    </section>
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
