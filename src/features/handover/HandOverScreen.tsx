'use client';

import { Check, Download } from 'lucide-react';
import { useMemo } from 'react';
import { handOverStops } from '@/core/job/rules/handOverStops';
import { calendarDay, siteMoment } from '@/core/units/siteTime';
import { Link } from '@/ui/Link';
import { Heading, Nothing } from '@/ui/sheet';
import { stopWords } from '@/words/en/refusals';
import { useDesk } from '../desk/desk';
import { isBegun } from '../desk/steps';
import { StepLayout } from '../desk/StepLayout';
import { HandOverForm } from './HandOverForm';

/** What still stands between this job and the machine going out, and the report. */
export function HandOverScreen() {
  const { log, speaker, job } = useDesk();
  const { handOver } = log.state;
  const stops = useMemo(
    () => handOverStops(speaker.model, log.state).map((stop) => stopWords(speaker, stop)),
    [speaker, log.state],
  );
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
              <HandOverForm shut={stops.length > 0} />
            )}
          </section>
          <section aria-labelledby="report" className="mt-3">
            <Heading id="report">Report</Heading>
            <ReportFiles />
          </section>
        </>
      }
    />
  );
}

const SAVE =
  'inline-flex min-h-11 items-center gap-2 border-[1.5px] border-edge bg-sheet px-5 text-[17px] font-[650]';

/** The report and what else leaves the house of it; not before the server has all of it. */
function ReportFiles() {
  const { log, job } = useDesk();
  if (isBegun(job.number))
    return (
      <Nothing>
        The report is on the job’s own page, once the server has the job and has given it a number.
      </Nothing>
    );
  // A report that lacks what was just written would be signed as if it were whole.
  if (log.waiting.length > 0)
    return (
      <Nothing>
        {log.waiting.length === 1 ? 'One entry is' : `${log.waiting.length} entries are`} on the way to the
        server. The report is there when they are.
      </Nothing>
    );
  const base = `/api/jobs/${job.number}`;
  return (
    <div className="flex flex-wrap gap-3 py-3">
      <Link className={SAVE} href={`/jobs/${job.number}/report`}>
        See and print
      </Link>
      <a className={SAVE} href={`${base}/report.pdf`}>
        <Download size={20} aria-hidden /> PDF
      </a>
      <a className={SAVE} href={`${base}/job.json`}>
        <Download size={20} aria-hidden /> Everything, JSON
      </a>
      <a className={SAVE} href={`${base}/readings.csv`}>
        <Download size={20} aria-hidden /> Readings, CSV
      </a>
    </div>
  );
}
