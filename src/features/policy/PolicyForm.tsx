'use client';

import { useState, useTransition } from 'react';
import { useForm } from 'react-hook-form';
import { INSULATION_PASSES } from '@/core/tables/insulationPass';
import { GAUGE_UNITS } from '@/core/units/quantities';
import { parseFigure } from '@/core/units/parseFigure';
import { Field, FIELD, Heading, Hold, MainKey, PlainKey, Trouble } from '@/ui/sheet';
import { passWords } from '@/words/en/heldAgainst';
import type { Policy } from './policy';
import { settlePolicy } from './actions';
import { sent } from '../sent';
import { Form } from '@/ui/Form';

const ORDERS: readonly (readonly [Policy['order'], string])[] = [
  ['best', 'What tells most for its minutes'],
  ['loadedVoltsFirst', 'Volts under load first'],
  ['resistanceFirst', 'Resistance first'],
  ['mechanicalFirst', 'Mechanical first'],
  ['electricalFirst', 'Electrical first'],
];

/** What this site allows, and the school it works by. */
export function PolicyForm({
  policy: initial,
  by,
  zones,
}: {
  policy: Policy;
  by: string | null;
  /** Names of the clocks that the server knows. */
  zones: readonly string[];
}) {
  const { register, handleSubmit, watch, setValue } = useForm({
    defaultValues: {
      ...initial,
      shopRate: String(initial.shopRate),
      lockLine: String(initial.lockLine),
      lockControl: String(initial.lockControl),
      machinesOut: initial.machinesOut ?? '',
      retestDays: initial.retestDays === null ? '' : String(initial.retestDays),
    },
  });
  const [trouble, setTrouble] = useState<string | null>(null);
  const [kept, setKept] = useState(false);
  const [busy, start] = useTransition();
  const settle = handleSubmit(
    ({ shopRate, lockLine, lockControl, timeZone, machinesOut, retestDays, ...policy }) =>
      start(async () => {
        // What is no figure goes as it was typed: the server names it.
        const figure = (typed: string) => {
          const parsed = parseFigure(typed);
          return parsed.is === 'figure' ? parsed.value : typed;
        };
        const answer = await sent(
          settlePolicy({
            ...policy,
            timeZone: timeZone.trim(),
            machinesOut: machinesOut.trim() === '' ? null : machinesOut.trim(),
            retestDays: retestDays.trim() === '' ? null : figure(retestDays),
            shopRate: figure(shopRate),
            lockLine: figure(lockLine),
            lockControl: figure(lockControl),
          }),
        );
        setTrouble(answer.trouble);
        setKept(answer.trouble === null);
      }),
  );
  const choice = (label: string, on: boolean, change: (next: boolean) => void, yes: string, no: string) => (
    <div
      role="group"
      aria-label={label}
      className="flex min-h-[56px] flex-wrap items-center gap-3 border-b-[1.5px] border-rule py-1"
    >
      <span className="min-w-0 flex-1">{label}</span>
      <span className="flex">
        {[true, false].map((value) => (
          <PlainKey
            key={String(value)}
            className="-ml-[1.5px] px-4!"
            aria-pressed={on === value}
            onClick={() => change(value)}
          >
            {value ? yes : no}
          </PlainKey>
        ))}
      </span>
    </div>
  );
  return (
    <Form
      deed="settle"
      className="max-w-[760px] px-6 py-4 max-tablet:px-3"
      onSubmit={(event) => void settle(event)}
    >
      <Heading aside={by ? `settled by ${by}` : 'nobody has settled it yet'}>Site policy</Heading>
      {choice(
        'Contacts bridged for a test, timed and tagged; never those that guard a person or a limit',
        watch('jumpers'),
        (jumpers) => setValue('jumpers', jumpers),
        'Allowed',
        'Not here',
      )}
      {choice(
        'Readings on a live run',
        watch('liveWork'),
        (liveWork) => setValue('liveWork', liveWork),
        'Allowed',
        'Not here',
      )}
      {choice(
        'A learner’s signature under make safe, and a learner’s decision, want a second pair of eyes',
        watch('learnersSeen'),
        (learnersSeen) => setValue('learnersSeen', learnersSeen),
        'Yes',
        'Not here',
      )}
      <Field label="Which test comes first" className="py-2">
        <select className={FIELD} {...register('order')}>
          {ORDERS.map(([key, label]) => (
            <option key={key} value={key}>
              {label}
            </option>
          ))}
        </select>
      </Field>
      <div className="flex flex-wrap gap-4 py-2">
        <Field label="Name of the shed" className="w-[240px]">
          <input className={FIELD} maxLength={60} {...register('shedName')} />
        </Field>
        <Field label="Shop rate an hour" className="w-[180px]">
          <input className={`${FIELD} fig`} inputMode="decimal" {...register('shopRate')} />
        </Field>
        <Field label="Minutes to lock a line supply" className="w-[240px]">
          <input className={`${FIELD} fig`} inputMode="decimal" {...register('lockLine')} />
        </Field>
        <Field label="Minutes to lock a control supply" className="w-[240px]">
          <input className={`${FIELD} fig`} inputMode="decimal" {...register('lockControl')} />
        </Field>
        <Field label="Clock of the site" className="w-[240px]">
          <input className={FIELD} list="time-zones" {...register('timeZone')} />
          <datalist id="time-zones">
            {zones.map((zone) => (
              <option key={zone} value={zone} />
            ))}
          </datalist>
        </Field>
        <Field label="Machines go out at" className="w-[180px]">
          <input className={`${FIELD} fig`} placeholder="16:30" {...register('machinesOut')} />
        </Field>
        <Field label="Looked at again after, days" className="w-[220px]">
          <input
            className={`${FIELD} fig`}
            inputMode="numeric"
            placeholder="90"
            {...register('retestDays')}
          />
        </Field>
        <Field label="Insulation passes from" className="w-[240px]">
          <select className={FIELD} {...register('insulationPass')}>
            {INSULATION_PASSES.map((pass) => (
              <option key={pass} value={pass}>
                {passWords(pass)}
              </option>
            ))}
          </select>
        </Field>
        <Field label="Gauges are marked in" className="w-[180px]">
          <select className={FIELD} {...register('gaugeUnit')}>
            {GAUGE_UNITS.map((unit) => (
              <option key={unit} value={unit}>
                {unit}
              </option>
            ))}
          </select>
        </Field>
      </div>
      {trouble ? <Trouble>{trouble}</Trouble> : null}
      <div className="flex items-center gap-4 py-3">
        <MainKey type="submit" disabled={busy}>
          Keep it
        </MainKey>
        <span role="status" className="text-verdi">
          {kept ? '✓ Kept. Jobs follow it from their next opening.' : ''}
        </span>
      </div>
      <Hold>A shop rule, never law.</Hold>
    </Form>
  );
}
