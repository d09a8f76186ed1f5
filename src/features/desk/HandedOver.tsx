'use client';

import { siteMoment } from '@/core/units/siteTime';
import { entryWords } from '@/words/en/refusals';
import { useDesk } from './desk';
import { StepLink } from './StepLink';

/** On a job that was handed over: what is written here takes the machine back in hand. On one that was overtaken: by what. */
export function HandedOver({ writes }: { writes: boolean }) {
  const { log, job } = useDesk();
  const { handOver, overtaken } = log.state;
  if (overtaken)
    return (
      <p
        role="alert"
        className="shrink-0 border-t-2 border-stamp bg-stamp-t px-6 py-1.5 text-[15.5px] text-stamp"
        data-testid="overtaken"
      >
        <strong>Handed over by {overtaken.handOver.person} before this came:</strong>{' '}
        {entryWords(overtaken.by)}, {overtaken.by.person}, {siteMoment(overtaken.by.at, job.policy.timeZone)}.
        The machine is in hand again: fetch it back if it is out, look at what came, and{' '}
        <StepLink step="hand-over" className="underline underline-offset-4">
          hand it over anew
        </StepLink>
        .
      </p>
    );
  return handOver && writes ? (
    <p
      role="status"
      className="shrink-0 border-t-2 border-ink bg-pencil-t px-6 py-1.5 text-[15.5px]"
      data-testid="handed-over-since"
    >
      Handed over by {handOver.person}. What is read, decided or done here takes the machine back in hand.
    </p>
  ) : null;
}
