import { findLanes } from '../../src/core/path/lanes';
import type { Reading, Test } from '../../src/core/circuit/schema';
import { energyChange, energyMinutes, setupMinutes } from '../../src/core/diagnosis/access';
import { lockedAfter } from '../../src/core/safety/suppliesNeeded';
import type { CircuitModel } from '../../src/core/circuit/model';
import { listCandidateTests, type CandidateTest } from '../../src/core/diagnosis/candidateTests';
import type { Diagnoser, Diagnosis } from '../../src/core/diagnosis/diagnose';
import { totalSigma } from '../../src/core/diagnosis/likelihood';
import { testKey } from '../../src/core/diagnosis/observations';
import { isOnPartOf } from '../../src/core/diagnosis/onPart';
import { predict } from '../../src/core/diagnosis/predict';
import type { Prediction } from '../../src/core/diagnosis/prediction';

/** A choice of the next test, with the minutes it takes from where the machine stands. */
export interface Choice {
  test: Test;
  minutes: number;
}

/** A way of working: what to measure next. */
export type Policy = (diagnosis: Diagnosis, readings: readonly Reading[]) => Choice | null;

/** Share from which a person who works without the program also turns to the part itself. */
const CLOSE_IN = 0.8;
const LAST_MINUTES = 2;

/** The program's own first choice. */
export const ownChoice =
  (diagnoser: Diagnoser): Policy =>
  ({ next }, readings) => {
    const [best] = next;
    if (!best) return null;
    const known = listed(diagnoser).get(testKey(best.test));
    return {
      test: best.test,
      minutes: (known?.minutes ?? LAST_MINUTES) + minutesThere(diagnoser.model, readings, best.test),
    };
  };

/** Walk the path from supply to return: volts at each point with the failing function called, then dead, part by part. */
export const pathInOrder = (diagnoser: Diagnoser): Policy => {
  const lanes = findLanes(diagnoser.model);
  const order = (test: Test): number => {
    const kinds = [
      'volts',
      'pressure',
      'amps',
      'moves',
      'flow',
      'ohms',
      'code',
      'fuse',
      'diode',
      'insulation',
    ];
    const kind = kinds.indexOf(test.kind);
    const name = 'from' in test ? test.from : 'at' in test ? test.at : '';
    const point = lanes.pointOf.get(diagnoser.model.compiled.nodeIndex.get(name) ?? -1) ?? 0;
    const across = 'to' in test && test.to !== diagnoser.model.compiled.circuit.frame ? 0.5 : 0;
    return (kind < 0 ? kinds.length : kind) * 1000 + point + across;
  };
  return (diagnosis, readings) =>
    pick(
      diagnoser,
      diagnosis,
      readings,
      (open) => [...open].sort((a, b) => order(a.bound.test) - order(b.bound.test))[0],
    );
};

/** Half-split: the test that divides the parts still possible most evenly, each counted once, whatever it takes. */
export const halfSplit =
  (diagnoser: Diagnoser): Policy =>
  (diagnosis, readings) => {
    const top = diagnosis.suspects[0]?.share ?? 0;
    const possible = new Map<string, string>();
    for (const { part, fault, share } of diagnosis.suspects) {
      if (share > 1e-3 * top && share > 1e-4 && !possible.has(part)) possible.set(part, fault);
    }
    const worlds = [...possible].flatMap(([part, name]) => {
      const fault = diagnoser.faults.find((one) => one.ref === part && one.fault === name);
      const suspect = diagnosis.suspects.find((one) => one.part === part && one.fault === name)!;
      if (!fault) return [];
      return [fault.variants[0]!.edits(suspect.severityOhms ?? suspect.severity?.value ?? 1)];
    });
    const mostEven = (candidates: readonly CandidateTest[]): CandidateTest | undefined => {
      let best: CandidateTest | undefined;
      let least = Infinity;
      for (const candidate of candidates) {
        const sound = predict(candidate.bound, []);
        const apart = worlds.filter((edits) =>
          differs(candidate.bound.test, sound, predict(candidate.bound, edits)),
        );
        if (apart.length === 0 || apart.length === worlds.length) continue;
        // Of equally even splits the quicker one.
        const uneven = Math.abs(apart.length - worlds.length / 2) + candidate.minutes / 100;
        if (uneven < least) [best, least] = [candidate, uneven];
      }
      return best;
    };
    // Meter and gauge on the machine as it stands first; taking apart where those split nothing.
    return pick(
      diagnoser,
      diagnosis,
      readings,
      (open) => mostEven(open.filter(({ bound }) => plainly(bound.test))) ?? mostEven(open) ?? open[0],
    );
  };

