import 'server-only';
import { cache } from 'react';
import { readEntries } from '@/db/entries';
import { findJob } from '@/db/jobs';

/** A job with its circuit and log, or null when there is none with this number. */
export const openJob = cache(async (number: string) => {
  if (!/^\d{1,9}$/.test(number)) return null;
  const job = await findJob(Number(number));
  if (!job) return null;
  const stored = await readEntries(job.id);
  return {
    id: job.id,
    number: job.number,
    title: job.title,
    person: job.person,
    machineCode: job.machine_code,
    machineName: job.machine_name,
    functionName: job.function_name,
    openedAt: job.opened_at.toISOString(),
    circuit: job.circuit,
    entries: stored.map(({ entry }) => entry),
    lastSeq: stored.at(-1)?.seq ?? 0,
  };
});

export type OpenJob = NonNullable<Awaited<ReturnType<typeof openJob>>>;
