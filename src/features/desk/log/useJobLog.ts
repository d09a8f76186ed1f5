'use client';

import { useEffect, useMemo, useState, useSyncExternalStore } from 'react';
import { v7 as uuidv7 } from 'uuid';
import { aloneInBrowser } from './alone';
import { JobLog, type LogView } from './JobLog';
import type { SentEntry } from './protocol';
import { transportOf } from '../../begun/transportOf';
import { waitingStore } from './waitingStore';

export type { Draft } from './JobLog';
export interface OpenLog extends LogView, Pick<JobLog, 'write' | 'mend' | 'drop'> {}

/** A job's log as a page shows it. */
export function useJobLog(jobNumber: number, initial: readonly SentEntry[], person: string): OpenLog {
  // The log outlives a page that is read again from the server: what that brings comes over the line as well.
  const [log] = useState(
    () =>
      new JobLog(initial, person, waitingStore(jobNumber), transportOf(jobNumber), {
        now: () => new Date(),
        newId: uuidv7,
        random: Math.random,
        setTimer: (work, milliseconds) => {
          const timer = setTimeout(work, milliseconds);
          return () => clearTimeout(timer);
        },
        alone: (work) => aloneInBrowser(`spiraxis-send-${jobNumber}`, work),
      }),
  );
  useEffect(() => {
    const stop = log.start();
    const look = () => log.setAway(document.hidden);
    document.addEventListener('visibilitychange', look);
    window.addEventListener('online', look);
    return () => {
      document.removeEventListener('visibilitychange', look);
      window.removeEventListener('online', look);
      stop();
    };
  }, [log]);
  const view = useSyncExternalStore(log.subscribe, log.view, log.view);
  useEffect(() => {
    if (!view.unkept) return;
    // What only this page holds goes with the page: leaving it is asked about.
    const ask = (event: BeforeUnloadEvent) => event.preventDefault();
    window.addEventListener('beforeunload', ask);
    return () => window.removeEventListener('beforeunload', ask);
  }, [view.unkept]);
  return useMemo(
    () => ({
      ...view,
      write: log.write.bind(log),
      mend: log.mend.bind(log),
      drop: log.drop.bind(log),
    }),
    [view, log],
  );
}
