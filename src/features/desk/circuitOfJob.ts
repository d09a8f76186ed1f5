import 'server-only';
import { joinCircuits } from '@/core/circuit/joinCircuits';
import type { Circuit } from '@/core/circuit/schema';
import type { Entry } from '@/core/job/entries';
import { aboutJob } from '@/core/job/aboutJob';
import { reduceJob } from '@/core/job/reduceJob';
import { functionsOf } from '@/db/jobs';
import { readVersion } from '@/db/library';

/**
 * A job's circuit: its function's as it was when the job was opened, or in the version it went over to, together with
 * those of the functions that are asked about as well.
 */
export async function circuitOfJob(
  job: { circuit: Circuit; machine_id: string; function_id: string },
  entries: readonly Entry[],
): Promise<Circuit> {
  const { joined, redrawn } = reduceJob(aboutJob(entries));
  const own = (redrawn === null ? null : await readVersion(job.function_id, redrawn)) ?? job.circuit;
  if (joined.length === 0) return own;
  const functions = await functionsOf(job.machine_id);
  return joined.reduce((circuit, name) => {
    const other = functions.find((one) => one.name === name);
    return (other && joinCircuits(circuit, other.circuit)) ?? circuit;
  }, own);
}
