import type { LearntOhms } from '../circuit/compile';
import { NO_EXPERIENCE, type Experience } from './experience';
import { CircuitModel, setupKey } from '../circuit/model';
import { learnFromTwins } from './learnFromTwins';
import type { Case, Circuit, Preferences, Reading, Setup, Test } from '../circuit/schema';
import {
  listCandidateTests,
  minutesOf,
  type About,
  type CandidateList,
  type CandidateTest,
} from './candidateTests';
import { isPlain } from './legality';
import { doubtedParts } from './near';
import {
  askedPlace,
  gatherObservations,
  partsOf,
  testKey,
  type Mended,
  type Observation,
} from './observations';
import { isOnPart, placeOfFault } from './onPart';
import { lockedAfter } from '../safety/suppliesNeeded';
import { NO_SIGNS, signWeights, type Signs } from './signs';
import { StrayWork } from './strayWork';
import { Weigher } from './posterior';
import { leadEdits, type Posterior } from './weighed';
import { bindTest } from './predict';
import { nodesOfTest } from '../circuit/testPlace';
import { evaluateTest, rankTests, type ProofWanted, type RankedTest } from './rankTests';
import { SAME_PART_SHARE } from './faultTypes';
import { proofBits, proofKey } from './proofs';
import { complaintWeights, explainSuspects, type Suspect } from './suspects';
import { decide, doubtfulReading, settled, type Judgement, type Lead, type Verdict } from './verdict';

export interface Diagnosis {
  /** All suspects, highest share first; their shares and `noFault` add to one. */
  suspects: Suspect[];
  noFault: number;
  /** Probability that no single or double fault fits the readings. */
  unexplained: number;
  verdict: Verdict;
  next: RankedTest[];
  /** How many candidate faults were weighed and tests ranked, and how many of each were left out for lack of room. */
  counted: { faults: number; skippedFaults: number; tests: number; skipped: number };
}

export interface DiagnoseOptions {
  preferences?: Preferences;
  /** Tests to rank instead of the program's own. */
  tests?: readonly Test[];
  /** Tests that cannot be done here: points out of reach. */
  excluded?: readonly Test[];
  /** Nodes that cannot be reached with a probe. */
  noReach?: readonly string[];
  /** Set-up the machine stands in; default is the last reading's. */
  setup?: Setup;
  /** What was said and seen without a meter. */
  signs?: Signs;
  /** What was repaired or renewed while the readings were taken. */
  mended?: readonly Mended[];
  /** Supplies that stand locked; default is what the last reading left. */
  locked?: readonly string[];
  most?: number;
}

/** Above this share the next test is the best proof of the leading part, no longer the best splitter. */
const PROVE_SHARE = 0.8;

/** One circuit opened for diagnosis. Compiled once, asked after every reading. */
export class Diagnoser {
  readonly model: CircuitModel;
  private readonly weigher: Weigher;
  /** Tests of the last question. */
  private listed: { key: string; list: CandidateList } | null = null;
  /** The same circuit with what readings of twins have taught; the last one. */
  private strayWork: StrayWork | null = null;
  private taught: { key: string; diagnoser: Diagnoser } | null = null;

  /** Throws `InputError` when the circuit is not sound as a description. */
  constructor(
    private readonly circuit: Circuit,
    private readonly experience: Experience = NO_EXPERIENCE,
    /** Ohms that twins were read to have: this one is not taught further. */
    private readonly fromTwins?: LearntOhms,
  ) {
    const learnt = new Map([...(fromTwins ?? []), ...Object.entries(experience.windings)]);
    this.model = new CircuitModel(circuit, learnt);
    this.weigher = new Weigher(this.model, experience);
  }

  get faults() {
    return this.weigher.faults;
  }

