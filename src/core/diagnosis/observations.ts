import { setupKey, type CircuitModel } from '../circuit/model';
import type { Reading, Test } from '../circuit/schema';
import { nodesOfTest, partOfTest } from '../circuit/testPlace';
import { againDensity, density, mistakeRate, slipDensity, totalSigma } from './likelihood';
import { ownVolts } from './testerVolts';
import { kindOf } from '../kinds/part/index';
import { isPlain } from './legality';
import { bindTest, choiceKey, predictedValue, type BoundTest } from './predict';
import type { Prediction } from './prediction';
import { atReference } from './windingRead';

/** Chance that a mistake is not repeated when the same test is taken again. */
const SLIP_MENDED = 0.2;

/** Answers of an eye or an ear to what does nothing. */
const STANDS_STILL: readonly Reading['value'][] = ['dead', 'still', false];

/** All readings of one test in one set-up. They share their mistake: wrong range, wrong spot. */
export interface Observation {
  key: string;
  bound: BoundTest;
  readings: Reading[];
  /** Nominal volts of the circuits that its points belong to; 0 where nothing feeds them. */
  range: number;
  /** Positions of the readings in the case. */
  positions: number[];
  /** The display wandered, or repeats disagree: a fault that comes and goes is considered. */
  unsteady: boolean;
  /** What a machine was brought in for; null for what was read or asked. */
  complaint: Complaint | null;
  /** Parts that were repaired or renewed before it was made, by index. */
  mended: ReadonlySet<number>;
}

/** A part that was repaired or renewed while the job went on. */
export interface Mended {
  part: string;
  /** Position of the first reading taken after it; their count where none was yet. */
  from: number;
}

/** A function that was told of, unasked. */
interface Complaint {
  /** Of how many: told of the wrong one, it could have been any of them. */
  among: number;
  /** Key of what it does on the sound circuit. */
  sound: string;
}

/** Part that a test names; of a controller's output with the bit that is looked at, of a pressure switch with the way the pressure goes. */
function partOf(test: Test): string | null {
  if (test.kind === 'changes') return `${test.part}.${test.edge}`;
  return test.kind === 'bit' ? `${test.part}.${test.which}` : partOfTest(test);
}

/** Equal for tests that ask the same question. Leads turned round are another test: a diode tells them apart. */
export function testKey(test: Test): string {
  const volts = test.kind === 'insulation' ? `@${test.testVolts}` : '';
  const place = partOf(test) ?? `${nodesOfTest(test).join('>')}${volts}`;
  return `${test.kind}|${place}|${setupKey(test.setup)}`;
}

/** Equal for tests that are solved alike: the machine as it stood, which may lack a fuse that the test's own set-up has in. */
export function solvedKey({ test, solver }: BoundTest): string {
  return testKey({ ...test, setup: solver.situation.setup });
}

/** Mode and points of a test, whatever the set-up and whichever way round the leads are. */
export function placeOf(test: Test): string {
  return `${test.kind}|${partOf(test) ?? [...nodesOfTest(test)].sort().join('~')}`;
}

/** Mode, points and what is apart: another control position or fuse seldom makes it another question. */
export function askedPlace(test: Test): string {
  const {
    controls: _controls,
    pulled: _pulled,
    isolated: _isolated,
    afterSeconds: _time,
    ...apart
  } = test.setup;
  return JSON.stringify([placeOf(test), apart]);
}

/**
 * Groups readings into observations: what was read before a repair and after it stands apart. Throws `InputError` for a reading the
 * circuit cannot give.
 */
export function gatherObservations(
  model: CircuitModel,
  readings: readonly Reading[],
  mended: readonly Mended[] = [],
): Observation[] {
  const found = new Map<string, Observation>();
  const gone = blownIn(readings);
  const longest = longestTimed(readings);
  readings.forEach((asRead, at) => {
    if (!longest(asRead)) return;
    const reading = atReference(model, asRead);
    const key = testKey(reading);
    const before = mended.filter(({ from }) => from <= at);
    const group = `${before.length} ${key}`;
    const known = found.get(group);
    if (known) {
      known.readings.push(reading);
      known.positions.push(at);
    } else {
      const bound = boundAs(model, reading, gone.get(setupKey(reading.setup)) ?? [], `readings[${at}]`);
      found.set(group, {
        key,
        bound,
        readings: [reading],
        range: ownVolts(model, nodesOfTest(reading)),
        positions: [at],
        unsteady: false,
        complaint: null,
        mended: partsOf(model, before),
      });
    }
  });
  const list = [...found.values()];
  for (const observation of list) observation.unsteady = wanders(observation);
  for (const observation of list) {
    const sound = soundIfBroughtIn(observation);
    if (sound === null) continue;
    observation.complaint = { among: functionCount(model), sound };
    break;
  }
  return list;
}

/** Parts that were mended, by index; what this drawing does not have is left aside. */
export function partsOf({ compiled }: CircuitModel, mended: readonly Mended[]): ReadonlySet<number> {
  return new Set(mended.flatMap(({ part }) => compiled.partIndex.get(part) ?? []));
}

/**
 * Of a timed run of insulation the reading that stood longest counts: before it the conductor was charging, and what it showed then is no
 * other opinion.
 */
