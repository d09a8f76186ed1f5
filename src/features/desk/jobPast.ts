import 'server-only';
import { compileCircuit } from '@/core/circuit/compile';
import type { Circuit } from '@/core/circuit/schema';
import { testKey } from '@/core/diagnosis/observations';
import { windingType } from '@/core/job/provedWindings';
import type { JobPast } from '@/core/sheets/onCircuit/jobSheet';
import { readWindings } from '@/db/digests';
import { readBaselines } from '@/db/entries';

/** What earlier jobs left proved for a job: of its function, and of the windings of its types over the shed. */
export async function pastOfJob(job: { id: string; functionId: string; circuit: Circuit }): Promise<JobPast> {
  const types = new Set(compileCircuit(job.circuit).parts.flatMap((part) => windingType(part) ?? []));
  const [baselines, windings] = await Promise.all([
    readBaselines(job.functionId, job.id),
    readWindings([...types], job.functionId, job.id),
  ]);
  return {
    baselines: baselines.map(({ reading, jobNumber, at }) => ({
      key: testKey(reading),
      value: reading.value,
      jobNumber,
      at: at.toISOString(),
    })),
    windings,
  };
}
