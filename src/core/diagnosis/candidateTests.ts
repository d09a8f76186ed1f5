import { InputError } from '../circuit/inputError';
import { oncePerModel, type CircuitModel } from '../circuit/model';
import type { Preferences, Setup, Test } from '../circuit/schema';
import { isDeadKind } from '../circuit/testPlace';
import { nodeAccess, testMinutes } from './access';
import { deadFamilies } from './deadCandidates';
import { liveFamilies } from './liveCandidates';
import { fluidFamilies } from './fluidCandidates';
import { oilOpened } from '../safety/pressedOil';
import { refrigerantOpened } from '../safety/refrigerant';
import { reliefsCutOff } from '../safety/relief';
import { freedLoads } from '../safety/heldLoads';
import { reachesElectronics, standsLive } from './legality';
import { askedPlace, testKey } from './observations';
import { workingPatterns, type Pattern } from './patterns';
import type { Offer } from './offers';
import { EVERYWHERE, nearOf } from './near';
import { bindTest, predict, predictedValue, type BoundTest } from './predict';

export interface CandidateTest {
  key: string;
  /** Equal for tests that ask the same points in the same mode with the same things apart; see `askedPlace`. */
  place: string;
  /** Equal for tests read from the same solution: one set-up, one way of driving the circuit. */
  group: number;
  bound: BoundTest;
  /** Minutes to reach the points and read, without changing the set-up. */
  minutes: number;
}

export interface CandidateList {
  tests: CandidateTest[];
  /** Sensible tests that were left out for lack of room. */
  skipped: number;
}

/** Below this the sound circuit itself reads, ohms: half of what the mildest class of circuit asks for (IEC 60364-6: 0.5 MΩ). */
const LEAST_INSULATION = 2.5e5;
/** Share by which a reading must be another one early and late. */
const TIMED_SHARE = 0.3;
/** Commands in which tests are taken, beside those that the doubt is about. */
const MOST_FED = 16;
/** Room for candidate tests, all together and of one family at first. */
const MOST_TESTS = 1600;
const FAMILY_TESTS = 420;

/** What tests are wanted about. */
export interface About {
  /** Parts in doubt, by index. */
  parts: ReadonlySet<number>;
  /** Set-ups of interest: their control positions are tried first. */
  setups: readonly Setup[];
}

/** Tests that were bound to a circuit before, and which of them share a solution. */
class Binder {
  private readonly tests = new Map<string, CandidateTest | null>();
  private readonly groups = new Map<BoundTest['solver'], Map<string, number>>();
  private groupCount = 0;
  readonly access: Float64Array;

  constructor(private readonly model: CircuitModel) {
    this.access = nodeAccess(model);
  }

  /** Null for one that may not be taken. */
  candidate({ test: wanted, extraMinutes = 0 }: Offer): CandidateTest | null {
    const { model } = this;
    const dropped = freedLoads(model, wanted.setup).map(({ ref }) => ref);
    const secured = [...(wanted.setup.secured ?? []), ...dropped];
    const test = dropped.length > 0 ? ({ ...wanted, setup: { ...wanted.setup, secured } } as Test) : wanted;
    const key = testKey(test);
    const known = this.tests.get(key);
    if (known !== undefined) return known;
    const bound = boundIfLegal(model, test);
    const found = bound && {
      key,
      place: askedPlace(test),
      group: this.groupOf(bound),
      bound,
      minutes: testMinutes(model, test, this.access) + extraMinutes,
    };
    this.tests.set(key, found);
    return found;
  }

  private groupOf({ solver, drive }: BoundTest): number {
    const drives = this.groups.get(solver) ?? new Map<string, number>();
    this.groups.set(solver, drives);
    const key = drive.mode === 'live' || drive.mode === 'ohms' ? drive.mode : JSON.stringify(drive);
    const known = drives.get(key) ?? this.groupCount++;
    drives.set(key, known);
    return known;
  }
}

/** Readings nearer than this share are one. */
const SAME_SHARE = 0.01;

const binderOf = oncePerModel((model) => new Binder(model));

/** A test as it may be taken, with what its set-up must have secured; null where it may not. */
export function mayTake(model: CircuitModel, test: Test): Test | null {
  return binderOf(model).candidate({ test })?.bound.test ?? null;
}

/** Minutes that a test of the user's own choice takes in the set-up it wants. */
export function minutesOf(model: CircuitModel, test: Test): number {
  return testMinutes(model, test, binderOf(model).access);
}

/**
 * Sensible tests for a circuit, from its own structure; with `about` only those that have to do with what is in doubt. Illegal ones never
 * appear: ohms on a powered pair, test volts on electronics, a plug pulled under a held load without securing it.
 */
