'use client';

import type { ComponentProps } from 'react';
import { useDesk } from './desk';
import type { StepId } from '@/core/job/rules/stepsDone';
import { stepAddress } from './steps';

/**
 * A link to a step of this job. The desk lies open already: the address changes and the screen with it, without a trip to
 * the server; opened in another tab it is a page like any other.
 */
export function StepLink({
  step,
  query = {},
  onClick,
  ...more
}: { step: StepId; query?: Readonly<Record<string, string>> } & Omit<ComponentProps<'a'>, 'href'>) {
  const { job } = useDesk();
  const href = stepAddress(job.number, step, query);
  return (
    <a
      {...more}
      href={href}
      onClick={(event) => {
        onClick?.(event);
        const elsewhere =
          event.metaKey || event.ctrlKey || event.shiftKey || event.altKey || event.button !== 0;
        if (event.defaultPrevented || elsewhere) return;
        event.preventDefault();
        // Next reads the address it is given here and tells everything that looks at it.
        window.history.pushState(null, '', href);
      }}
    />
  );
}
