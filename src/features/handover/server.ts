import 'server-only';
import { CircuitModel } from '@/core/circuit/model';
import type { Preferences } from '@/core/circuit/schema';
import { reduceJob, type JobState } from '@/core/job/reduceJob';
import { findLanes } from '@/core/path/lanes';
import { weighOptions } from '@/core/job/rules/weighOptions';
import { isolationPlan } from '@/core/safety/isolationPlan';
import { writeTable } from '@/formats/table';
import { makeDiagnosisService } from '@/workers/diagnosisService';
import { openJob, type OpenJob } from '../desk/server';
import { preferencesOf } from '../policy/preferencesOf';
import { openPolicy } from '../policy/server';
import type { Arrival } from '@/words/en/times';
import { pointName, readingWords, type Speaker } from '@/words/en/readings';
import { buildReport, type Report } from './reportModel';

/** A few circuits stay open: a report is read, printed and saved one after the other. */
const service = makeDiagnosisService(4);

export interface WholeJob {
  job: OpenJob;
  speaker: Speaker;
  state: JobState;
  timeZone: string;
  preferences: Preferences;
  arrivals: ReadonlyMap<string, Arrival>;
}

export async function wholeJob(number: string): Promise<WholeJob | null> {
  const [job, { policy }] = await Promise.all([openJob(number), openPolicy()]);
  if (!job) return null;
  const model = new CircuitModel(job.circuit);
  return {
    job,
    speaker: { model, lanes: findLanes(model), gaugeUnit: policy.gaugeUnit },
    state: reduceJob(job.entries),
    timeZone: policy.timeZone,
    preferences: preferencesOf(policy),
    arrivals: new Map(job.stored.map((one) => [one.entry.id, one])),
  };
}

/** A job's report; `null` when there is no such job. Throws when the readings cannot be weighed. */
export async function reportOf(number: string): Promise<Report | null> {
  const whole = await wholeJob(number);
  if (!whole) return null;
  const { job, speaker, state, timeZone, arrivals } = whole;
  const readings = state.readings.map(({ reading }) => reading);
  const answer = service.weigh(job.circuit, readings, weighOptions(state, whole.preferences, 1));
  if (!answer.ok) throw new Error(answer.message);
  return buildReport(speaker, job, state, answer.value, timeZone, arrivals);
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
  return { job, plan: isolationPlan(speaker.model), isolated: state.isolated, timeZone };
}
