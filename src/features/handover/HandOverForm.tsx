'use client';

import { useMemo, useState } from 'react';
import { useForm } from 'react-hook-form';
import { readPastLimits, stillDrifts } from '@/core/shed/readPastLimit';
import { Field, FIELD, MainKey, PlainKey } from '@/ui/sheet';
import { driftingWords, pastLimitLines } from '@/words/en/trends';
import { useDesk } from '../desk/desk';
import { dayAfter, siteToday } from '../siteDays';
import { nextRetest } from './nextRetest';

/** Offered where the site has said nothing. */
const USUAL_DAYS = 90;

/** What the driver is told, what is left, when it is looked at again, and the name under it. */
export function HandOverForm({ shut }: { shut: boolean }) {
  const { log, speaker, job, person } = useDesk();
  const { state } = log;
  const { retestDays, timeZone } = job.policy;
  const drifting = useMemo(
    () => stillDrifts(speaker.model, state, job.drifting),
    [speaker, state, job.drifting],
  );
  const today = siteToday(timeZone);
  // No day to test again until somebody says so, the site's policy or a trend: a date nobody chose must not stand on the report.
  const [proposed] = useState(() => nextRetest(today, retestDays, drifting));
  const { register, handleSubmit, setValue, watch } = useForm({
    defaultValues: { note: '', left: '', retest: proposed?.on ?? '' },
  });
  const days = retestDays ?? USUAL_DAYS;
  const close = handleSubmit(({ note, left, retest }) => {
    log.write({
      type: 'handOver',
      body: {
        note: note.trim(),
        left: left
          .split('\n')
          .map((line) => line.trim())
          .filter(Boolean),
        retest: retest || null,
      },
    });
  });
  return (
    <div className="space-y-2 py-2">
      <Field label="A word to the driver">
        <textarea className={`${FIELD} py-2`} rows={2} maxLength={2000} {...register('note')} />
      </Field>
      <Field label="Faults left, one a line">
        <textarea className={`${FIELD} py-2`} rows={2} {...register('left')} />
      </Field>
      <CodesLeft />
      <div className="flex flex-wrap items-end gap-3">
        <Field label="Re-test on" className="w-[220px]">
          <input type="date" className={`${FIELD} fig`} {...register('retest')} />
        </Field>
        <PlainKey onClick={() => setValue('retest', dayAfter(today, days))}>In {days} days</PlainKey>
      </div>
      {proposed && watch('retest') === proposed.on ? (
        <p className="text-[15.5px] text-ink2">
          {proposed.by === 'policy'
            ? `By the site’s policy: ${days} days. Change or empty it as this machine needs it.`
            : 'By what drifts on it. Change or empty it as this machine needs it.'}
        </p>
      ) : null}
      <PastLimits />
      {drifting ? (
        <p className="text-[16px] text-copper-ink" data-testid="drifting">
          {driftingWords(drifting)}
          {drifting.on && drifting.on > today ? (
            <PlainKey className="ml-3 px-3! text-[15.5px]!" onClick={() => setValue('retest', drifting.on!)}>
              Look again by then
            </PlainKey>
          ) : null}
        </p>
      ) : null}
      <MainKey disabled={shut} onClick={() => void close()}>
        Hand over as {person}
      </MainKey>
      {shut ? <p className="text-[16px] text-ink2">Not before the list is empty.</p> : null}
    </div>
  );
}

/** Codes that are still there. */
function CodesLeft() {
  const { codes } = useDesk().log.state;
  const left = codes.filter(({ present }) => present).map(({ key }) => key);
  return left.length === 0 ? null : (
    <p className="text-[16px] text-copper-ink">Codes that remain go on the report: {left.join(', ')}.</p>
  );
}

/** What goes out past its limit, as it was read last. */
function PastLimits() {
  const { log, speaker, job } = useDesk();
  const past = useMemo(
    () => readPastLimits(speaker.model, log.state, job.marks),
    [speaker, log.state, job.marks],
  );
  return past.length === 0 ? null : (
    <div className="text-[16px] text-copper-ink" data-testid="past-limits">
      <p>As read last, and on the report. Mend it, or look again soon:</p>
      <ul className="list-disc pl-5">
        {pastLimitLines(speaker, past).map((line) => (
          <li key={line}>{line}.</li>
        ))}
      </ul>
    </div>
  );
}
