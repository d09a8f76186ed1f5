/**
 * Learning on simulated sheds, each of which breaks in its own way: how near the odds come to the true ones, and how well the doubt comes
 * true on the jobs that follow, with what was learnt and without it. `npm run bench:shed -- [jobs] [seed]`. Asserts nothing.
 */
import { calibrate } from '../src/core/shed/calibration';
import { Diagnoser } from '../src/core/diagnosis/diagnose';
import { faultKey, NO_EXPERIENCE, type Experience } from '../src/core/diagnosis/experience';
import { typicalSeverity } from '../src/core/diagnosis/faults';
import type { CandidateFault } from '../src/core/diagnosis/faultTypes';
import { workingPatterns } from '../src/core/diagnosis/patterns';
import { bindTest, predict, predictedValue } from '../src/core/diagnosis/predict';
import { totalSigma } from '../src/core/diagnosis/likelihood';
import type { Reading, Test } from '../src/core/circuit/schema';
import { exposureOf, learnOdds, oddsFor, type ProvedFault } from '../src/core/shed/learntOdds';
import type { Doubt } from '../src/core/shed/outcome';
import { seededRandom } from '../src/core/random';
import { demoCircuits } from '../src/testing/demoCircuits';

const LEARNT_FROM = Number(process.argv[2] ?? 300);
const SEED = Number(process.argv[3] ?? 7);
const JUDGED = 150;
const MOST_READINGS = 8;
/** A shed's own way: each kind of fault so many times as often as the rule of thumb, log-normal; some single parts much more often. */
const CLASS_SPREAD = 0.9;
const BAD_PARTS = 0.03;
const BAD_FACTOR = 15;

const random = seededRandom(SEED);
const circuits = demoCircuits();
const plain = circuits.map(({ circuit }) => new Diagnoser(circuit));
const types = plain.map(({ model }) => exposureOf(model));
const names = circuits.map(({ name }) => name);

const ofClass = new Map<string, number>();
const ofPart = new Map<string, number>();
function truth(type: number, key: string, of: string): number {
  if (!ofClass.has(of)) ofClass.set(of, Math.exp(CLASS_SPREAD * random.normal()));
  const part = `${type}|${key}`;
  if (!ofPart.has(part)) ofPart.set(part, random.next() < BAD_PARTS ? BAD_FACTOR : 1);
  return ofClass.get(of)! * ofPart.get(part)!;
}
const truths = types.map((exposed, type) => exposed.map(({ key, of }) => truth(type, key, of)));

function draw(type: number): number {
  const weights = types[type]!.map(({ prior }, k) => prior * truths[type]![k]!);
  let left = random.next() * weights.reduce((sum, weight) => sum + weight, 0);
  return weights.findIndex((weight) => (left -= weight) < 0);
}

/** A fault that shows itself in what works and what does not, with that. */
function drawJob(): {
  type: number;
  fault: CandidateFault;
  edits: ReturnType<CandidateFault['variants'][0]['edits']>;
  seen: Reading;
} {
  for (;;) {
    const type = Math.floor(random.next() * types.length);
    const { key } = types[type]![draw(type)]!;
    const own = plain[type]!.faults.filter((fault) => faultKey(fault) === key && fault.other === undefined);
    const fault = own[Math.floor(random.next() * own.length)];
    if (!fault) continue;
    const severity = typicalSeverity(fault) * (fault.severity ? Math.exp(0.5 * random.normal()) : 1);
    const edits = fault.variants[Math.floor(random.next() * fault.variants.length)]!.edits(severity);
    const { model } = plain[type]!;
    for (const { setup, loads, driven } of workingPatterns(model)) {
      const part = [...driven, ...loads].find((ref) => {
        const { kind } = model.compiled.circuit.parts.find((one) => one.ref === ref)!;
        return kind !== 'relay' && kind !== 'resistor';
      });
      if (!part) continue;
      const test: Test = { kind: 'function', part, setup };
      const value = predictedValue('function', predict(bindTest(model, test), edits));
      if (value === 'dead' || value === 'weak')
        return { type, fault, edits, seen: { ...test, value } as Reading };
    }
  }
}

