import type { Circuit, Preferences } from '@/core/circuit/schema';
import { gaugeOn } from '@/core/circuit/medium';
import { CircuitModel } from '@/core/circuit/model';
import type { Entry } from '@/core/job/entries';
import { DIGEST_MADE, type JobDigest } from '@/core/job/jobDigest';
import { likeness } from '@/core/circuit/likeness';
import type { Experience } from '@/core/diagnosis/experience';
import { provedMeasures } from '@/core/job/provedMeasures';
import { placeOfCircuit } from '@/core/shed/learntOdds';
import { minutesLeft } from '@/core/shed/minutesLeft';
import { outcomeOf, type JobLeft, type Outcome } from '@/core/shed/outcome';
import type { Answer, Outlook } from './protocol';
import { reduceJob, type JobState } from '@/core/job/reduceJob';
import { safetyDefects } from '@/core/job/rules/ledgerStanding';
import { nextStep } from '@/core/job/rules/nextStep';
import { weighOptions } from '@/core/job/rules/weighOptions';
import { licencesOf } from '@/core/safety/licensed';
import { findLanes } from '@/core/path/lanes';
import { chooseLane } from '@/core/path/chooseLane';
import type { GaugeUnit } from '@/core/units/quantities';
import { defectWords } from '@/words/en/ledger';
import { nextStepWords, overtakenWords } from '@/words/en/steps';
import { makeDiagnosisService } from './diagnosisService';

/** Circuits that stay open between two digests. */
const MOST_OPEN = 12;
const service = makeDiagnosisService(MOST_OPEN);

export interface DigestTask {
  circuit: Circuit;
  entries: readonly Entry[];
  preferences: Preferences;
  gaugeUnit: GaugeUnit;
  experience: Experience;
}

/** A job in small, weighed as its own page weighs it, and what it leaves behind for the shed. */
export function makeJobDigest(task: DigestTask): { digest: JobDigest; past: JobLeft } {
  const { circuit, entries, preferences, experience } = task;
  const state = reduceJob(entries);
  const model = new CircuitModel(circuit);
  const readings = state.readings.map(({ reading }) => reading);
  const answer = service.weigh({ circuit, experience }, readings, weighOptions(state, preferences, 1));
  return {
    digest: digestOf(task, model, state, answer),
    past: {
      measures: provedMeasures(model, state),
      outcome: answer.ok ? endedWith(task, model, state, answer.value) : null,
      type: likeness(circuit),
      place: placeOfCircuit(model),
    },
  };
}

/** Readings of a job whose doubt is kept: more of them say no more. */
const MOST_STEPS = 16;

/** How it ended, against what its readings said on the way; null while it is open. */
function endedWith(
  { circuit, entries, preferences, experience }: DigestTask,
  model: CircuitModel,
  state: JobState,
  { diagnosis }: Outlook,
): Outcome | null {
  const { verdict } = diagnosis;
  const named = verdict.state === 'name' ? verdict.part : null;
  const began = entries[0]?.at;
  if (began === undefined || outcomeOf(model, state, { said: [], named, began }) === null) return null;
  const readings = state.readings.map(({ reading }) => reading);
  const said = readings.slice(0, MOST_STEPS).flatMap((_reading, k) => {
    const options = { ...weighOptions(state, preferences, 0), tests: [] };
    const answer = service.weigh({ circuit, experience }, readings.slice(0, k + 1), options);
    return answer.ok ? [answer.value.diagnosis.suspects] : [];
  });
  return outcomeOf(model, state, { said, named, began });
}

function digestOf(
  { gaugeUnit }: DigestTask,
  model: CircuitModel,
  state: JobState,
  answer: Answer<Outlook>,
): JobDigest {
  const { overtaken } = state;
  const defects = [
    ...(overtaken ? [overtakenWords(overtaken.by)] : []),
    ...safetyDefects(model, state).map(defectWords),
  ];
  const licences = licencesOf(model);
  if (!answer.ok) return { made: DIGEST_MADE, next: answer.message, runs: [], defects, left: null, licences };
  const { standings, diagnosis } = answer.value;
  const lanes = findLanes(model);
  const next = nextStep(state, diagnosis);
  const test = diagnosis.next[0]?.test;
  const asked =
    test && 'from' in test ? [test.from, test.to].map((name) => model.compiled.nodeIndex.get(name)!) : [];
  const lane = chooseLane(lanes, { asked, setup: test?.setup, standings });
  return {
    made: DIGEST_MADE,
    next: nextStepWords({ model, lanes, gaugeUnit: gaugeOn(model, gaugeUnit) }, next),
    runs: lane
      ? [...lane.feed, lane.load, ...lane.back].map((step) => ({
          state: standings[step.part]!.state,
          turns: standings[step.part]!.turns,
          asked: asked.includes(step.to),
          fall: step === lane.load,
        }))
      : [],
    defects,
    left: minutesLeft(model, state, diagnosis),
    licences,
  };
}
