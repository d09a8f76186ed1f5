import { isCommandBit } from './testKinds';
import { readingKind } from '../kinds/reading/index';
import { setupKey, type CircuitModel } from '../circuit/model';
import type { Preferences, Reading, Setup, Test } from '../circuit/schema';
import { isSpent, type Edit } from '../circuit/edits';
import type { World } from '../circuit/world';
import { energyChange, energyMinutes, setupMinutes, type EnergyChange } from './access';
import type { CandidateTest } from './candidateTests';
import { cautionsOf, isWorking, type Caution } from './cautionsOf';
import type { Branch } from '../circuit/compile';
import { isDeadKind, nodesOfTest } from '../circuit/testPlace';
import { Foresight } from './foresight';
import { predict, type BoundTest } from './predict';
import type { Prediction } from './prediction';
import { hypothesesOf, roughly, type Hypothesis } from './hypotheses';
import { askedPlace, placeOf } from './observations';
import { expectedValue, groupOutcomes, type Outcome } from './outcomes';
import { Scorer } from './scorer';
import { partsAcross } from './partsAcross';
import { isOnPart, type FaultPlace } from './onPart';
import { areIdle, sortByWorth, type Worth } from './sortByWorth';
import { isComplaint, proofKey } from './proofs';
import type { NotShown } from './wayShown';
import type { Posterior } from './weighed';

export interface RankedTest {
  test: Test;
  bits: number;
  minutes: number;
  /** What is locked, and what put on again, before it may be taken. */
  before: EnergyChange;
  cautions: Caution[];
  outcomes: Outcome[];
  /** Chosen to prove or clear the leading part rather than to split the doubt. */
  proof: boolean;
  /** It was read before and does not fit: to be read once more. */
  again?: true;
  /** What the healthy circuit would show. */
  expected: Reading['value'];
  /** Parts that lie between the leads, end to end; of a dead test also what else has the meter's own volts across it. */
  across: string[];
}

/** What the leading part still needs before it can be named. */
export interface ProofWanted {
  part: string;
  place: FaultPlace;
  /** A reading on the part itself, another of any other kind or place, or only its way shown. */
  wants: 'onPart' | 'another' | 'way' | 'command';
  /** Places that were read already; see `proofKey`. */
  taken: ReadonlySet<string>;
  /** What feeds it or takes its return and was not shown good. */
  way: readonly NotShown[];
  /** The world that leads. */
  edits: readonly Edit[];
  /** Whether the answer that the leading part asks for would count as a proof of it. */
  counts: (candidate: CandidateTest, onPart: boolean) => boolean;
}

export interface RankOptions {
  preferences?: Preferences;
  /** Set-up the machine stands in now. */
  setup?: Setup;
  /** Supplies that stand locked now. */
  locked?: readonly string[];
  /** Tests already answered steadily; asking again teaches nothing. */
  answered?: ReadonlySet<string>;
  /** Tests taken so far, in any set-up. */
  asked?: readonly Test[];
  /** Set-ups that the machine has been run in without anybody seeing a fuse go; see `setupKey`. */
  ran?: ReadonlySet<string>;
  /** What the leading part still needs. */
  prove?: ProofWanted | null;
  /**
   * Gives none where each of them tells next to nothing: one after the other would be asked for, and then it would be said all the same
   * between which parts the doubt is left.
   */
  worthTheWay?: boolean;
  most?: number;
}

/** Doubt on faults that make the machine work in a set-up, above which whoever stands there is told that it may. */
const UNRULY_SHARE = 0.1;
/** What is believed less than this by itself is not asked what it would move. */
const LEAST_UNRULY = 0.004;
const LEAST_BITS = 0.002;
/** Share of the meter's volts from which a part has to do with what it reads. */
const REACHED_SHARE = 0.02;
/** Minutes that a blown fuse costs: fetch, fit, explain. */
const BLOWN_FUSE_MINUTES = 10;
const RISKY_SHARE = 0.15;
const MISTAKES = 0.96;
/** Tests that get a full look. */
const SHORTLIST = 80;
/** Tests that get a rough one, after a first under the heaviest hypotheses only, where there are many of both. */
const COARSE_LIST = 320;
const MOST_COARSE = 16;
/** Locked once, a supply stays so for the tests that follow, and the repair wants it so: a test answers for a share of that. */
const ENERGY_SHARE = 0.35;
/** To read, write down and think: a test that says next to nothing is not worth even that. */
const WRITE_MINUTES = 0.7;
/** Bits from which a test shows that a suspect's way is good. */
const LEAST_SHOWN = 0.1;
/** Proofs looked at closely before they are offered. */
const MOST_CHECKED = 16;
/** Proofs that are enough to choose from. */
const ENOUGH_PROOFS = 3;
/** Groups of tests after which memory is looked after. */
const TIDY_EACH = 8;
/** Worth of reading the same two points in the same mode again, in another set-up. */
const KNOWN_PLACE = 0.3;