function longestTimed(readings: readonly Reading[]): (reading: Reading) => boolean {
  const last = new Map<string, number>();
  for (const one of readings)
    if (one.kind === 'insulation' && one.seconds !== undefined)
      last.set(testKey(one), Math.max(last.get(testKey(one)) ?? 0, one.seconds));
  return (one) =>
    one.kind !== 'insulation' || one.seconds === undefined || one.seconds === last.get(testKey(one));
}

/** What a function does on the sound circuit, where it was told to do otherwise in a machine that is as it came in. */
function soundIfBroughtIn({ bound, readings }: Observation): string | null {
  if (bound.test.kind !== 'function' || !isPlain(bound.test)) return null;
  const sound = predictedValue('function', bound.read(bound.solver.solve(bound.drive), []));
  return sound === readings[0]!.value ? null : choiceKey(sound);
}

function functionCount({ compiled }: CircuitModel): number {
  return compiled.parts.filter(({ part }) => kindOf(part).traits.works).length;
}

/** Fuses that were seen to blow, by the set-up that took them. */
export function blownIn(readings: readonly Reading[]): ReadonlyMap<string, readonly string[]> {
  const gone = new Map<string, string[]>();
  for (const reading of readings) {
    if (reading.kind !== 'fuse' || reading.value !== 'blows') continue;
    const key = setupKey(reading.setup);
    gone.set(key, [...(gone.get(key) ?? []), reading.part]);
  }
  return gone;
}

/**
 * A reading's test, solved as the machine stood. What was seen to stand still in a set-up that took a fuse was seen with that fuse gone:
 * it tells no more than the fuse did. What still worked was seen before.
 */
function boundAs(model: CircuitModel, reading: Reading, blown: readonly string[], field: string): BoundTest {
  const bound = bindTest(model, reading, field);
  if (blown.length === 0 || !STANDS_STILL.includes(reading.value)) return bound;
  const pulled = [...(reading.setup.pulled ?? []), ...blown];
  return { ...bindTest(model, { ...reading, setup: { ...reading.setup, pulled } }, field), test: bound.test };
}

/** Log-likelihood of all readings of an observation in a world; `sound` is what the circuit does while a fault is away. */
export function logLikelihood(
  observation: Observation,
  prediction: Prediction,
  supplyVolts: number,
  sound: Prediction | null = null,
): number {
  const { readings, range } = observation;
  const chosen = chosenShare(observation, prediction);
  let right = 1;
  let mistaken = 1;
  let apart = 1;
  const first = readings[0]!;
  const mistake = mistakeRate(first.kind);
  readings.forEach((reading, at) => {
    const { kind, value, meter } = reading;
    const wrong = chosen * slipDensity(kind, value, prediction, meter, range > 0 ? range : supplyVolts);
    let own = density(kind, prediction, value, meter, supplyVolts);
    if (sound) own = 0.5 * own + 0.5 * density(kind, sound, value, meter, supplyVolts);
    // A wandering display says roughly where it is, not exactly.
    if (reading.unsteady) own = 0.7 * own + 0.3 * wrong;
    const steady = at > 0 && !sound && !reading.unsteady;
    const again = steady ? againDensity(kind, prediction, valuesOf(readings, at), value, meter) : null;
    right *= again ?? own;
    mistaken *= at === 0 ? wrong : repeatDensity(first, reading, wrong);
    apart *= (1 - mistake) * own + mistake * wrong;
  });
  if (readings.length === 1) return Math.log(apart + 1e-300);
  const together = (1 - mistake) * right + mistake * mistaken;
  return Math.log((1 - SLIP_MENDED) * together + SLIP_MENDED * apart + 1e-300);
}

/** Chance that a slip of the tongue fell on this function: any that does what it should could have been named instead. */
function chosenShare({ complaint }: Observation, prediction: Prediction): number {
  if (!complaint || prediction.type !== 'choice') return 1;
  const works = prediction.odds[complaint.sound] ?? 0;
  return 1 - works + works / complaint.among;
}

/** What the first of an observation's readings said. */
function valuesOf(readings: readonly Reading[], count: number): Reading['value'][] {
  return readings.slice(0, count).map(({ value }) => value);
}

/** A mistake repeated: the second reading agrees with the first, as the probe sits on the same wrong spot. */
function repeatDensity(first: Reading, again: Reading, wrong: number): number {
  if (typeof first.value !== 'number' || typeof again.value !== 'number') {
    return String(first.value) === String(again.value) ? 0.9 : 0.1 * wrong;
  }
  const sigma = 1.5 * totalSigma(again.kind, first.value, 0, again.meter);
  const z = (again.value - first.value) / sigma;
  return Math.exp(-0.5 * z * z) / (sigma * 2.5066282746310002) + 0.05 * wrong;
}

function wanders({ readings }: Observation): boolean {
  if (readings.some(({ unsteady }) => unsteady)) return true;
  const [first, ...others] = readings;
  return others.some(({ kind, value, meter }) => {
    if (typeof value !== 'number' || typeof first!.value !== 'number') {
      return String(value) !== String(first!.value);
    }
    return Math.abs(value - first!.value) > 5 * totalSigma(kind, first!.value, 0, meter);
  });
}
