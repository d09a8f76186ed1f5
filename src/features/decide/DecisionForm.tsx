'use client';

import { BeforeChange } from '../desk/BeforeChange';
import { zodResolver } from '@hookform/resolvers/zod';
import { useForm, type UseFormReturn } from 'react-hook-form';
import { Field, FIELD, Heading, Hold, MainKey, PlainKey, Trouble } from '@/ui/sheet';
import { clearWords } from '@/words/en/findings';
import { useDesk } from '../desk/desk';
import {
  ACTIONS,
  COSTED,
  decisionSchema,
  needsReason,
  totalCost,
  uncleared,
  type DecisionFields,
  type Named,
} from './decisionFields';
import { Form } from '@/ui/Form';

/** Which part, repaired or replaced, at what cost, and why. */
export function DecisionForm({ onDone, onLeave }: { onDone: () => void; onLeave: (() => void) | null }) {
  const { outlook, log, speaker, job } = useDesk();
  const verdict = outlook?.diagnosis.verdict;
  const named = verdict?.state === 'name' ? verdict : null;
  const said: Named = {
    named,
    lead: outlook?.diagnosis.suspects[0] ?? null,
    clearFirst: (named?.clearFirst ?? []).map(clearWords),
  };
  const form = useForm<DecisionFields, unknown, ReturnType<ReturnType<typeof decisionSchema>['parse']>>({
    resolver: (values, context, options) => {
      const own = { ...values, part: values.part || proposed };
      return zodResolver(decisionSchema(said))(own, context, options);
    },
    defaultValues: {
      action: 'repair',
      part: '',
      why: '',
      against: '',
      cleared: [],
      rate: String(job.policy.shopRate),
      repair: { minutes: '', cost: '' },
      replace: { minutes: '', cost: '' },
    },
  });
  const { register, handleSubmit, watch, setValue, formState } = form;
  const { parts } = speaker.model.compiled.circuit;
  // A part that the readings name is proposed until the person chooses one; no other is.
  const proposed = said.named?.part ?? '';
  const action = watch('action');
  const part = watch('part') || proposed;
  const left = uncleared({ part, cleared: watch('cleared') }, said);
  const toClear = said.named?.part === part ? said.clearFirst : [];
  const waits = job.me.role === 'learner' && job.policy.learnersSeen;
  const reason = needsReason({ action, part }, said);
  const write = handleSubmit((body) => {
    log.write({ type: 'decision', body: waits ? { ...body, learner: true } : body });
    onDone();
  });
  const [trouble] = [
    formState.errors[action === 'nothing' ? 'repair' : action]?.minutes,
    formState.errors[action === 'nothing' ? 'repair' : action]?.cost,
    formState.errors.part,
    formState.errors.against,
  ].flatMap((one) => (one?.message ? [one.message] : []));
  return (
    <section aria-labelledby="decide">
      <Heading id="decide">Decision</Heading>
      {waits ? (
        <p className="py-2 text-[16.5px] text-copper-ink">
          You decide as a learner: a technician or a lead looks at it before anything is fitted.
        </p>
      ) : null}
      <Form onSubmit={(event) => void write(event)} noValidate>
        <div className="flex flex-wrap items-end gap-3 py-2">
          <span className="flex" role="group" aria-label="What is done">
            {(Object.keys(ACTIONS) as (keyof typeof ACTIONS)[]).map((one) => (
              <PlainKey
                key={one}
                className="-ml-[1.5px] px-4!"
                aria-pressed={action === one}
                onClick={() => setValue('action', one)}
              >
                {ACTIONS[one]}
              </PlainKey>
            ))}
          </span>
          {action === 'nothing' ? null : (
            <Field label="Part" className="w-[150px]">
              <select
                className={FIELD}
                value={part}
                onChange={(event) => setValue('part', event.target.value)}
              >
                {proposed === '' ? <option value="">choose</option> : null}
                {parts.map(({ ref }) => (
                  <option key={ref}>{ref}</option>
                ))}
              </select>
            </Field>
          )}
        </div>
        {action === 'nothing' ? null : <Costs form={form} />}
        {toClear.length > 0 ? (
          <fieldset className="py-2">
            <legend className="text-[16px] font-[700]">First clear what would do it again</legend>
            {toClear.map((one) => (
              <label key={one} className="flex min-h-11 items-center gap-3">
                <input
                  type="checkbox"
                  className="size-6 accent-pencil"
                  value={one}
                  {...register('cleared')}
                />
                {one}
              </label>
            ))}
          </fieldset>
        ) : null}
        <Field label="In a sentence">
          <input className={FIELD} maxLength={1000} {...register('why')} />
        </Field>
        {reason ? (
          <Field label={`The readings do not name ${part} yet. Why all the same?`} className="mt-2">
            <input className={FIELD} maxLength={500} {...register('against')} />
          </Field>
        ) : null}
        {trouble ? <Trouble>{trouble}</Trouble> : null}
        <div className="flex flex-wrap items-center gap-3 py-3">
          <MainKey type="submit" disabled={left.length > 0 || (reason && watch('against').trim() === '')}>
            Decide
          </MainKey>
          {left.length > 0 ? (
            <span className="text-[16px] text-copper-ink">Not before the list above is clear.</span>
          ) : null}
          {onLeave ? <PlainKey onClick={onLeave}>Leave as it was</PlainKey> : null}
        </div>
      </Form>
      <Hold>
        <BeforeChange />
      </Hold>
    </section>
  );
}

/** Repair against replacement, by time and money. */
function Costs({
  form: { register, watch },
}: {
  form: Pick<UseFormReturn<DecisionFields>, 'register' | 'watch'>;
}) {
  return (
    <table className="w-full text-left text-[16px]">
      <thead className="text-[15.5px] text-ink2">
        <tr>
          <th className="font-[600]">By cost and time</th>
          <th className="font-[600]">Minutes</th>
          <th className="font-[600]">Parts cost</th>
          <th className="font-[600]">
            All, at{' '}
            <input
              aria-label="Shop rate an hour"
              className="fig h-8 w-14 border-[1.5px] border-edge bg-sheet px-1"
              inputMode="decimal"
              {...register('rate')}
            />{' '}
            an hour
          </th>
        </tr>
      </thead>
      <tbody>
        {COSTED.map((one) => (
          <tr key={one}>
            <td className="py-1">{ACTIONS[one]}</td>
            {(['minutes', 'cost'] as const).map((name) => (
              <td key={name} className="py-1 pr-2">
                <input
                  aria-label={`${one}, ${name === 'cost' ? 'parts cost' : 'minutes'}`}
                  className={`${FIELD} fig max-w-[110px]`}
                  inputMode="decimal"
                  {...register(`${one}.${name}`)}
                />
              </td>
            ))}
            <td className="fig py-1">{totalCost(watch(one), watch('rate')) ?? ''}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