interface Scored extends Worth {
  candidate: CandidateTest;
  minutes: number;
  change: EnergyChange;
  /** The same score, were it no proof. */
  plain: number;
  /** On the leading part itself. */
  onPart: boolean;
}

/** What a test costs and counts as, whatever it would show. */
interface Price {
  /** Minutes from the set-up that the machine stands in to the test's own. */
  toGetThere: number;
  change: EnergyChange;
  /** Minutes for its supplies, and those of them that are for opening one. */
  supplies: number;
  opening: number;
  preference: number;
  /** The same points were read in the same mode before. */
  isKnown: boolean;
  onPart: boolean;
  proves: boolean;
}

/** Ranks tests by expected information per minute, and says what each answer would leave. */
export function rankTests(
  model: CircuitModel,
  posterior: Posterior,
  candidates: readonly CandidateTest[],
  options: RankOptions = {},
): RankedTest[] {
  const {
    preferences = {},
    setup = {},
    locked = [],
    answered = new Set<string>(),
    asked = [],
    ran = new Set<string>(),
    prove = null,
    worthTheWay = false,
    most = 12,
  } = options;
  const places = new Set(asked.map(askedPlace));
  const lockedNow = new Set(locked);
  const hypotheses = hypothesesOf(posterior);
  const way = prove && prove.way.length > 0 ? wayHypotheses(model, prove) : null;
  const open = candidates.filter(({ key }) => !answered.has(key));
  const foresight = new Foresight();
  // Each is looked at under few hypotheses first, and again under more: what it costs stays.
  const onTheWay = new Map<number, number>();
  const prices = new Map<CandidateTest, Price>();
  const priceOf = (candidate: CandidateTest): Price => {
    const known = prices.get(candidate);
    if (known) return known;
    const { test } = candidate.bound;
    // All tests of a group stand in one set-up: the way there is the same for each.
    const toGetThere = onTheWay.get(candidate.group) ?? setupMinutes(model, setup, test.setup);
    onTheWay.set(candidate.group, toGetThere);
    const change = energyChange(model, lockedNow, test);
    const onPart = prove !== null && isOnPart(model, candidate.bound, prove.place);
    const price: Price = {
      toGetThere,
      change,
      supplies: energyMinutes(model, change, preferences.lockMinutes),
      // What is opened for one reading is locked again after it: nobody shares that.
      opening: energyMinutes(model, { ...change, lock: [] }, preferences.lockMinutes),
      preference: preferenceFactor(preferences, test),
      isKnown: places.has(candidate.place),
      onPart,
      proves:
        prove !== null &&
        prove.wants !== 'way' &&
        (prove.wants !== 'onPart' || onPart) &&
        (prove.wants !== 'command' || isCommandBit(test, prove.part)) &&
        !prove.taken.has(proofKey(test)) &&
        !isComplaint(test),
    };
    prices.set(candidate, price);
    return price;
  };
  const score = (list: readonly CandidateTest[], under: readonly Hypothesis[]): Scored[] => {
    const scorer = new Scorer(model.compiled.parts.length, under);
    const wayScorer = way && new Scorer(model.compiled.parts.length, way);
    return byGroup(list).flatMap((group, at) => {
      const { solver, drive, test: first } = group[0]!.bound;
      foresight.foresee(group, under);
      // What has been run already takes no second fuse: one that went then is gone.
      const fresh = drive.mode === 'live' && !ran.has(setupKey(first.setup));
      const risk = fresh ? foresight.blowShare(group[0]!, under) : 0;
      const blown = BLOWN_FUSE_MINUTES * risk;
      const ways = way?.map(({ edits }) => solver.solve(drive, edits));
      if (at % TIDY_EACH === TIDY_EACH - 1) model.tidy();
      return group.map((candidate): Scored => {
        const { test } = candidate.bound;
        const { toGetThere, change, supplies, opening, preference, isKnown, onPart, proves } =
          priceOf(candidate);
        const predictions = foresight.predictions(candidate, under);
        const bits = MISTAKES * scorer.information(test, predictions);
        // To watch a fuse that is gone a new one goes in, and may go as well.
        const another = test.kind === 'fuse' ? anotherGone(under, predictions) : 0;
        const there = candidate.minutes + toGetThere + blown + BLOWN_FUSE_MINUTES * another;
        const minutes = there + supplies;
        const shown = ways
          ? wayScorer!.information(
              test,
              ways.map((world) => candidate.bound.read(world, [])),
            )
          : 0;
        const pace = there + opening + ENERGY_SHARE * (supplies - opening) + WRITE_MINUTES;
        let plain = (bits / pace) * preference;
        // The same points read the same way share their scatter: another set-up adds less than it seems.
        if (isKnown) plain *= KNOWN_PLACE;
        if (shown > LEAST_SHOWN) plain += shown / pace;
        const worth = plain + (proves ? scorer.refutation(test, predictions, prove!.part) / pace : 0);
        return {
          candidate,
          bits,
          minutes,
          change,
          score: worth,
          plain,
          proof: proves || shown > LEAST_SHOWN,
          onPart,
          risky: risk + another > RISKY_SHARE,
        };
      });
    });
  };
  // A rough look under the heaviest hypotheses finds the tests worth a full one.
  const rough = roughly(hypotheses);
  const bestOf = (list: readonly CandidateTest[], under: readonly Hypothesis[], most: number) =>
    list.length > most && under.length < hypotheses.length
      ? score(list, under)
          .sort((a, b) => b.score - a.score)
          .slice(0, most)
          .map(({ candidate }) => candidate)
      : list;
  const few = rough.length > MOST_COARSE + 1 ? bestOf(open, coarsely(rough), COARSE_LIST) : open;
  const shortlist = bestOf(few, rough, SHORTLIST);
  const scored = onlyTrueProofs(score(shortlist, hypotheses), prove);
  if (worthTheWay && areIdle(scored)) return [];
  sortByWorth(scored);
  const foreseen = hypothesesOf(posterior, true);
  const offered = withoutTwins(
    scored.filter(({ bits, proof, score: worth }) => bits > LEAST_BITS || (proof && worth > 0)),
    most,
  );
  for (const group of byGroup(offered.map(({ candidate }) => candidate))) foresight.foresee(group, foreseen);
  return offered.map(({ candidate, bits, minutes, change, proof }) => {
    const told = meaningOf(model, candidate, foreseen, foresight.predictions(candidate, foreseen));
    return { ...told, bits, minutes, before: change, proof };
  });
}

