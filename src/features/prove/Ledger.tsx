'use client';

import { useMemo, useState } from 'react';
import { useForm } from 'react-hook-form';
import type { EntryOf } from '@/core/job/entries';
import { stillToTakeOut } from '@/core/job/rules/ledgerStanding';
import type { Part } from '@/core/circuit/schema';
import { guardOf } from '@/core/safety/guards';
import { Field, FIELD, Heading, PlainKey, Trouble } from '@/ui/sheet';
import { LEDGER_KINDS } from '@/words/en/ledger';
import { partWords } from '@/words/en/readings';
import { useDesk } from '../desk/desk';
import { LedgerItems } from './LedgerItems';
import { Form } from '@/ui/Form';

type Kind = EntryOf<'ledger'>['body']['kind'];
interface Fields {
  kind: Kind;
  item: string;
  /** Contact that a bridge lies across; empty where it lies elsewhere. */
  across: string;
  minutes: string;
}

const LONGEST_MINUTES = 480;

/**
 * What was put into the machine, or found in it, and must come out: jumpers, overrides, plugs, lifted wires. With `found`
 * it is the list of what others left behind.
 */
export function Ledger({ found = false }: { found?: boolean }) {
  const { log, speaker } = useDesk();
  const { model } = speaker;
  const [trouble, setTrouble] = useState<string | null>(null);
  const open = useMemo(() => stillToTakeOut(model, log.state), [model, log.state]);
  const contacts = model.compiled.circuit.parts.filter((part) => guardOf(part) !== null);
  // What the machine works without, and should not.
  const controls = model.compiled.circuit.parts.filter(
    (part) => part.bypassDanger !== undefined && !contacts.includes(part),
  );
  const { register, handleSubmit, reset, watch } = useForm<Fields>({
    defaultValues: { kind: 'jumper', item: '', across: '', minutes: found ? '' : '10' },
  });
  const kind = watch('kind');
  const put = handleSubmit((fields) => {
    const contact = contacts.find(({ ref }) => ref === fields.across);
    const control = controls.find(({ ref }) => ref === fields.across);
    const item =
      fields.item.trim() ||
      (contact ? `Bridge across ${contact.ref}` : control ? `Bypass of ${control.ref}` : '');
    if (item === '')
      return setTrouble('Where: nothing is said. Say where it is, or the contact it lies across.');
    const text = fields.minutes.trim();
    if (text !== '' && !/^\d+$/.test(text))
      return setTrouble(`Minutes: “${text}” is no whole number. Type minutes, as 10.`);
    const minutes = text === '' ? undefined : Number(text);
    if (minutes !== undefined && (minutes < 1 || minutes > LONGEST_MINUTES))
      return setTrouble(`Minutes: ${text} is not between 1 and ${LONGEST_MINUTES}.`);
    setTrouble(null);
    log.write({
      type: 'ledger',
      body: {
        item,
        kind: fields.kind,
        ...(minutes === undefined ? {} : { minutes }),
        ...(fields.kind === 'jumper' && contact ? { puts: { jumpers: [endsOf(contact)] } } : {}),
        ...((control ?? contact?.bypassDanger) ? { bypasses: fields.across } : {}),
        ...(found ? { found: true as const } : {}),
      },
    });
    reset({ ...fields, item: '', across: '' });
  });
  return (
    <section aria-labelledby="ledger" className="mt-2">
      <Heading id="ledger" aside="must be out, and shown out, before hand-over">
        {found ? 'Found in the machine' : 'Put in, must come out'}
      </Heading>
      {open.length === 0 && !found ? <p className="py-3 text-verdi">✓ Nothing is left in.</p> : null}
      <LedgerItems />
      <Form
        className="grid grid-cols-[130px_1fr_1fr_90px_auto] items-end gap-2 py-2 max-tablet:grid-cols-2"
        onSubmit={(event) => void put(event)}
      >
        <Field label="What">
          <select className={FIELD} {...register('kind')}>
            {Object.entries(LEDGER_KINDS).map(([key, label]) => (
              <option key={key} value={key}>
                {label}
              </option>
            ))}
          </select>
        </Field>
        <Field label="Where">
          <input className={FIELD} maxLength={120} {...register('item')} />
        </Field>
        <Field label={controls.length > 0 ? 'Across, or past' : 'Across the contact'}>
          <select
            className={FIELD}
            disabled={kind !== 'jumper' && controls.length === 0}
            {...register('across')}
          >
            <option value="">none</option>
            {[...contacts, ...controls].map((part) => (
              <option key={part.ref} value={part.ref}>
                {partWords(speaker, part.ref)}
              </option>
            ))}
          </select>
        </Field>
        <Field label="Minutes">
          <input className={`${FIELD} fig`} inputMode="numeric" {...register('minutes')} />
        </Field>
        <PlainKey type="submit">{found ? 'I found it' : 'It is in'}</PlainKey>
      </Form>
      {trouble ? <Trouble>{trouble}</Trouble> : null}
      <p className="pb-2 text-[15.5px] text-ink2">
        Never across an emergency stop, two-hand control, presence sensing, over-pressure, high limit,
        overspeed or load limit.
      </p>
    </section>
  );
}

/** The two ends of a contact; a relay's first contact set. */
function endsOf(part: Part): [string, string] {
  const nodes = part.nodes as Record<string, string>;
  return part.kind === 'relay' ? [nodes.com ?? '', nodes.no ?? nodes.nc ?? ''] : [nodes['1']!, nodes['2']!];
}
