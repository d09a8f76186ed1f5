'use client';

import { Check, Download } from 'lucide-react';
import { Link } from '@/ui/Link';
import { useMemo, useState } from 'react';
import { useForm } from 'react-hook-form';
import { handOverStops } from '@/core/job/rules/handOverStops';
import { readPastLimits, stillDrifts } from '@/core/shed/readPastLimit';
import { driftingWords, pastLimitLines } from '@/words/en/trends';
import { nextRetest } from './nextRetest';
import { calendarDay, siteMoment } from '@/core/units/siteTime';
import { Field, FIELD, Heading, MainKey, Nothing, PlainKey } from '@/ui/sheet';
import { useDesk } from '../desk/desk';
import { isBegun } from '../desk/steps';
import { StepLayout } from '../desk/StepLayout';
import { dayAfter, siteToday } from '../siteDays';
import { stopWords } from '@/words/en/refusals';

/** Offered where the site has said nothing. */
const USUAL_DAYS = 90;
/** What still stands between this job and the machine going out, and the report. */
export function HandOverScreen() {
  const { log, speaker, job, person } = useDesk();
  const { state } = log;
  const found = useMemo(() => handOverStops(speaker.model, state), [speaker, state]);
  const { handOver } = state;
  const remaining = state.codes.filter(({ present }) => present);
  // No day to test again until somebody says so, the site's policy or a trend: a date nobody chose must not stand on the report.
  const { retestDays } = job.policy;
  const past = useMemo(() => readPastLimits(speaker.model, state, job.marks), [speaker, state, job.marks]);
  const drifting = useMemo(
    () => stillDrifts(speaker.model, state, job.drifting),
    [speaker, state, job.drifting],
  );
  const today = siteToday(job.policy.timeZone);
  const [proposed] = useState(() => nextRetest(today, retestDays, drifting));
  const { register, handleSubmit, setValue, watch } = useForm({
    defaultValues: { note: '', left: '', retest: proposed?.on ?? '' },
  });
  const days = retestDays ?? USUAL_DAYS;
  const stops = found.map((stop) => stopWords(speaker, stop));
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
  const save =
    'inline-flex min-h-11 items-center gap-2 border-[1.5px] border-edge bg-sheet px-5 text-[17px] font-[650]';
  const base = `/api/jobs/${job.number}`;
  return (
    <StepLayout
      left={
        <section aria-labelledby="stops">
          <Heading id="stops" aside={stops.length === 0 ? 'nothing' : `${stops.length}`}>
            Still in the way
          </Heading>
          {stops.length === 0 ? (
            <p className="flex items-center gap-2 py-3 text-[18px] text-verdi">
              <Check size={20} strokeWidth={3} aria-hidden /> Everything is shown or signed off.
            </p>
          ) : (
            <ul data-testid="stops">
              {stops.map((stop) => (
                <li key={stop} className="flex min-h-11 items-center border-b-[1.5px] border-rule">
                  {stop}
                </li>
              ))}
            </ul>
          )}
        </section>
      }
      right={
        <>
          <section aria-labelledby="hand">
            <Heading id="hand">Hand over</Heading>
            {handOver ? (
              <div className="py-3 text-[18px]" data-testid="handed-over">
                <p className="font-[720] text-verdi">
                  ✓ Handed over by {handOver.person}, {siteMoment(handOver.at, job.policy.timeZone)}
                </p>
                {handOver.body.note ? <p>{handOver.body.note}</p> : null}
                {handOver.body.retest ? <p>Re-test {calendarDay(handOver.body.retest)}</p> : null}
              </div>
            ) : (
              <div className="space-y-2 py-2">
                <Field label="A word to the driver">
                  <textarea className={`${FIELD} py-2`} rows={2} maxLength={2000} {...register('note')} />
                </Field>
                <Field label="Faults left, one a line">
                  <textarea className={`${FIELD} py-2`} rows={2} {...register('left')} />
                </Field>
                {remaining.length > 0 ? (
                  <p className="text-[16px] text-copper-ink">
                    Codes that remain go on the report: {remaining.map(({ key }) => key).join(', ')}.
                  </p>
                ) : null}
                <div className="flex flex-wrap items-end gap-3">
                  <Field label="Re-test on" className="w-[220px]">
                    <input type="date" className={`${FIELD} fig`} {...register('retest')} />
                  </Field>
                  <PlainKey onClick={() => setValue('retest', dayAfter(today, days))}>
                    In {days} days
                  </PlainKey>
                </div>
                {proposed && watch('retest') === proposed.on ? (
                  <p className="text-[15.5px] text-ink2">
                    {proposed.by === 'policy'
                      ? `By the site’s policy: ${days} days. Change or empty it as this machine needs it.`
                      : 'By what drifts on it. Change or empty it as this machine needs it.'}
                  </p>
                ) : null}
                {past.length > 0 ? (
                  <div className="text-[16px] text-copper-ink" data-testid="past-limits">
                    <p>As read last, and on the report. Mend it, or look again soon:</p>
                    <ul className="list-disc pl-5">
                      {pastLimitLines(speaker, past).map((line) => (
                        <li key={line}>{line}.</li>
                      ))}
                    </ul>
                  </div>
                ) : null}
                {drifting ? (
                  <p className="text-[16px] text-copper-ink" data-testid="drifting">
                    {driftingWords(drifting)}
                    {drifting.on && drifting.on > today ? (
                      <PlainKey
                        className="ml-3 px-3! text-[15.5px]!"
                        onClick={() => setValue('retest', drifting.on!)}
                      >
                        Look again by then
                      </PlainKey>
                    ) : null}
                  </p>
                ) : null}
                <MainKey disabled={stops.length > 0} onClick={() => void close()}>
                  Hand over as {person}
                </MainKey>
                {stops.length > 0 ? (
                  <p className="text-[16px] text-ink2">Not before the list is empty.</p>
                ) : null}
              </div>
            )}
          </section>
          <section aria-labelledby="report" className="mt-3">
            <Heading id="report">Report</Heading>
            {isBegun(job.number) ? (
              <Nothing>
                The report is on the job’s own page, once the server has the job and has given it a number.
              </Nothing>
            ) : log.waiting.length > 0 ? (
              // A report that lacks what was just written would be signed as if it were whole.
              <Nothing>
                {log.waiting.length === 1 ? 'One entry is' : `${log.waiting.length} entries are`} on the way
                to the server. The report is there when they are.
              </Nothing>
            ) : (
              <div className="flex flex-wrap gap-3 py-3">
                <Link className={save} href={`/jobs/${job.number}/report`}>
                  See and print
                </Link>
                <a className={save} href={`${base}/report.pdf`}>
                  <Download size={20} aria-hidden /> PDF
                </a>
                <a className={save} href={`${base}/job.json`}>
                  <Download size={20} aria-hidden /> Everything, JSON
                </a>
                <a className={save} href={`${base}/readings.csv`}>
                  <Download size={20} aria-hidden /> Readings, CSV
                </a>
              </div>
            )}
          </section>
        </>
      }
    />
  );
}
