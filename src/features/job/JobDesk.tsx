'use client';

import dynamic from 'next/dynamic';
import { DeskProvider, useDesk, type JobFacts } from './desk';
import { JobHead } from './JobHead';
import { NotBuilt } from './NotBuilt';
import { stepsDone } from './progress';
import { SaveStrip } from './SaveStrip';
import { BUILT, type StepId } from './steps';

/** Each step's screen travels to the browser only when it is opened. */
const SCREENS: Partial<Record<StepId, React.ComponentType>> = {
  complaint: dynamic(() => import('../complaint/ComplaintScreen').then((one) => one.ComplaintScreen)),
  test: dynamic(() => import('../test/TestScreen').then((one) => one.TestScreen)),
};

/** A job on the desk: head, the step that is open, and what still waits for the server. */
export function JobDesk({ job, step }: { job: JobFacts; step: StepId }) {
  return (
    <DeskProvider job={job}>
      <div className="flex h-dvh min-h-[600px] flex-col">
        <OpenStep step={step} />
      </div>
    </DeskProvider>
  );
}

function OpenStep({ step }: { step: StepId }) {
  const { job, log, outlook } = useDesk();
  const Screen = SCREENS[step];
  return (
    <>
      <JobHead job={job} step={step} done={stepsDone(log.state, outlook?.diagnosis.verdict ?? null)} />
      {Screen && BUILT.includes(step) ? <Screen /> : <NotBuilt step={step} number={job.number} />}
      <SaveStrip log={log} />
    </>
  );
}
