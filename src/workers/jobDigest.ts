import type { Circuit, Preferences } from '@/core/circuit/schema';
import { gaugeOn } from '@/core/circuit/medium';
import { CircuitModel } from '@/core/circuit/model';
import type { Entry } from '@/core/job/entries';
import { DIGEST_MADE, type JobDigest } from '@/core/job/jobDigest';
import { provedWindings, type ProvedWinding } from '@/core/job/provedWindings';
import { reduceJob, type JobState } from '@/core/job/reduceJob';
import { safetyDefects } from '@/core/job/rules/ledgerStanding';
import { nextStep } from '@/core/job/rules/nextStep';
import { weighOptions } from '@/core/job/rules/weighOptions';
import { findLanes } from '@/core/path/lanes';
import { chooseLane } from '@/core/path/layoutPath';
import type { GaugeUnit } from '@/core/units/quantities';
import { defectWords } from '@/words/en/ledger';
import { nextStepWords } from '@/words/en/steps';
import { makeDiagnosisService } from './diagnosisService';

/** Circuits that stay open between two digests. */
const MOST_OPEN = 12;
const service = makeDiagnosisService(MOST_OPEN);

export interface DigestTask {
  circuit: Circuit;
  entries: readonly Entry[];
  preferences: Preferences;
  gaugeUnit: GaugeUnit;
}

/** A job in small, weighed as its own page weighs it, and what it leaves proved. */
export function makeJobDigest({ circuit, entries, preferences, gaugeUnit }: DigestTask): {
  digest: JobDigest;
  windings: ProvedWinding[];
} {
  const state = reduceJob(entries);
  const model = new CircuitModel(circuit);
  return {
    digest: digestOf(circuit, model, state, preferences, gaugeUnit),
    windings: provedWindings(model, state),
  };
}

function digestOf(
  circuit: Circuit,
  model: CircuitModel,
  state: JobState,
  preferences: Preferences,
  gaugeUnit: GaugeUnit,
): JobDigest {
  const defects = safetyDefects(model, state).map(defectWords);
  const readings = state.readings.map(({ reading }) => reading);
  const answer = service.weigh(circuit, readings, weighOptions(state, preferences, 1));
  if (!answer.ok) return { made: DIGEST_MADE, next: answer.message, runs: [], defects };
  const { standings, diagnosis } = answer.value;
  const lanes = findLanes(model);
  const next = nextStep(state, diagnosis);
  const test = diagnosis.next[0]?.test;
  const asked =
    test && 'from' in test ? [test.from, test.to].map((name) => model.compiled.nodeIndex.get(name)!) : [];
  const lane = chooseLane(lanes, asked, standings);
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
  };
}
