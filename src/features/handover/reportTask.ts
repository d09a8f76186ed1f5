import type { ShopMarks } from '@/core/tables/marks';
import { gaugeOn } from '@/core/circuit/medium';
import { CircuitModel } from '@/core/circuit/model';
import type { Circuit, Preferences } from '@/core/circuit/schema';
import type { Experience } from '@/core/diagnosis/experience';
import type { Entry } from '@/core/job/entries';
import { reduceJob } from '@/core/job/reduceJob';
import { weighOptions } from '@/core/job/rules/weighOptions';
import { findLanes } from '@/core/path/lanes';
import type { JobPast } from '@/core/sheets/onCircuit/jobSheet';
import type { GaugeUnit } from '@/core/units/quantities';
import type { Arrival } from '@/words/en/times';
import { makeDiagnosisService } from '@/workers/diagnosisService';
import { buildReport } from './reportModel';
import { type Report, type ReportJob } from './report';

/** A few circuits stay open: a report is read, printed and saved one after the other. */
const service = makeDiagnosisService(4);

/** All that a report is made of, as data. */
export interface ReportTask {
  job: ReportJob;
  circuit: Circuit;
  entries: readonly Entry[];
  arrivals: readonly (readonly [string, Arrival])[];
  preferences: Preferences;
  gaugeUnit: GaugeUnit;
  timeZone: string;
  marks: ShopMarks;
  past: JobPast;
  experience: Experience;
}

/** A job's report, weighed as its own page weighs it. Throws when the readings cannot be weighed. */
export function makeReport({
  job,
  circuit,
  entries,
  arrivals,
  preferences,
  gaugeUnit,
  timeZone,
  marks,
  past,
  experience,
}: ReportTask): Report {
  const state = reduceJob(entries);
  const model = new CircuitModel(circuit);
  const readings = state.readings.map(({ reading }) => reading);
  const answer = service.weigh({ circuit, experience }, readings, weighOptions(state, preferences, 1));
  if (!answer.ok) throw new Error(answer.message);
  const speaker = { model, lanes: findLanes(model), gaugeUnit: gaugeOn(model, gaugeUnit) };
  return buildReport(speaker, job, state, answer.value, { timeZone, marks, past }, new Map(arrivals));
}
