import { v7 as uuidv7 } from 'uuid';
import { samePerson } from '@/core/people/roles';
import { JobLog } from '../desk/log/JobLog';
import { aloneInBrowser } from '../desk/log/alone';
import { transportOf } from '../begun/transportOf';
import { waitingJobs, waitingStore, type WaitingEntry } from '../desk/log/waitingStore';

/** What waits in this browser for the server, over all jobs. */
export interface Waiting {
  /** Entries of who is signed in, and how many jobs they are of. */
  entries: number;
  jobs: number[];
  /** Jobs with something that the server did not take, to be looked at there. */
  aside: number[];
  /** Entries of other people, by name. */
  others: ReadonlyMap<string, number>;
}

/** Counts rows of the browser's own database. `person`: who is signed in, or null. */
export function countWaiting(
  rows: readonly (Pick<WaitingEntry, 'entry' | 'refused'> & { job: number })[],
  person: string | null,
): Waiting {
  const jobs = new Set<number>();
  const aside = new Set<number>();
  const others = new Map<string, number>();
  let entries = 0;
  for (const { entry, refused, job } of rows) {
    if (person === null || !samePerson(entry.person, person)) {
      if (!refused) others.set(entry.person, (others.get(entry.person) ?? 0) + 1);
    } else if (refused) aside.add(job);
    else {
      entries++;
      jobs.add(job);
    }
  }
  return { entries, jobs: [...jobs], aside: [...aside], others };
}

/** What waits here now. */
export async function readWaiting(person: string | null): Promise<Waiting> {
  return countWaiting(await waitingJobs(), person);
}

/**
 * Sends what waits of one job, whichever page is open. Resolves once nothing more can be sent now: what was sent is gone
 * from the browser's database, what was refused stands there with its reason.
 */
export async function sendWaiting(job: number, person: string): Promise<void> {
  const log = new JobLog([], person, waitingStore(job), transportOf(job), {
    now: () => new Date(),
    newId: uuidv7,
    random: Math.random,
    // Tried again when it is looked at again, not by a timer of its own.
    setTimer: () => () => undefined,
    alone: (work) => aloneInBrowser(`spiraxis-send-${job}`, work),
  });
  await log.send();
}