  /** Weighs all readings and ranks the next tests. Throws `InputError` for a reading this circuit cannot give. */
  diagnose(readings: readonly Reading[], options: DiagnoseOptions = {}): Diagnosis {
    const mended = mendedBy(options, readings.length);
    const observations = gatherObservations(this.model, readings, mended);
    const mendedNow = partsOf(this.model, mended);
    const taught = this.fromTwins ? null : this.taughtBy(observations);
    if (taught) return taught.diagnose(readings, options);
    const { signs = NO_SIGNS } = options;
    const posterior = this.weigher.weigh(observations, this.weightsOf(signs), mendedNow);
    const suspects = explainSuspects(this.model, posterior, observations);
    const judged = decide(this.model, this.weigher.faults, posterior, suspects, observations, mendedNow);
    const { tests, excluded = [], noReach = [], most } = options;
    // Where somebody felt a shock nobody touches it live.
    const preferences: Preferences = {
      ...options.preferences,
      ...(signs.when.includes('shock') ? { noLiveWork: true } : {}),
    };
    const now = {
      preferences,
      setup: options.setup ?? readings.at(-1)?.setup ?? {},
      locked: options.locked ?? lockedAfter(this.model, readings),
    };
    const barred = new Set(excluded.map(testKey));
    const own = tests
      ? { tests: tests.map((test, at) => this.candidate(test, `tests[${at}]`)), skipped: 0 }
      : this.ownCandidates(preferences, this.aboutOf(readings, posterior, judged.lead));
    const candidates = own.tests.filter(
      ({ key, bound }) => !barred.has(key) && !nodesOfTest(bound.test).some((node) => noReach.includes(node)),
    );
    // A steady answer settles a test; one that wandered is worth taking again, and so is one of before a repair.
    const lately = observations.filter(({ mended: then }) => then.size === mendedNow.size);
    const answered = new Set(
      lately.flatMap(({ key, unsteady, readings: taken }) => (unsteady && taken.length < 4 ? [] : [key])),
    );
    const retake = retakeOf(judged.verdict, readings, observations);
    const rank = (lead: Lead | null) =>
      rankTests(this.model, posterior, candidates, {
        ...now,
        answered,
        prove: this.proofWanted(judged.verdict, lead, posterior, observations),
        asked: lately.map(({ bound }) => bound.test),
        ran: ranIn(lately),
        worthTheWay: !tests && isUndecided(judged.verdict),
        ...(most === undefined ? {} : { most }),
      });
    let ranked = rank(judged.lead);
    // What else the part may have can be proved where its likeliest fault cannot: a short to the frame that needs both ends off.
    for (const lead of otherStories(this.model, judged, posterior)) {
      if (tests || ranked.some(({ proof }) => proof)) break;
      ranked = rank(lead);
    }
    // Nothing at hand could clear what holds the name back: it is named, and what stays open is said.
    const stuck = !tests && !ranked.some(({ proof }) => proof);
    const verdict = stuck ? settled(this.model, posterior, judged.verdict) : judged.verdict;
    // With nothing left to ask, the reading that stands out is worth taking again.
    const doubtful =
      ranked.length === 0 && verdict.state === 'keepTesting' && !retake && !tests
        ? (doubtfulReading(posterior, observations) ?? keystone(suspects, observations))
        : null;
    const retaken = retake ?? (doubtful === null ? null : readings[doubtful]!);
    const again = retaken ? [{ ...this.evaluateWith(posterior, retaken, now), again: true as const }] : [];
    const next = [...again, ...ranked].slice(0, most);
    return {
      suspects,
      noFault: posterior.noFault,
      unexplained: posterior.unexplained,
      verdict,
      next,
      counted: {
        faults: this.weigher.faults.length,
        skippedFaults: this.weigher.faultsLeftOut,
        tests: candidates.length,
        skipped: own.skipped,
      },
    };
  }

  /** The circuit as far as readings of twins narrow what nobody has said of it; null where they do not. */
  private taughtBy(observations: readonly Observation[]): Diagnoser | null {
    const twins = learnFromTwins(this.model, observations);
    for (const part in this.experience.windings) twins.delete(part);
    if (twins.size === 0) return null;
    const key = JSON.stringify([...twins]);
    if (this.taught?.key !== key)
      this.taught = { key, diagnoser: new Diagnoser(this.circuit, this.experience, twins) };
    return this.taught.diagnoser;
  }

  /** Works out ahead what every fault would make a test read, so that its answer is weighed at once. */
  prepare(test: Test): void {
    this.weigher.prepare(this.candidate(test, 'test').bound);
  }