/** Doubt on faults that took the watched fuse already and would take the next one. */
function anotherGone(hypotheses: readonly Hypothesis[], predictions: readonly Prediction[]): number {
  return hypotheses.reduce((sum, { edits, weight }, at) => {
    const prediction = predictions[at]!;
    const blows = prediction.type === 'choice' ? (prediction.odds.blows ?? 0) : 0;
    return edits.some(isSpent) ? sum + weight * blows : sum;
  }, 0);
}

/** The sound circuit and the heaviest of the others. */
function coarsely([sound, ...others]: readonly Hypothesis[]): Hypothesis[] {
  return [sound!, ...[...others].sort((a, b) => b.weight - a.weight).slice(0, MOST_COARSE)];
}

/** The leading part by itself, and with each of the parts on its way broken too. */
function wayHypotheses({ compiled }: CircuitModel, { part, edits, way }: ProofWanted): Hypothesis[] {
  return [
    { part: -1, ref: null, fault: null, edits, weight: 0.5 },
    ...way.map(({ fault, edits: both }): Hypothesis => ({
      part: compiled.partIndex.get(fault.ref)!,
      ref: part,
      fault: fault.fault,
      edits: both,
      weight: 0.5 / way.length,
    })),
  ];
}

/** Takes the name of a proof from tests whose answer the verdict would not count, as far as they would be offered first. */
function onlyTrueProofs(scored: Scored[], prove: ProofWanted | null): Scored[] {
  if (!prove || prove.wants === 'way') return scored;
  const best = scored.filter(({ proof }) => proof).sort((a, b) => b.score - a.score);
  let found = 0;
  best.forEach((one, at) => {
    if (found >= ENOUGH_PROOFS) {
      // Nobody looked at it: it keeps its place behind the others, and is not called one.
      one.proof = false;
      return;
    }
    const counts = at < MOST_CHECKED && prove.counts(one.candidate, one.onPart);
    if (counts) found++;
    if (counts || one.plain === one.score) return;
    one.score = one.plain;
    one.proof = false;
  });
  return scored;
}

/** What is watched, and tells exactly as much, tells the same: that the feed is there, from any of the functions that work. */
const SAME_WATCH_BITS = 1e-6;

/**
 * Drops tests that ask the same points the same question as a better one, in another set-up that changes nothing, and what is watched of one
 * function after the other where each would tell the same.
 */
