import 'server-only';
import { cache } from 'react';
import { readBook } from '@/db/codeBook';
import { findJobByText, functionsOf } from '@/db/jobs';
import { findFunction } from '@/db/library';
import { listTrends } from '@/db/trends';
import { joinCircuits, sharedParts } from '@/core/circuit/joinCircuits';
import { shopMarks } from '@/core/tables/marks';
import { pastOfJob } from './jobPast';
import type { Person } from '@/core/people/roles';
import type { BegunFacts } from '../begun/begunFacts';
import { openPeople } from '../people/server';
import { openPolicy } from '../policy/server';
import { openRules } from '../tables/server';
import { foundAlike } from '../record/server';
import { aboutJob } from '@/core/job/aboutJob';
import { reduceJob } from '@/core/job/reduceJob';
import { circuitOfJob } from './circuitOfJob';
import { wholeLog } from './jobLogs';
import type { JobFacts } from './desk';

const jobOf = cache(findJobByText);

/** Whether there is a job with this number. */
export async function isJob(number: string): Promise<boolean> {
  return (await jobOf(number)) !== null;
}

/** A job with its circuit and log, or null when there is none with this number. */
export const openJob = cache(async (number: string) => {
  const job = await jobOf(number);
  if (!job) return null;
  const stored = await wholeLog(job.id);
  const entries = stored.map(({ entry }) => entry);
  return {
    id: job.id,
    number: job.number,
    title: job.title,
    person: job.person,
    machineId: job.machine_id,
    machineCode: job.machine_code,
    machineName: job.machine_name,
    equipment: job.equipment,
    machineHours: job.machine_hours,
    functionName: job.function_name,
    functionId: job.function_id,
    openedOnVersion: job.function_version,
    newestVersion: job.newest_version,
    openedAt: job.opened_at.toISOString(),
    weather: reduceJob(aboutJob(entries)).weather,
    circuit: await circuitOfJob(job, entries),
    entries,
    stored,
  };
});

/** What of a job decides what is around it. */
type AboutJob = Omit<BegunFacts, keyof Around> & Pick<OpenJob, 'id' | 'openedAt' | 'weather'>;
type Around = Omit<JobFacts, keyof OpenJob>;

export type OpenJob = NonNullable<Awaited<ReturnType<typeof openJob>>>;

/** A job with everything its screens need of the machine. */
export async function jobFacts(number: string, who: Person): Promise<JobFacts | null> {
  const opened = await openJob(number);
  if (!opened) return null;
  const { entries: _asStored, ...job } = opened;
  return factsAround(job, who);
}

/** What a job on a function would begin with now; null where there is no such function. */
export async function begunFacts(functionId: string, who: Person): Promise<BegunFacts | null> {
  const drawn = await findFunction(functionId);
  if (!drawn) return null;
  const {
    id: _none,
    openedAt: _now,
    ...facts
  } = await factsAround(
    {
      id: '',
      openedAt: new Date().toISOString(),
      weather: null,
      machineId: drawn.machine_id,
      machineCode: drawn.machine_code,
      machineName: drawn.machine_name,
      equipment: drawn.equipment,
      machineHours: drawn.machine_hours,
      functionName: drawn.name,
      functionId: drawn.id,
      openedOnVersion: drawn.version,
      newestVersion: drawn.version,
      circuit: drawn.circuit,
    },
    who,
  );
  return facts;
}

/** A function with more that drifts is said by its worst. */
const MOST_DRIFTING = 12;

/** What is known around a job: of its machine, of the shed, and of who works on it. */
async function factsAround<J extends AboutJob>(job: J, who: Person): Promise<J & Around> {
  const [book, functions, { past, experience }, { policy }, { rules }, worst, alike, people] =
    await Promise.all([
      readBook(job.machineId),
      functionsOf(job.machineId),
      pastOfJob(job),
      openPolicy(),
      openRules(),
      listTrends(MOST_DRIFTING, { functionId: job.functionId, moving: true }),
      foundAlike(job.circuit),
      openPeople(),
    ]);
  return {
    ...job,
    me: { name: who.name, role: who.role, licences: who.licences },
    people: people
      .filter(({ closed }) => !closed)
      .map(({ name, role, licences }) => ({ name, role, licences })),
    alike,
    drifting: worst.map(({ body: { place, part, title, mayReachOn, trend } }) => ({
      place,
      part,
      title,
      on: mayReachOn,
      beyond: trend.beyond !== null,
    })),
    past,
    experience,
    book,
    policy,
    marks: shopMarks(rules, { equipment: job.equipment, insulationPass: policy.insulationPass }),
    functions: functions.map(({ id, name, circuit }) => ({
      id,
      name,
      shares: name === job.functionName ? [] : sharedParts(job.circuit, circuit),
      joins: name !== job.functionName && joinCircuits(job.circuit, circuit) !== null,
    })),
  };
}