function readAs(type: number, edits: Parameters<typeof predict>[1], test: Test): Reading {
  const value = predictedValue(test.kind, predict(bindTest(plain[type]!.model, test), edits));
  const shown =
    typeof value === 'number'
      ? value + 0.7 * random.normal() * totalSigma(test.kind, value, 0, undefined)
      : value;
  return { ...test, value: typeof shown === 'number' ? Number(shown.toPrecision(4)) : shown } as Reading;
}

/** Jobs in the engine's own hands: its doubt after each reading, what it named, and after how many. */
function judge(jobs: readonly ReturnType<typeof drawJob>[], experienceOf: (type: number) => Experience) {
  const wise = new Map<number, Diagnoser>();
  let readings = 0;
  const outcomes = jobs.map(({ type, fault, edits, seen }) => {
    let diagnoser = wise.get(type);
    if (!diagnoser) wise.set(type, (diagnoser = new Diagnoser(circuits[type]!.circuit, experienceOf(type))));
    const taken = [seen];
    const doubt: Doubt[] = [];
    for (;;) {
      const { suspects, verdict, next } = diagnoser.diagnose(taken, { most: 1 });
      const shares = new Map<string, number>();
      for (const { part, share } of suspects) shares.set(part, (shares.get(part) ?? 0) + share);
      doubt.push([...shares].filter(([, share]) => share >= 0.02));
      if (verdict.state !== 'keepTesting' || !next[0] || taken.length > MOST_READINGS) {
        readings += taken.length - 1;
        return { part: fault.ref, doubt, named: verdict.state === 'name' ? verdict.part : null };
      }
      taken.push(readAs(type, edits, next[0].test));
    }
  });
  return {
    calibration: calibrate(outcomes),
    readings: readings / jobs.length,
    first: calibrate(outcomes.map((one) => ({ ...one, doubt: one.doubt.slice(0, 1) }))),
  };
}

const context = (type: number) =>
  ({ type: names[type]!, equipment: null, season: 'winter', place: '', weather: null, age: null }) as const;
const learntJobs = Array.from({ length: LEARNT_FROM }, (): ProvedFault => {
  const { type, fault } = drawJob();
  return {
    type,
    key: faultKey(fault),
    equipment: null,
    season: 'winter',
    place: '',
    weather: null,
    age: null,
  };
});
const started = performance.now();
const learnt = learnOdds(types, names, learntJobs);
const seconds = (performance.now() - started) / 1000;

/** Mean share of the odds that lies on the wrong faults. */
function off(believed: (type: number, key: string) => number): number {
  const each = types.map((exposed, type) => {
    const shares = (of: (k: number) => number) => {
      const weights = exposed.map(({ prior }, k) => prior * of(k));
      const total = weights.reduce((sum, weight) => sum + weight, 0);
      return weights.map((weight) => weight / total);
    };
    const [own, true_] = [shares((k) => believed(type, exposed[k]!.key)), shares((k) => truths[type]![k]!)];
    return 0.5 * own.reduce((sum, share, k) => sum + Math.abs(share - true_[k]!), 0);
  });
  return each.reduce((sum, one) => sum + one, 0) / each.length;
}
const odds = types.map((exposed, type) => oddsFor(exposed, learnt, context(type)));
const points = (share: number) => `${(100 * share).toFixed(1)} points`;
process.stdout.write(`learnt from ${LEARNT_FROM} jobs in ${seconds.toFixed(2)} s, seed ${SEED}\n`);
process.stdout.write(
  `odds on the wrong faults: rules of thumb ${points(off(() => 1))}, learnt ${points(off((type, key) => odds[type]![key] ?? 1))}\n`,
);
const jobs = Array.from({ length: JUDGED }, drawJob);
for (const [name, of] of [
  ['rules of thumb', () => NO_EXPERIENCE],
  ['learnt', (type: number): Experience => ({ odds: odds[type]!, windings: {} })],
] as const) {
  const { calibration, readings, first } = judge(jobs, of);
  process.stdout.write(
    `${name}: doubt off by ${points(calibration.off)} over ${JUDGED} jobs (${points(first.off)} after the complaint alone), ${calibration.named} named, ${calibration.wrong} wrong, ${readings.toFixed(2)} readings a job\n`,
  );
}