  /** Log-likelihood of the readings on the healthy circuit. */
  healthyFit(readings: readonly Reading[]): number {
    const { noFaultFits } = this.weigher.weigh(gatherObservations(this.model, readings));
    return noFaultFits.reduce((sum, fit) => sum + fit, 0);
  }

  /** What a test of the user's own choice would tell, after the given readings. */
  evaluate(
    readings: readonly Reading[],
    test: Test,
    options: Pick<DiagnoseOptions, 'signs' | 'mended'> = {},
  ): RankedTest {
    const mended = mendedBy(options, readings.length);
    const posterior = this.weigher.weigh(
      gatherObservations(this.model, readings, mended),
      this.weightsOf(options.signs ?? NO_SIGNS),
      partsOf(this.model, mended),
    );
    return this.evaluateWith(posterior, test, {
      setup: readings.at(-1)?.setup ?? {},
      locked: lockedAfter(this.model, readings),
    });
  }

  private evaluateWith(
    posterior: Posterior,
    test: Test | Reading,
    now: Parameters<typeof evaluateTest>[3],
  ): RankedTest {
    const { value: _value, ...bare } = test as Reading;
    return evaluateTest(this.model, posterior, this.candidate(bare as Test, 'test'), now);
  }

  private weightsOf(signs: Signs): Float64Array {
    const { parts } = this.model.compiled;
    return signWeights(
      this.weigher.faults,
      ({ part }) => parts[part]!.part,
      signs,
      (sign) => (this.strayWork ??= new StrayWork(this.model, this.weigher.faults)).shown(sign),
    );
  }

  private candidate(test: Test, field: string): CandidateTest {
    return {
      key: testKey(test),
      place: askedPlace(test),
      // A group of its own: it is read from its own solution.
      group: -1 - Number(/\d+/.exec(field)?.[0] ?? 0),
      bound: bindTest(this.model, test, field),
      minutes: minutesOf(this.model, test),
    };
  }

  /** Where tests are looked for; anywhere before the first reading. */
  private aboutOf(readings: readonly Reading[], { faults }: Posterior, lead: Lead | null): About | null {
    if (readings.length === 0) return null;
    const way = lead ? lead.way.map(({ fault }) => fault.part) : [];
    return {
      parts: new Set([...doubtedParts(this.model, faults), ...way]),
      setups: readings.map(({ setup }) => setup),
    };
  }

  /** What still has to be shown of the leading part; null where none leads far enough, or nothing is missing. */
  private proofWanted(
    verdict: Verdict,
    lead: Lead | null,
    posterior: Posterior,
    observations: readonly Observation[],
  ): ProofWanted | null {
    if (verdict.state !== 'keepTesting' || !lead || !verdict.proofs) return null;
    if ((verdict.share ?? 0) <= PROVE_SHARE) return null;
    const { proofs } = verdict;
    const of = lead.rival ?? lead.weighed;
    const missing = proofs.have < proofs.need;
    if (!missing && lead.way.length === 0 && !lead.rival && !lead.command) return null;
    const place = lead.rival ? placeOfFault(this.model, of) : lead.place;
    const elsewhere = observations.flatMap(({ bound }, k) => (isOnPart(this.model, bound, place) ? [] : [k]));
    const said = complaintWeights(posterior, observations);
    const saidElsewhere = complaintWeights(posterior, observations, elsewhere);
    // What was read at a place has said what it can: the same place in another set-up proves nothing more.
    const taken = new Set(observations.map(({ bound }) => proofKey(bound.test)));
    return {
      part: of.fault.ref,
      place,
      wants: lead.command
        ? 'command'
        : lead.rival
          ? 'onPart'
          : !missing
            ? 'way'
            : proofs.onPart
              ? 'another'
              : 'onPart',
      taken,
      way: lead.way,
      edits: leadEdits(of),
      counts: (candidate, onPart) =>
        lead.rival !== null ||
        lead.command ||
        this.weigher.favours(candidate.bound, of, onPart ? saidElsewhere : said, observations) >=
          proofBits(onPart),
    };
  }