export function listCandidateTests(
  model: CircuitModel,
  preferences: Preferences = {},
  about: About | null = null,
): CandidateList {
  const binder = binderOf(model);
  const near = about ? nearOf(model, about.parts) : EVERYWHERE;
  const patterns: readonly Pattern[] = about ? focused(model, about) : workingPatterns(model);
  const families = [
    ...(preferences.noLiveWork ? [] : liveFamilies(model, patterns, preferences, near)),
    ...deadFamilies(model, patterns, preferences, near),
    ...fluidFamilies(model, patterns, near),
  ];
  const found = new Map<string, CandidateTest>();
  const add = (offer: Offer) => {
    const candidate = binder.candidate(offer);
    if (candidate && !found.has(candidate.key)) found.set(candidate.key, candidate);
  };
  // Every family gets its share of the room; what is left goes to those with more to offer, in turn.
  const waiting: Offer[] = [];
  for (const { offers } of families) {
    const before = found.size;
    for (const offer of offers) {
      if (found.size - before < FAMILY_TESTS && found.size < MOST_TESTS) add(offer);
      else waiting.push(offer);
    }
  }
  model.tidy();
  let at = 0;
  for (; at < waiting.length && found.size < MOST_TESTS; at++) add(waiting[at]!);
  return { tests: [...found.values()], skipped: waiting.length - at };
}

/**
 * Whether a dead reading leads through an output that its set-up commands: a transistor shows an ohmmeter nothing of what it switches, and
 * a controller whose supply is locked switches nothing.
 */
function leadsThroughOutput({ compiled }: CircuitModel, bound: BoundTest): boolean {
  const { commanded, present } = bound.solver.situation;
  const off = compiled.branches.flatMap(({ index, role }) =>
    role === 'output' && commanded[index] === 1 && present[index] === 1
      ? [{ type: 'force' as const, branch: index, on: false }]
      : [],
  );
  if (off.length === 0) return false;
  const shown = (edits: typeof off) => predictedValue(bound.test.kind, predict(bound, edits));
  const [through, without] = [shown([]), shown(off)];
  if (typeof through !== 'number' || typeof without !== 'number') return through !== without;
  return Math.abs(through - without) > SAME_SHARE * Math.abs(without);
}

function boundIfLegal(model: CircuitModel, test: Test): BoundTest | null {
  try {
    const bound = bindTest(model, test);
    if (test.setup.afterSeconds !== undefined && !isTimed(model, bound)) return null;
    if (isDeadKind(test.kind) && (standsLive(model, bound) || leadsThroughOutput(model, bound))) return null;
    if (oilOpened(model, test).length > 0 || refrigerantOpened(model, test).length > 0) return null;
    if (reliefsCutOff(model, test.setup).length > 0) return null;
    if (test.kind === 'insulation' && (reachesElectronics(model, bound) || readsThroughLoad(bound)))
      return null;
    return bound;
  } catch (error) {
    // The set-up makes this test impossible, for example a pair that stays powered: it is no candidate.
    if (error instanceof InputError) return null;
    throw error;
  }
}

/** Whether it matters that a reading is taken at once: only what a timer feeds is another thing later. */
function isTimed(model: CircuitModel, bound: BoundTest): boolean {
  const { afterSeconds: _at, ...setup } = bound.test.setup;
  const [early, late] = [predict(bound, []), predict(bindTest(model, { ...bound.test, setup }), [])];
  if (early.type === 'number' && late.type === 'number') {
    const most = Math.max(Math.abs(early.mean), Math.abs(late.mean));
    return most > 0 && !(Math.abs(early.mean - late.mean) < TIMED_SHARE * most);
  }
  return predictedValue(bound.test.kind, early) !== predictedValue(bound.test.kind, late);
}

/** On the sound circuit the tester would see a load or a bonded end: what it shows then is no insulation. */
function readsThroughLoad(bound: BoundTest): boolean {
  const sound = predict(bound, []);
  return sound.type === 'number' && sound.mean < LEAST_INSULATION;
}

/** Commands of what is asked about first, then those that feed what is in doubt, then others as far as there is room. */
function focused(model: CircuitModel, { parts, setups }: About): Pattern[] {
  const wanted = new Set(setups.map(({ controls = {} }) => controlKey(controls)));
  const doubted = new Set([...parts].map((part) => model.compiled.parts[part]!.part.ref));
  const rank = ({ setup, loads, driven }: Pattern) => {
    if (wanted.has(controlKey(setup.controls ?? {}))) return 0;
    return [...loads, ...driven].some((ref) => doubted.has(ref)) ? 1 : 2;
  };
  const ranked = workingPatterns(model)
    .map((pattern) => ({ pattern, rank: rank(pattern) }))
    .sort((a, b) => a.rank - b.rank);
  let others = MOST_FED;
  return ranked
    .filter(({ pattern: { loads }, rank: own }) => own < 2 || loads.length === 0 || others-- > 0)
    .map(({ pattern }) => pattern);
}

function controlKey(controls: Readonly<Record<string, string>>): string {
  return JSON.stringify(Object.entries(controls).sort(([a], [b]) => (a < b ? -1 : 1)));
}
