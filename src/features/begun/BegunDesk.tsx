'use client';

import { useSearchParams } from 'next/navigation';
import { useEffect, useMemo, useState } from 'react';
import { samePerson } from '@/core/people/roles';
import { PageHead } from '@/ui/PageHead';
import { WhoProvider } from '@/ui/who';
import { JobDesk } from '../desk/JobDesk';
import { begunIn, stepAddress, stepOf } from '../desk/steps';
import { KeptHere } from '../offline/KeptHere';
import { personHere } from '../offline/personHere';
import { factsOfBegun, type BegunJob } from './begunFacts';
import { findBegun } from './begunStore';

const LOOK_MS = 2000;

/** The desk of a job that was begun without the server; once the server has it, it is said where it is. */
export function BegunDesk() {
  const asked = useSearchParams();
  const local = begunIn(asked);
  const step = stepOf(asked.get('step'));
  const [job, setJob] = useState<BegunJob | 'none' | null>(null);
  const [number, setNumber] = useState<number | null>(null);
  useEffect(() => {
    let left = false;
    let first = true;
    const look = async () => {
      const found = local === null ? null : await findBegun(local);
      if (left) return;
      // Opened anew when it has its number already: it lies on its own page.
      if (first && found?.number)
        window.location.replace(
          stepAddress(found.number, stepOf(new URLSearchParams(window.location.search).get('step'))),
        );
      else if (first) setJob(found ?? 'none');
      else if (found?.number) setNumber(found.number);
      first = false;
    };
    void look();
    const timer = setInterval(() => void look(), LOOK_MS);
    return () => {
      left = true;
      clearInterval(timer);
    };
  }, [local]);
  const facts = useMemo(() => (job === null || job === 'none' ? null : factsOfBegun(job)), [job]);
  if (job === null) return null;
  if (job === 'none' || facts === null)
    return (
      <div className="min-h-dvh bg-sheet">
        <PageHead title="No job here" />
        <p className="px-6 pt-5 text-[19px] max-tablet:px-3">
          No such job was begun in this browser, or the browser has let it go.
        </p>
        <KeptHere />
      </div>
    );
  // Nobody writes in somebody else's name, also where no server could see it.
  if (!samePerson(personHere() ?? '', job.person))
    return (
      <div className="min-h-dvh bg-sheet">
        <PageHead title={job.title} under={`begun on this device by ${job.person}`} />
        <p className="px-6 pt-5 text-[19px] max-tablet:px-3" data-testid="somebody-elses">
          {job.person} began this job here, and it waits for them.{' '}
          <a className="underline underline-offset-4" href="/sign-in">
            Sign in as {job.person}
          </a>{' '}
          to go on with it.
        </p>
      </div>
    );
  return (
    <WhoProvider who={job.facts.me}>
      <JobDesk
        job={facts}
        notice={
          number === null ? null : (
            <p
              role="status"
              data-testid="arrived"
              className="flex min-h-11 shrink-0 flex-wrap items-center gap-x-3 border-b-2 border-ink bg-verdi-t px-6 py-1.5 text-[16px]"
            >
              The server has it now: it is job {number}.
              <a href={stepAddress(number, step)} className="font-[700] underline underline-offset-4">
                Go on there
              </a>
            </p>
          )
        }
      />
    </WhoProvider>
  );
}
