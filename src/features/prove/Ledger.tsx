'use client';

import { useState } from 'react';
import type { EntryOf } from '@/core/job/entries';
import { Field, FIELD, Heading, PlainKey } from '@/ui/sheet';
import { useDesk } from '../job/desk';
import { LEDGER_KINDS, LedgerItems } from './LedgerItems';

type Kind = EntryOf<'ledger'>['body']['kind'];

/** What was put into the machine and must come out: jumpers, overrides, plugs, lifted wires, each with its time. */
export function Ledger() {
  const { log } = useDesk();
  const [kind, setKind] = useState<Kind>('jumper');
  const [item, setItem] = useState('');
  const [minutes, setMinutes] = useState('10');
  const { ledger } = log.state;
  return (
    <section aria-labelledby="ledger" className="mt-2">
      <Heading id="ledger" aside="must be empty before hand-over">
        Put in, must come out
      </Heading>
      {ledger.length === 0 ? <p className="py-3 text-verdi">✓ Nothing is left in.</p> : null}
      <LedgerItems />
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
            {Object.entries(LEDGER_KINDS).map(([key, label]) => (
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