function pick(
  diagnoser: Diagnoser,
  { verdict, suspects }: Diagnosis,
  readings: readonly Reading[],
  choose: (open: CandidateTest[]) => CandidateTest | undefined,
): Choice | null {
  const { model } = diagnoser;
  const asked = new Set(readings.map(testKey));
  const failing = readings.filter(
    ({ value }) => value === 'dead' || value === 'weak' || value === 'blows' || value === 'still',
  );
  const positions = new Set(
    (failing.length > 0 ? failing : readings).map(({ setup }) => JSON.stringify(setup.controls ?? {})),
  );
  const open = [...listed(diagnoser).values()].filter(({ key }) => !asked.has(key));
  const minutes = (one: CandidateTest) => one.minutes + minutesThere(model, readings, one.bound.test);
  const lead = verdict.state === 'keepTesting' && (verdict.share ?? 0) > CLOSE_IN ? verdict.part : undefined;
  const suspect = lead
    ? diagnoser.faults.find(({ ref, fault }) => ref === lead && fault === suspects[0]?.fault)
    : null;
  const onLead = suspect ? open.filter(({ bound }) => isOnPartOf(model, bound, suspect)) : [];
  const here = open.filter(({ bound }) => positions.has(JSON.stringify(bound.test.setup.controls ?? {})));
  const chosen =
    onLead.length > 0
      ? onLead.reduce((a, b) => (minutes(b) < minutes(a) ? b : a))
      : choose(here.length > 0 ? here : open);
  return chosen ? { test: chosen.bound.test, minutes: minutes(chosen) } : null;
}

/** Minutes from how the last reading left the machine to a test, its supplies included. */
function minutesThere(model: CircuitModel, readings: readonly Reading[], test: Test): number {
  const locked = new Set(lockedAfter(model, readings));
  return (
    setupMinutes(model, readings.at(-1)?.setup ?? {}, test.setup) +
    energyMinutes(model, energyChange(model, locked, test))
  );
}

const lists = new WeakMap<Diagnoser, Map<string, CandidateTest>>();

function listed(diagnoser: Diagnoser): Map<string, CandidateTest> {
  let list = lists.get(diagnoser);
  if (!list) {
    list = new Map(listCandidateTests(diagnoser.model).tests.map((one) => [one.key, one]));
    lists.set(diagnoser, list);
  }
  return list;
}

/** Meter or gauge on the machine as it stands, powered or with the power off; nothing taken apart. */
function plainly({ kind, setup }: Test): boolean {
  const { controls: _controls, pulled: _pulled, isolated: _isolated, afterSeconds: _time, ...apart } = setup;
  return (
    ['volts', 'ohms', 'amps', 'pressure'].includes(kind) &&
    Object.values(apart).every((list) => list.length === 0)
  );
}

/** A person would see the difference. */
function differs({ kind, meter }: Test, one: Prediction, two: Prediction): boolean {
  if (one.type === 'choice' || two.type === 'choice') {
    if (one.type !== two.type) return true;
    const best = (odds: Readonly<Record<string, number>>) =>
      Object.entries(odds).sort((a, b) => b[1] - a[1])[0]?.[0];
    return one.type === 'choice' && two.type === 'choice' && best(one.odds) !== best(two.odds);
  }
  if (one.mean === Infinity || two.mean === Infinity) return one.mean !== two.mean;
  const sigma = totalSigma(kind, one.mean, one.sigma, meter);
  return Math.abs(one.mean - two.mean) > 4 * sigma;
}
