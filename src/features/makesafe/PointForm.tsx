'use client';

import { useState } from 'react';
import { useForm } from 'react-hook-form';
import type { GaugeMark } from '@/core/units/quantities';
import type { EntryOf, Measured } from '@/core/job/entries';
import { provedDead, readProofStep, type ProofRefusal, type ProofStep } from '@/core/job/rules/provedDead';
import type { IsolationPoint } from '@/core/safety/isolationPlan';
import { Field, FIELD, MainKey, Trouble } from '@/ui/sheet';
import { ENERGY_WORDS } from '@/words/en/energies';
import { pointName, quantity, type Speaker } from '@/words/en/readings';
import { proofRefusalWords } from '@/words/en/refusals';
import { useDesk } from '../desk/desk';
import { Form } from '@/ui/Form';

interface Fields {
  how: string;
  lock: string;
  tag: string;
  released: string;
  meter: string;
  knownBefore: string;
  knownAfter: string;
  work: { typed: string }[];
  gauge: string;
  tried: string;
}

type Body = EntryOf<'isolation'>['body'];

/** The place of a proof as a person finds it. */
export function placeWords(speaker: Speaker, from: string, to: string): string {
  const frame = speaker.model.compiled.circuit.frame;
  return `${pointName(speaker, from)} to ${to === frame ? 'frame' : pointName(speaker, to)}`;
}

const FLUID: readonly string[] = ['air', 'oil', 'vacuum'];

/** What was typed, as an entry of the log; or the first thing that speaks against it. */
export function isolationBody(
  point: IsolationPoint,
  fields: Fields,
  gaugeUnit: GaugeMark,
): Body | ProofRefusal {
  const { how, lock, tag, released, meter } = fields;
  const common = { point: point.point, energy: point.energy, how, lock, tag, released };
  const refused = (one: Measured | ProofRefusal): one is ProofRefusal => 'code' in one;
  const read = (typed: string, step: ProofStep) => readProofStep(typed, step, gaugeUnit);
  if (point.prove.length > 0) {
    const knownBefore = read(fields.knownBefore, { at: 'knownBefore' });
    if (refused(knownBefore)) return knownBefore;
    const work = [];
    for (const [at, { from, to }] of point.prove.entries()) {
      const measured = read(fields.work[at]?.typed ?? '', { at: 'work', from, to });
      if (refused(measured)) return measured;
      work.push({ from, to, measured });
    }
    const knownAfter = read(fields.knownAfter, { at: 'knownAfter' });
    if (refused(knownAfter)) return knownAfter;
    const body: Body = { ...common, proved: { meter: meter.trim(), knownBefore, work, knownAfter } };
    return provedDead(point, body) ?? body;
  }
  const gauge = fields.gauge.trim() === '' ? null : read(fields.gauge, { at: 'gauge' });
  if (gauge && refused(gauge)) return gauge;
  const body: Body = { ...common, tried: fields.tried.trim(), ...(gauge ? { gauge } : {}) };
  return provedDead(point, body) ?? body;
}