  private ownCandidates({ noLiveWork, noJumpers, order }: Preferences, about: About | null): CandidateList {
    const parts = about && [...about.parts].sort((a, b) => a - b);
    const setups = about && [...new Set(about.setups.map(setupKey))];
    const key = JSON.stringify([noLiveWork, noJumpers, order === 'resistanceFirst', parts, setups]);
    if (this.listed?.key !== key) {
      this.listed = { key, list: listCandidateTests(this.model, { noLiveWork, noJumpers, order }, about) };
    }
    return this.listed.list;
  }
}

/** No part leads far enough to be proved. */
function isUndecided(verdict: Verdict): boolean {
  return verdict.state === 'keepTesting' && verdict.because === 'tooLittle';
}

/**
 * What was mended by the time of the last of so many readings: earlier moments of a job are weighed as well. Of a part that was mended
 * twice the last time counts: the first did not help.
 */
function mendedBy({ mended = [] }: Pick<DiagnoseOptions, 'mended'>, count: number): Mended[] {
  const byNow = mended.filter(({ from }) => from <= count);
  return byNow.filter(({ part }, at) => byNow.findLastIndex((one) => one.part === part) === at);
}

/** The leading part with its other faults that are nearly as likely, where a proof of it is missing. */
function otherStories(model: CircuitModel, { verdict, lead }: Judgement, { faults }: Posterior): Lead[] {
  if (!lead || lead.rival || verdict.state !== 'keepTesting' || verdict.because !== 'proofMissing') return [];
  const { fault, share } = lead.weighed;
  return faults
    .filter(
      (one) => one !== lead.weighed && one.fault.part === fault.part && one.share > SAME_PART_SHARE * share,
    )
    .map((weighed) => ({ ...lead, weighed, place: placeOfFault(model, weighed) }));
}

/** Set-ups in which the machine has been run, but for those in which a fuse was seen to go. */
function ranIn(observations: readonly Observation[]): Set<string> {
  const ran = observations.filter(({ bound }) => bound.drive.mode === 'live' && isPlain(bound.test));
  const blown = new Set(
    ran.flatMap(({ bound, readings }) =>
      readings.some(({ value }) => value === 'blows') ? [setupKey(bound.test.setup)] : [],
    ),
  );
  return new Set(ran.map(({ bound }) => setupKey(bound.test.setup)).filter((key) => !blown.has(key)));
}

/**
 * Reading to take again before anything else: one that nothing explains, or that the leading part does not. A complaint that a part
 * proved bad would leave is watched once more before more is read.
 */
function retakeOf(
  verdict: Verdict,
  readings: readonly Reading[],
  observations: readonly Observation[],
): Reading | null {
  const takenOnce = (reading: number) => {
    const own = observations.find(({ positions }) => positions.includes(reading));
    return own && own.readings.length === 1 ? own.readings[0]! : null;
  };
  if (verdict.state === 'unexplained') return takenOnce(verdict.reading);
  if (verdict.state === 'keepTesting' && verdict.because === 'complaintLeft' && verdict.proofs) {
    const { have, need } = verdict.proofs;
    return have < need ? null : takenOnce(verdict.reading);
  }
  return verdict.state === 'keepTesting' && verdict.because === 'misfit' ? readings[verdict.retake]! : null;
}

/** Reading that the leading suspect stands on, if it was taken once only: were it wrong, all would be otherwise. */
function keystone(suspects: readonly Suspect[], observations: readonly Observation[]): number | null {
  const strongest = suspects[0]?.for.find(({ reading }) =>
    observations.some(
      ({ positions, bound }) =>
        positions.length === 1 && positions[0] === reading && !isPlainWatch(bound.test),
    ),
  );
  return strongest?.reading ?? null;
}

/** A complaint was watched, not measured: asking the operator again is no test. */
function isPlainWatch(test: Test): boolean {
  return (test.kind === 'function' || test.kind === 'fuse') && isPlain(test);
}

/** Diagnoses a whole case file. */
export function diagnoseCase({ circuit, readings, tests, preferences, signs }: Case): Diagnosis {
  return new Diagnoser(circuit).diagnose(readings, {
    ...(tests ? { tests } : {}),
    ...(preferences ? { preferences } : {}),
    ...(signs ? { signs } : {}),
  });
}
