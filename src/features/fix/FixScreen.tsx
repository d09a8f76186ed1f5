'use client';

import { kindOf } from '@/core/kinds/part';
import { Check } from 'lucide-react';
import { BeforeChange } from '../desk/BeforeChange';
import { StepLink } from '../desk/StepLink';
import { useEffect, useMemo, useState } from 'react';
import { useForm } from 'react-hook-form';
import { Field, FIELD, Heading, Hold, MainKey, Nothing } from '@/ui/sheet';
import { WireMap } from '../asfound/WireMap';
import { decisionNow } from '@/core/job/worksOf';
import { useDesk } from '../desk/desk';
import { FigureForm } from '../desk/FigureForm';
import { StepLayout } from '../desk/StepLayout';
import { benchChecks, benchOpen, soundSpare } from '@/core/job/rules/spareOnBench';
import { measureWords, wantedOnBench } from '@/words/en/bench';
import { partWords } from '@/words/en/readings';
import { WorksDone } from './WorksDone';
import { OfferedSpares } from '../spares/OfferedSpares';
import { spareRatings } from './spareRatings';
import { Form } from '@/ui/Form';
import { blownFuses, spentFuses } from '@/core/job/blownFuses';
import { renewWords, spentWords } from '@/words/en/findings';
import { licensedWords } from '@/words/en/holds';
import { licensedNames } from '@/core/people/roles';
import { isOfRefrigerant } from '@/core/safety/refrigerant';

/** The right spare by ratings, measured before it is fitted; what was done; wires back by the map. */
export function FixScreen() {
  const { job, log, speaker } = useDesk();
  const decision = decisionNow(log.state);
  const part = decision?.body.part ?? '';
  // Taken from the shelf: its number goes into the form, and off the shelf with the fix.
  const [spare, setSpare] = useState('');
  return (
    <StepLayout
      part={part}
      left={
        decision ? (
          <>
            {isOfRefrigerant(speaker.model, part) && decision.body.action !== 'nothing' ? (
              <Hold>{licensedWords(licensedNames(job.people, 'refrigerant'))}</Hold>
            ) : null}
            {decision.body.action === 'replace' ? (
              <Spare key={part} part={part} chosen={spare} onChoose={setSpare} />
            ) : null}
            <FixForm key={decision.id} part={part} spare={spare} onFitted={() => setSpare('')} />
          </>
        ) : (
          <section>
            <Heading>Fix</Heading>
            <Nothing>
              {log.state.decision
                ? 'Something is still wrong, and nothing is decided since.'
                : 'Nothing is decided yet.'}{' '}
              <StepLink className="underline underline-offset-4" step="decide">
                Decide first
              </StepLink>
            </Nothing>
          </section>
        )
      }
      right={
        <>
          <WorksDone />
          <WireMap phase="left" />
        </>
      }
    />
  );
}

function Spare({
  part,
  chosen,
  onChoose,
}: {
  part: string;
  chosen: string;
  onChoose: (number: string) => void;
}) {
  const { speaker, log, job } = useDesk();
  const ratings = useMemo(() => spareRatings(speaker.model, part, speaker.gaugeUnit), [speaker, part]);
  const checks = useMemo(() => benchChecks(speaker.model, part), [speaker, part]);
  const tests = log.state.sparesInHand.filter(({ body }) => body.part === part);
  return (
    <section aria-labelledby="spare">
      <Heading id="spare" aside="matched and read before it is fitted">
        Spare for {partWords(speaker, part)}
      </Heading>
      <dl className="grid grid-cols-[170px_1fr] gap-x-4 py-2 text-[16.5px]">
        {ratings.map(({ name, wanted }) => (
          <div key={name} className="contents">
            <dt className="text-ink2">{name}</dt>
            <dd className="fig">{wanted}</dd>
          </div>
        ))}
      </dl>
      <OfferedSpares job={job.number} part={part} chosen={chosen} onChoose={onChoose} />
      {checks.map((check) => (
        <div key={check.measure} className="flex flex-wrap items-center gap-3 pb-2">
          <span className="text-[17px]">
            Spare on the bench, {measureWords(check.measure)}:{' '}
            <span className="fig">{wantedOnBench(check)}</span>
          </span>
          <FigureForm
            quantity={check.quantity}
            label={`Spare, ${measureWords(check.measure)}`}
            takesOverRange
            onPin={({ value, typed }) =>
              log.write({
                type: 'spareTest',
                body: {
                  part,
                  measure: measureWords(check.measure),
                  bench: check.measure,
                  value,
                  typed,
                  good: soundSpare(value, check),
                },
              })
            }
          />
        </div>
      ))}
      {checks.length === 0 ? (
        <p className="pb-2 text-[16.5px] text-ink2">
          A meter on the bench tells nothing of it; match it by the label.
        </p>
      ) : null}
      {tests.map(({ id, body }) => (
        <p
          key={id}
          className={`flex items-center gap-2 py-1 ${body.good ? 'text-verdi' : 'text-stamp'}`}
          data-testid="spare-test"
        >
          {body.good ? <Check size={18} strokeWidth={3} aria-hidden /> : '✕'}{' '}
          <span className="fig">{body.typed}</span> {body.measure}:{' '}
          {body.good ? 'as it should be' : 'not as it should be, do not fit it'}
        </p>
      ))}
    </section>
  );
}