/** A point of the plan, closed, locked, released and proved. */
export function PointForm({ point, onDone }: { point: IsolationPoint; onDone: () => void }) {
  const { log, speaker } = useDesk();
  const words = ENERGY_WORDS[point.energy];
  // What was said when it was last closed stands there still; its proof does not: that is taken anew.
  const last = log.entries.findLast((one) => one.type === 'isolation' && one.body.point === point.point);
  const before = last?.type === 'isolation' ? last.body : null;
  const [trouble, setTrouble] = useState<string | null>(null);
  const { register, handleSubmit } = useForm<Fields>({
    defaultValues: {
      how: before?.how ?? point.how ?? words.how,
      lock: before?.lock ?? '',
      tag: before?.tag ?? '',
      // Nobody has released anything yet: what it takes stands in the label.
      released: before?.released ?? '',
      meter: before?.proved?.meter ?? '',
      knownBefore: '',
      knownAfter: '',
      work: point.prove.map(() => ({ typed: '' })),
      gauge: '',
      tried: '',
    },
  });
  const metered = point.prove.length > 0;
  const close = handleSubmit((fields) => {
    const body = isolationBody(point, fields, speaker.gaugeUnit);
    if ('code' in body) return setTrouble(proofRefusalWords(named(speaker, body), speaker.gaugeUnit));
    log.write({ type: 'isolation', body });
    onDone();
  });
  return (
    <Form
      className="mb-3 border-2 border-ink bg-sheet p-4"
      onSubmit={(event) => void close(event)}
      aria-label={`Close ${point.label}`}
    >
      <p className="pb-2 text-[16px] font-[650]">{words.say}</p>
      <div className="grid grid-cols-3 gap-x-3 gap-y-2 max-tablet:grid-cols-1">
        <Field label="How it is isolated" className="col-span-full">
          <input className={FIELD} {...register('how')} />
        </Field>
        <Field label={`Stored energy released (${words.release.toLowerCase()})`} className="col-span-full">
          <input className={FIELD} {...register('released')} />
        </Field>
        <Field label="Lock number">
          <input className={FIELD} maxLength={40} {...register('lock')} />
        </Field>
        <Field label="Tag number">
          <input className={FIELD} maxLength={40} {...register('tag')} />
        </Field>
        {metered ? (
          <Field label="Meter">
            <input className={FIELD} maxLength={60} {...register('meter')} />
          </Field>
        ) : null}
      </div>
      {metered ? (
        <fieldset className="mt-2">
          <legend className="text-[15.5px] font-[700]">
            Proved dead, volts ({words.proof.toLowerCase()})
          </legend>
          <div className="flex flex-wrap gap-3">
            <Field label="Known source" className="w-[168px]">
              <input
                className={`${FIELD} fig`}
                inputMode="decimal"
                maxLength={40}
                {...register('knownBefore')}
              />
            </Field>
            {point.prove.map(({ from, to, volts }, at) => (
              <Field
                key={`${from}|${to}`}
                label={`${placeWords(speaker, from, to)} (was ${quantity('volts', volts)})`}
                className="w-[168px]"
              >
                <input
                  className={`${FIELD} fig`}
                  inputMode="decimal"
                  maxLength={40}
                  {...register(`work.${at}.typed`)}
                />
              </Field>
            ))}
            <Field label="Known source again" className="w-[168px]">
              <input
                className={`${FIELD} fig`}
                inputMode="decimal"
                maxLength={40}
                {...register('knownAfter')}
              />
            </Field>
          </div>
        </fieldset>
      ) : (
        <div className="mt-2 flex flex-wrap gap-3">
          <Field label={`Shown by (${words.proof.toLowerCase()})`} className="min-w-[260px] flex-1">
            <input className={FIELD} maxLength={500} {...register('tried')} />
          </Field>
          {FLUID.includes(point.energy) ? (
            <Field label={`Gauge, ${speaker.gaugeUnit}`} className="w-[168px]">
              <input className={`${FIELD} fig`} inputMode="decimal" maxLength={40} {...register('gauge')} />
            </Field>
          ) : null}
        </div>
      )}
      {trouble ? <Trouble>{trouble}</Trouble> : null}
      <MainKey type="submit" className="mt-3">
        Closed and proved
      </MainKey>
    </Form>
  );
}

/** A refusal with its place as a person finds it. */
function named(speaker: Speaker, refusal: ProofRefusal): ProofRefusal {
  if (!('step' in refusal) || refusal.step.at !== 'work') return refusal;
  const frame = speaker.model.compiled.circuit.frame;
  const { from, to } = refusal.step;
  return {
    ...refusal,
    step: { at: 'work', from: pointName(speaker, from), to: to === frame ? 'frame' : pointName(speaker, to) },
  };
}