function withoutTwins<T extends { candidate: CandidateTest; bits: number }>(
  sorted: readonly T[],
  most: number,
): T[] {
  const kept: T[] = [];
  const bitsOf = new Map<string, number[]>();
  for (const one of sorted) {
    if (kept.length >= most) break;
    const { test } = one.candidate.bound;
    const key = placeOf(test);
    const known = bitsOf.get(key) ?? [];
    if (known.some((bits) => Math.abs(bits - one.bits) < 0.05)) continue;
    const watched = isComplaint(test) ? `watched ${test.kind}` : null;
    const seen = watched === null ? [] : (bitsOf.get(watched) ?? []);
    if (seen.some((bits) => Math.abs(bits - one.bits) < SAME_WATCH_BITS)) continue;
    if (watched !== null) bitsOf.set(watched, [...seen, one.bits]);
    bitsOf.set(key, [...known, one.bits]);
    kept.push(one);
  }
  return kept;
}

/** Ranks one given test: the bits it carries and what its answers mean. */
export function evaluateTest(
  model: CircuitModel,
  posterior: Posterior,
  candidate: CandidateTest,
  { setup = {}, locked = [], preferences = {} }: Pick<RankOptions, 'setup' | 'locked' | 'preferences'> = {},
): RankedTest {
  const before = energyChange(model, new Set(locked), candidate.bound.test);
  const hypotheses = hypothesesOf(posterior, true);
  const scorer = new Scorer(model.compiled.parts.length, hypotheses);
  const { bound } = candidate;
  const predictions = hypotheses.map(({ edits }) => predict(bound, edits));
  return {
    ...meaningOf(model, candidate, hypotheses, predictions),
    bits: MISTAKES * scorer.information(bound.test, predictions),
    minutes:
      candidate.minutes +
      setupMinutes(model, setup, bound.test.setup) +
      energyMinutes(model, before, preferences.lockMinutes),
    before,
    proof: false,
  };
}

/** What a test may hurt, and what each of its answers would mean, under what is believed now. */
function meaningOf(
  model: CircuitModel,
  { bound }: CandidateTest,
  hypotheses: readonly Hypothesis[],
  predictions: readonly Prediction[],
): Pick<RankedTest, 'test' | 'cautions' | 'outcomes' | 'expected' | 'across'> {
  const { test, solver, drive } = bound;
  const cautions = cautionsOf(model, test);
  const stands = drive.mode === 'live' && !isDeadKind(test.kind) && !cautions.includes('moves');
  // A fault that is believed in may move the machine where the sound one would stand.
  if (stands && unrulyShare(model, bound, hypotheses) > UNRULY_SHARE) cautions.push('moves');
  return {
    test,
    cautions,
    outcomes: groupOutcomes(test, hypotheses, predictions),
    expected: expectedValue(test, predictions[0]!),
    across: [
      ...new Set([
        ...acrossOf(model, test),
        ...(isDeadKind(test.kind) ? reachedFrom(model, test, solver.solve(drive)) : []),
      ]),
    ],
  };
}

/** Doubt on faults with which the machine works in a test's set-up. */
function unrulyShare(
  model: CircuitModel,
  { solver, drive }: BoundTest,
  hypotheses: readonly Hypothesis[],
): number {
  return hypotheses.reduce(
    (sum, { edits, weight }) =>
      weight > LEAST_UNRULY && isWorking(model, solver.solve(drive, edits)) ? sum + weight : sum,
    0,
  );
}

function acrossOf(model: CircuitModel, test: Test): string[] {
  return [...new Set(partsAcross(model, test).map(({ part }) => part.part.ref))];
}

/** Parts with a share of the meter's own volts across them: what hangs on the way as a dead end has none, and is no part of the reading. */
function reachedFrom({ compiled }: CircuitModel, test: Test, { edges, changed }: World): string[] {
  const [from, to] = nodesOfTest(test).map((name) => compiled.nodeIndex.get(name));
  if (from === undefined || to === undefined || !changed.joined(from, to)) return [];
  const least = REACHED_SHARE * changed.pairOhms(from, to);
  const sees = ({ index }: Branch) => {
    const { a, b } = edges[index]!;
    return (
      changed.joined(a, from) && changed.joined(b, from) && Math.abs(changed.transfer(a, b, from, to)) > least
    );
  };
  return compiled.parts.filter(({ branches }) => branches.some(sees)).map(({ part }) => part.ref);
}

function byGroup(candidates: readonly CandidateTest[]): CandidateTest[][] {
  const groups = new Map<number, CandidateTest[]>();
  for (const candidate of candidates) {
    const known = groups.get(candidate.group);
    if (known) known.push(candidate);
    else groups.set(candidate.group, [candidate]);
  }
  return [...groups.values()];
}

function preferenceFactor({ order = 'best' }: Preferences, { kind }: Test): number {
  const { school, mechanical } = readingKind(kind);
  if (order === school) return 3;
  if (order === 'mechanicalFirst' && mechanical) return 3;
  if (order === 'electricalFirst' && !mechanical) return 3;
  return 1;
}
