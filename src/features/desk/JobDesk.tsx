'use client';

import dynamic from 'next/dynamic';
import type { ComponentType, ReactNode } from 'react';
import { DeskProvider, useDesk, type JobFacts } from './desk';
import { JobHead } from './JobHead';
import { useSearchParams } from 'next/navigation';
import { stepsDone, type StepId } from '@/core/job/rules/stepsDone';
import { may } from '@/core/people/roles';
import { mayNotWords } from '@/words/en/people';
import { useReady } from '@/ui/useReady';
import { HandedOver } from './HandedOver';
import { SaveStrip } from './SaveStrip';
import { stepAddress, stepOf } from './steps';

/** A screen that takes no press before its own script is there: one that came too soon would be lost, or tick what is not ticked. */
function awake(Screen: ComponentType): ComponentType {
  return function Awake() {
    const ready = useReady();
    return (
      <div className="contents" inert={!ready}>
        <Screen />
      </div>
    );
  };
}

/** Each step's screen travels to the browser only when it is opened. */
const SCREENS: Record<StepId, ComponentType> = {
  complaint: dynamic(() => import('../complaint/ComplaintScreen').then((one) => awake(one.ComplaintScreen))),
  locate: dynamic(() => import('../locate/LocateScreen').then((one) => awake(one.LocateScreen))),
  'make-safe': dynamic(() => import('../makesafe/MakeSafeScreen').then((one) => awake(one.MakeSafeScreen))),
  'as-found': dynamic(() => import('../asfound/AsFoundScreen').then((one) => awake(one.AsFoundScreen))),
  test: dynamic(() => import('../measure/TestScreen').then((one) => awake(one.TestScreen))),
  decide: dynamic(() => import('../decide/DecideScreen').then((one) => awake(one.DecideScreen))),
  fix: dynamic(() => import('../fix/FixScreen').then((one) => awake(one.FixScreen))),
  prove: dynamic(() => import('../prove/ProveScreen').then((one) => awake(one.ProveScreen))),
  'hand-over': dynamic(() => import('../handover/HandOverScreen').then((one) => awake(one.HandOverScreen))),
};

/** A job on the desk: head, the step that is open, and what still waits for the server. */
export function JobDesk({
  job,
  notice = null,
}: {
  job: JobFacts;
  /** Said under the head. */ notice?: ReactNode;
}) {
  const step = stepOf(useSearchParams().get('step'));
  return (
    <DeskProvider key={`${job.number} ${job.me.name}`} job={job}>
      <div className="flex h-[calc(100dvh-var(--strips,0px))] min-h-[600px] flex-col print:block print:h-auto">
        <OpenStep step={step} notice={notice} />
      </div>
    </DeskProvider>
  );
}

/** Many readings beside each other are a way of testing. */
const Sheets = dynamic(() => import('../sheets/SheetScreen').then((one) => awake(one.SheetScreen)));

const Trace = dynamic(() => import('../trace/TraceScreen').then((one) => awake(one.TraceScreen)));

function OpenStep({ step, notice }: { step: StepId; notice: ReactNode }) {
  const { job, log, outlook } = useDesk();
  const sheet = useSearchParams().get('sheet');
  const writes = may(job.me.role, 'work');
  const Screen = step === 'test' && sheet !== null ? (sheet === 'trace' ? Trace : Sheets) : SCREENS[step];
  return (
    <>
      <JobHead job={job} step={step} done={stepsDone(log.state, outlook?.diagnosis.verdict ?? null)} />
      {notice}
      {writes ? (
        <Screen />
      ) : (
        <fieldset disabled className="contents">
          <Screen />
        </fieldset>
      )}
      {writes ? null : (
        <p
          role="status"
          className="shrink-0 border-t-2 border-ink bg-pencil-t px-6 py-1.5 text-[15.5px]"
          data-testid="reads-only"
        >
          {mayNotWords(job.me.role, 'work')} You look at this job.
        </p>
      )}
      <HandedOver writes={writes} />
      <SaveStrip log={log} here={stepAddress(job.number, step)} person={job.me.name} />
    </>
  );
}
