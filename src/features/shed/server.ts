import 'server-only';
import { CircuitModel } from '@/core/circuit/model';
import type { Circuit } from '@/core/circuit/schema';
import { reduceJob, type JobState } from '@/core/job/reduceJob';
import { findLanes } from '@/core/path/lanes';
import { chooseLane } from '@/core/path/layoutPath';
import type { State } from '@/core/path/standing';
import { readEntries } from '@/db/entries';
import { countJobs, findJob, listJobs, listMachines, type JobCursor, type JobFilter } from '@/db/jobs';
import { modeName, testPlace } from '@/words/en/readings';
import { circuitOfJob } from '../desk/circuitOfJob';
import { makeDiagnosisService } from '@/workers/diagnosisService';

export const JOBS_A_PAGE = 20;
const MOST_MACHINES = 200;
const MOST_DIGESTS = 400;

/** One job's path in small, with its turns, and what is to be done next. */
export interface JobDigest {
  next: string;
  runs: { state: State; turns: number; asked: boolean; fall: boolean }[];
}

export async function openShed(filter: JobFilter, after: JobCursor | undefined) {
  const [jobs, total, machines] = await Promise.all([
    listJobs(filter, JOBS_A_PAGE + 1, after),
    countJobs(filter),
    listMachines(MOST_MACHINES),
  ]);
  const page = jobs.slice(0, JOBS_A_PAGE);
  const last = page.at(-1);
  return {
    jobs: page,
    total,
    machines,
    more: jobs.length > JOBS_A_PAGE && last ? { openedAt: last.opened_at, id: last.id } : null,
  };
}

const service = makeDiagnosisService(24);
const digests = new Map<string, Promise<JobDigest>>();

/** The digest of a job as its log stands; worked out once for each circuit and set of readings. */
export async function digestOf(jobNumber: number): Promise<JobDigest | null> {
  const job = await findJob(jobNumber);
  if (!job) return null;
  const stored = await readEntries(job.id);
  const entries = stored.map(({ entry }) => entry);
  const state = reduceJob(entries);
  const key = JSON.stringify([
    job.function_id,
    job.circuit.name,
    state.readings.map(({ reading }) => reading),
    state.joined,
    state.noReach,
    state.skipped,
    state.madeSafe?.id,
    state.decision?.id,
    state.opinion?.id,
    state.fixes.length,
    state.handOver?.id,
  ]);
  let digest = digests.get(key);
  if (!digest) {
    digest = circuitOfJob(job, entries).then((circuit) => makeDigest(circuit, state));
    digests.set(key, digest);
    if (digests.size > MOST_DIGESTS) digests.delete(digests.keys().next().value!);
  }
  return digest;
}

async function makeDigest(circuit: Circuit, state: JobState): Promise<JobDigest> {
  // One calculation at a time, with room for other requests between them.
  await new Promise((resolve) => setImmediate(resolve));
  const readings = state.readings.map(({ reading }) => reading);
  const answer = service.weigh(circuit, readings, {
    noReach: state.noReach,
    excluded: state.skipped,
    most: 1,
  });
  if (!answer.ok) return { next: answer.message, runs: [] };
  const { standings, diagnosis } = answer.value;
  const model = new CircuitModel(circuit);
  const lanes = findLanes(model);
  const test = diagnosis.next[0]?.test;
  const asked =
    test && 'from' in test ? [test.from, test.to].map((name) => model.compiled.nodeIndex.get(name)!) : [];
  const lane = chooseLane(lanes, asked, standings);
  const speaker = { model, lanes };
  const { verdict } = diagnosis;
  return {
    next:
      nextStep(state) ??
      (verdict.state === 'name'
        ? `Decide: ${verdict.part} is proved bad`
        : verdict.state === 'noFault'
          ? 'Decide: nothing wrong found'
          : test
            ? `Test: ${testPlace(speaker, test)}, ${modeName(speaker, test)}`
            : 'No test left that tells the suspects apart'),
    runs: lane
      ? [...lane.feed, lane.load, ...lane.back].map((step) => ({
          state: standings[step.part]!.state,
          turns: standings[step.part]!.turns,
          asked: asked.includes(step.to),
          fall: step === lane.load,
        }))
      : [],
  };
}

/** What is to be done next once the engine has spoken; `null` while testing goes on. */
function nextStep({ handOver, fixes, decision, opinion }: JobState): string | null {
  if (handOver) return 'Handed over';
  if (fixes.length > 0) return 'Prove what was mended';
  if (!decision) return null;
  if (opinion?.body.says === 'sendBack') return `Decide again: ${opinion.body.note}`;
  return decision.body.part
    ? `Fix: ${decision.body.action} ${decision.body.part}`
    : 'Hand over: nothing is changed';
}