const BLANK_FIX = { work: '', spare: '', serial: '', dated: '', torque: '', seals: '', untested: '' };
/** As much as the record takes of each. */
const LONGEST = {
  work: 1000,
  spare: 120,
  serial: 60,
  dated: 40,
  torque: 120,
  seals: 200,
  untested: 500,
} as const;

function FixForm({ part, spare, onFitted }: { part: string; spare: string; onFitted: () => void }) {
  const { log, speaker, outlook } = useDesk();
  const { traits } = kindOf(speaker.model.compiled.circuit.parts.find(({ ref }) => ref === part)!);
  const { register, handleSubmit, reset, watch, setValue } = useForm({ defaultValues: BLANK_FIX });
  useEffect(() => setValue('spare', spare), [spare, setValue]);
  const replacing = log.state.decision?.body.action === 'replace';
  const unread = useMemo(() => benchOpen(speaker.model, log.state, part), [speaker, log.state, part]);
  const blown = blownFuses(
    speaker.model,
    log.state.readings.map(({ reading }) => reading),
  ).filter(({ ref }) => ref !== part);
  const spent = spentFuses(speaker.model, outlook?.diagnosis.verdict ?? null, part);
  const fuses = [
    ...blown.map((fuse) => renewWords(speaker, fuse)),
    ...spent.map((fuse) => spentWords(speaker, fuse)),
  ];
  const [work, untested] = watch(['work', 'untested']);
  const waits = unread.length > 0 && untested.trim() === '';
  const text = (key: keyof typeof BLANK_FIX, label: string, className = '') => (
    <Field label={label} className={className}>
      <input className={FIELD} maxLength={LONGEST[key]} {...register(key)} />
    </Field>
  );
  const write = handleSubmit(({ untested: reason, ...fix }) => {
    if (fix.work.trim() === '' || waits) return;
    const fitted = unread.length > 0 ? { untested: reason.trim() } : {};
    log.write({
      type: 'fix',
      body: { ...fix, ...fitted, part, dated: replacing ? fix.dated : '', ratings: {} },
    });
    reset(BLANK_FIX);
    onFitted();
  });
  return (
    <Form
      aria-label="What is done"
      className="grid grid-cols-2 gap-x-3 gap-y-2 pt-1 max-tablet:grid-cols-1"
      onSubmit={(event) => void write(event)}
    >
      <div className="col-span-full">
        <Heading>Fix</Heading>
        <Hold>
          <BeforeChange />
        </Hold>
        {fuses.map((fuse) => (
          <p key={fuse} className="py-1 text-[17px]" data-testid="blown">
            {fuse}
          </p>
        ))}
      </div>
      {text('work', 'What was done', 'col-span-full')}
      {replacing ? (
        <>
          {text('spare', 'Spare, part number')}
          {text('serial', 'Serial or batch')}
          {text('dated', 'Date written on the part')}
        </>
      ) : null}
      {text('torque', 'Torque')}
      {text('seals', 'Seals and covers')}
      {unread.length > 0 ? (
        <div className="col-span-full">
          <Hold>
            The spare is not yet read on the bench:{' '}
            {unread.map(({ measure }) => measureWords(measure)).join('; ')}. A new part can be the wrong one,
            or broken.
          </Hold>
          {text('untested', 'Fitted without that reading, because')}
        </div>
      ) : null}
      <div className="col-span-full flex flex-wrap items-center gap-3 pb-2">
        <MainKey type="submit" disabled={work.trim() === '' || waits}>
          Write it down
        </MainKey>
      </div>
      <div className="col-span-full">
        <Hold>
          {traits.fluid
            ? 'No fitting is opened under pressure: gauge at zero on both sides first. A line on the wrong port is a new fault. '
            : ''}
          {!traits.fluid || traits.contact
            ? 'Never fit a larger fuse or a wire in place of one. A wire on the wrong terminal is a new fault.'
            : ''}
        </Hold>
      </div>
    </Form>
  );
}
