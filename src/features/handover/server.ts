import { shopMarks } from '@/core/tables/marks';
import { openRules } from '../tables/server';
import 'server-only';
import { gaugeOn } from '@/core/circuit/medium';
import { CircuitModel } from '@/core/circuit/model';
import { reduceJob, type JobState } from '@/core/job/reduceJob';
import { findLanes } from '@/core/path/lanes';
import { isolationPlan } from '@/core/safety/isolationPlan';
import { writeTable } from '@/formats/table';
import { openJob, type OpenJob } from '../desk/server';
import { preferencesOf } from '../policy/preferencesOf';
import { openPolicy } from '../policy/server';
import { pointName, readingWords, type Speaker } from '@/words/en/readings';
import { inThread } from '../gate/threads';
import type { Report, ReportJob } from './report';
import { pastOfJob } from '../desk/jobPast';
import { makeReport, type ReportTask } from './reportTask';

export interface WholeJob {
  job: OpenJob;
  speaker: Speaker;
  state: JobState;
  timeZone: string;
}

export async function wholeJob(number: string): Promise<WholeJob | null> {
  const [job, { policy }] = await Promise.all([openJob(number), openPolicy()]);
  if (!job) return null;
  const model = new CircuitModel(job.circuit);
  return {
    job,
    speaker: { model, lanes: findLanes(model), gaugeUnit: gaugeOn(model, policy.gaugeUnit) },
    state: reduceJob(job.entries),
    timeZone: policy.timeZone,
  };
}

/** What a job's report is made of; `null` when there is no such job. */
async function reportTask(number: string): Promise<ReportTask | null> {
  const [opened, { policy }, { rules }] = await Promise.all([openJob(number), openPolicy(), openRules()]);
  if (!opened) return null;
  const { circuit, entries, stored, ...job } = opened;
  return {
    ...(await pastOfJob(opened)),
    job: reportJob(job),
    circuit,
    entries,
    arrivals: stored.map(({ entry, receivedAt, skewMs }) => [entry.id, { receivedAt, skewMs }] as const),
    preferences: preferencesOf(policy),
    gaugeUnit: policy.gaugeUnit,
    timeZone: policy.timeZone,
    marks: shopMarks(rules, { equipment: opened.equipment, insulationPass: policy.insulationPass }),
  };
}

function reportJob({
  number,
  title,
  machineCode,
  machineName,
  functionName,
  person,
  openedAt,
}: ReportJob): ReportJob {
  return { number, title, machineCode, machineName, functionName, person, openedAt };
}

/** A job's report; `null` when there is no such job. Throws when the readings cannot be weighed. */
export async function reportOf(number: string): Promise<Report | null> {
  const task = await reportTask(number);
  return task && inThread('report', { as: 'words' as const, task }, (asked) => makeReport(asked.task));
}

/** The same as a PDF. */
export async function reportFile(number: string): Promise<Uint8Array<ArrayBuffer> | null> {
  const task = await reportTask(number);
  return (
    task &&
    inThread('report', { as: 'pdf' as const, task }, async (asked) => {
      const { reportPdf } = await import('./ReportPdf');
      return new Uint8Array(await reportPdf(makeReport(asked.task)));
    })
  );
}

/** Everything of a job in one open document. */
export async function jobDocument(number: string): Promise<object | null> {
  const whole = await wholeJob(number);
  if (!whole) return null;
  const { circuit, entries, stored: _stored, id: _id, machineId: _machine, ...job } = whole.job;
  return { format: 'spiraxis-job', version: 1, job, circuit, entries, report: await reportOf(number) };
}

/** Every reading of a job as a table. */
export async function readingTable(number: string): Promise<string | null> {
  const whole = await wholeJob(number);
  if (!whole) return null;
  const { speaker, state } = whole;
  return writeTable(
    ['time', 'person', 'kind', 'place', 'value', 'typed', 'setup', 'phase', 'taken_back', 'words'],
    state.history.map(({ entry, superseded }) => {
      const { reading, typed, phase } = entry.body;
      return {
        time: entry.at,
        person: entry.person,
        kind: reading.kind,
        place:
          'from' in reading
            ? `${pointName(speaker, reading.from)} to ${pointName(speaker, reading.to)}`
            : 'part' in reading
              ? reading.part
              : 'at' in reading
                ? reading.at
                : reading.through,
        value: Array.isArray(reading.value) ? reading.value.join(' ') : reading.value,
        typed,
        setup: JSON.stringify(reading.setup),
        phase: phase ?? 'found',
        taken_back: superseded ? 'yes' : '',
        words: readingWords(speaker, reading),
      };
    }),
  );
}

/** The isolation plan of a job with its tags, for the tag sheet. */
export async function tagSheet(number: string) {
  const whole = await wholeJob(number);
  if (!whole) return null;
  const { job, speaker, state, timeZone } = whole;
  return { job, plan: isolationPlan(speaker.model), locks: state.locks, fixes: state.fixes, timeZone };
}
