import 'server-only';
import { join } from 'node:path';
import Piscina from 'piscina';
import type { JobDigest } from '@/core/job/jobDigest';
import { digestMark, putDigest } from '@/db/digests';
import { readEntries } from '@/db/entries';
import { findJobById } from '@/db/jobs';
import { makeJobDigest, type DigestTask } from '@/workers/jobDigest';
import { preferencesOf } from '../policy/preferencesOf';
import { openPolicy } from '../policy/server';
import { log } from '../serverLog';
import { circuitOfJob } from './circuitOfJob';

/** A thread that has nothing to do ends after this, milliseconds. */
const IDLE_MS = 60_000;
const MOST_MEGABYTES = 768;

interface Digests {
  pool: Piscina | null;
  /** Jobs whose digest is being worked out; true when the log grew meanwhile. */
  busy: Map<string, boolean>;
}
const held = globalThis as typeof globalThis & { spiraxisDigests?: Digests };
const digests = (held.spiraxisDigests ??= { pool: null, busy: new Map() });

/** A digest in a thread of its own; on this one where threads are switched off. */
async function makeInThread(task: DigestTask): Promise<JobDigest> {
  if (process.env.SPIRAXIS_DIGEST_THREAD === 'off') return makeJobDigest(task);
  digests.pool ??= new Piscina({
    filename: join(process.cwd(), 'src', 'workers', 'jobDigest.thread.ts'),
    execArgv: ['--import', 'tsx'],
    minThreads: 0,
    maxThreads: 1,
    idleTimeout: IDLE_MS,
    resourceLimits: { maxOldGenerationSizeMb: MOST_MEGABYTES },
  });
  return (await digests.pool.run(task)) as JobDigest;
}

/** Works a job's digest out anew, for the log as it stands when it begins. */
export async function refreshDigest(jobId: string): Promise<void> {
  const [mark, job, { policy }] = await Promise.all([digestMark(jobId), findJobById(jobId), openPolicy()]);
  if (!mark || !job) return;
  const entries = (await readEntries(jobId))
    .filter(({ number }) => number <= mark.number)
    .map((one) => one.entry);
  const circuit = await circuitOfJob(job, entries);
  const digest = await makeInThread({
    circuit,
    entries,
    preferences: preferencesOf(policy),
    gaugeUnit: policy.gaugeUnit,
  });
  await putDigest(jobId, mark, digest);
}

/** Has a job's digest worked out soon; a log that grows meanwhile is looked at once more. */
export function digestSoon(jobId: string): void {
  if (digests.busy.has(jobId)) {
    digests.busy.set(jobId, true);
    return;
  }
  digests.busy.set(jobId, false);
  void (async () => {
    try {
      do {
        digests.busy.set(jobId, false);
        await refreshDigest(jobId);
      } while (digests.busy.get(jobId));
    } catch (error) {
      // The shed says that it is being worked out, and asks again.
      log.warn({ err: error, jobId }, 'a digest could not be worked out');
    } finally {
      digests.busy.delete(jobId);
    }
  })();
}
