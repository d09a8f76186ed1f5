import 'server-only';
import { digestMark, putDigest } from '@/db/digests';
import { findJobById } from '@/db/jobs';
import { ofShed } from '@/db/shed';
import { makeJobDigest } from '@/workers/jobDigest';
import { inThread } from '../gate/threads';
import { preferencesOf } from '../policy/preferencesOf';
import { openPolicy } from '../policy/server';
import { log } from '../serverLog';
import { learnSoon } from '../record/odds';
import { refreshTrends } from '../trends/refresh';
import { circuitOfJob } from './circuitOfJob';
import { aboutJob } from '@/core/job/aboutJob';
import { reduceJob } from '@/core/job/reduceJob';
import { pastOfJob } from './jobPast';
import { wholeLog } from './jobLogs';

/** Between two digests of a log that grows all the time. */
const REST_MS = 3000;

/** Jobs whose digest is being worked out; true when the log grew meanwhile. */
const busyOf = ofShed('digests', () => new Map<string, boolean>());

/** Works a job's digest out anew, for the log as it stands when it begins. */
export async function refreshDigest(jobId: string): Promise<void> {
  const [mark, job, { policy }] = await Promise.all([digestMark(jobId), findJobById(jobId), openPolicy()]);
  if (!mark || !job) return;
  const entries = (await wholeLog(jobId))
    .filter(({ number }) => number <= mark.number)
    .map((one) => one.entry);
  const circuit = await circuitOfJob(job, entries);
  const { experience } = await pastOfJob({
    id: jobId,
    functionId: job.function_id,
    circuit,
    equipment: job.equipment,
    machineHours: job.machine_hours,
    openedAt: job.opened_at.toISOString(),
    weather: reduceJob(aboutJob(entries)).weather,
  });
  const made = await inThread(
    'digest',
    { circuit, entries, preferences: preferencesOf(policy), gaugeUnit: policy.gaugeUnit, experience },
    makeJobDigest,
  );
  const { pastChanged } = await putDigest(jobId, mark, made);
  if (!pastChanged) return;
  await refreshTrends(job.function_id);
  learnSoon();
}

/** Has a job's digest worked out soon; a log that grows meanwhile is looked at once more. */
export function digestSoon(jobId: string): void {
  const busy = busyOf();
  if (busy.has(jobId)) {
    busy.set(jobId, true);
    return;
  }
  busy.set(jobId, false);
  void (async () => {
    try {
      for (;;) {
        busy.set(jobId, false);
        await refreshDigest(jobId);
        if (!busy.get(jobId)) break;
        await new Promise((resolve) => setTimeout(resolve, REST_MS));
      }
    } catch (error) {
      // The shed says that it is being worked out, and asks again.
      log.warn({ err: error, jobId }, 'a digest could not be worked out');
    } finally {
      busy.delete(jobId);
    }
  })();
}
