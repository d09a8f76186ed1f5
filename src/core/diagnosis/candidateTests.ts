import { InputError } from '../circuit/inputError';
import type { CircuitModel } from '../circuit/model';
import type { Preferences, Setup, Test } from '../circuit/schema';
import { isDeadKind } from '../circuit/testPlace';
import { nodeAccess, testMinutes } from './access';
import { deadFamilies, liveFamilies } from './electricalCandidates';
import { fluidFamilies } from './fluidCandidates';
import { freedLoads } from '../safety/heldLoads';
import { reachesElectronics, standsLive } from './legality';
import { askedPlace, testKey } from './observations';
import { workingPatterns, type Pattern } from './patterns';
import type { Offer } from './offers';
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
/** Room for candidate tests, all together and of one family at first. */
const MOST_TESTS = 1600;
const FAMILY_TESTS = 420;

/**
 * Sensible tests for a circuit, from its own structure. Illegal ones never appear: ohms on a powered pair, test volts
 * on electronics, a plug pulled under a held load without securing it. `focus` are set-ups of interest, their control
 * positions are tried first.
 */
export function listCandidateTests(
  model: CircuitModel,
  preferences: Preferences = {},
  focus: readonly Setup[] = [],
): CandidateList {
  const access = nodeAccess(model);
  const patterns = focused(workingPatterns(model), focus);
  const families = [
    ...(preferences.noLiveWork ? [] : liveFamilies(model, patterns, preferences)),
    ...deadFamilies(model, patterns, preferences),
    ...fluidFamilies(model, patterns),
  ];
  const found = new Map<string, CandidateTest>();
  const groups = new Map<BoundTest['solver'], Map<string, number>>();
  let groupCount = 0;
  const groupOf = ({ solver, drive }: BoundTest): number => {
    const drives = groups.get(solver) ?? new Map<string, number>();
    groups.set(solver, drives);
    const key = drive.mode === 'live' || drive.mode === 'ohms' ? drive.mode : JSON.stringify(drive);
    const known = drives.get(key) ?? groupCount++;
    drives.set(key, known);
    return known;
  };
  const add = ({ test: wanted, extraMinutes = 0 }: Offer) => {
    const dropped = freedLoads(model, wanted.setup).map(({ ref }) => ref);
    const test =
      dropped.length > 0
        ? ({
            ...wanted,
            setup: { ...wanted.setup, secured: [...(wanted.setup.secured ?? []), ...dropped] },
          } as Test)
        : wanted;
    const key = testKey(test);
    if (found.has(key)) return;
    const bound = boundIfLegal(model, test);
    if (!bound) return;
    found.set(key, {
      key,
      place: askedPlace(test),
      group: groupOf(bound),
      bound,
      minutes: testMinutes(model, test, access) + extraMinutes,
    });
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

function boundIfLegal(model: CircuitModel, test: Test): BoundTest | null {
  try {
    const bound = bindTest(model, test);
    if (test.setup.afterSeconds !== undefined && !isTimed(model, bound)) return null;
    if (isDeadKind(test.kind) && standsLive(model, bound)) return null;
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

function focused(patterns: readonly Pattern[], focus: readonly Setup[]): Pattern[] {
  const wanted = new Set(focus.map(({ controls = {} }) => controlKey(controls)));
  const first = (pattern: Pattern) => wanted.has(controlKey(pattern.setup.controls ?? {}));
  return [...patterns.filter(first), ...patterns.filter((pattern) => !first(pattern))];
}

function controlKey(controls: Readonly<Record<string, string>>): string {
  return JSON.stringify(Object.entries(controls).sort(([a], [b]) => (a < b ? -1 : 1)));
}
