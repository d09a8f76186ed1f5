import { isSpent } from '../circuit/edits';
import type { CircuitModel } from '../circuit/model';
import { isCommandBit } from './testKinds';
import { complaintLeft } from './complaintLeft';
import { clearBefore, type ClearFirst } from './clearBefore';
import { SAME_PART_SHARE, type CandidateFault, type FaultName } from './faultTypes';
import type { Observation } from './observations';
import { isOnPart, placeOfFault, type FaultPlace } from './onPart';
import { countProofs, type Proofs } from './proofs';
import { partShares, type PartShare, type Suspect } from './suspects';
import { wayNotShown, type NotShown } from './wayShown';
import { leadDuring, leadNow, type Posterior, type WeighedFault } from './weighed';

/** Why no part is named yet; `needed` is the share that one has to reach. */
export type WhyNot =
  | { because: 'noReading' | 'noSuspect' | 'proofMissing' }
  | { because: 'tooLittle'; needed: number }
  | { because: 'misfit'; retake: number }
  /** What was complained of, or seen, speaks against the part: it would leave that unexplained. */
  | {
      because: 'complaintLeft';
      reading: number;
      /** It was watched again, and was the same. */
      again: boolean;
    }
  /** What feeds it or takes its return could be broken too, for all that was read. */
  | { because: 'wayNotShown'; parts: string[] }
  /** Its controller's page was not looked at: whether the program asks for it at all. */
  | { because: 'programOpen' }
  /** Another part that no reading has been taken on might still be it. */
  | { because: 'rivalOpen'; rival: string; rivalShare: number };

export type Verdict =
  | {
      state: 'name';
      part: string;
      fault: FaultName;
      share: number;
      proofs: Proofs;
      /** What would kill the spare, and must be looked at before it goes in. */
      clearFirst: ClearFirst[];
      /** Parts that no test at hand can clear beside it. */
      notCleared: string[];
      /** Fuses that it took, for all that was read, and that nobody has looked at since. */
      spent: string[];
      /** It was repaired or renewed since, and nothing read after that says otherwise. */
      mended?: true;
    }
  | ({
      state: 'keepTesting';
      part?: string;
      share?: number;
      proofs?: Proofs;
      /** Reading that does not fit the leading suspect and should be taken again first. */
      retake?: number;
    } & WhyNot)
  | {
      state: 'noFault';
      share: number;
      unseen: { part: string; fault: FaultName; share: number }[];
    }
  | {
      state: 'unexplained';
      /** Reading that fits worst. */
      reading: number;
      /** What would have to be true for that reading to hold, likeliest first. */
      wouldNeed: { part: string; fault: FaultName }[];
    };
const NAME_SHARE = 0.9;
/** Share from which nothing else is left to be it. */
const ELIMINATED_SHARE = 0.99;
/** Bits by which a reading may fit worse than its best explanation before the verdict waits for it. */
const CONFLICT_BITS = 7;
/** Bits of misfit at which a single reading is worth taking again once no other test is left. */
const DOUBTFUL_BITS = 2;
const UNEXPLAINED_SHARE = 0.5;
/** Share at which another part that nothing has been read on holds a name back. */
const RIVAL_SHARE = 0.03;
/** Share of all that could have taken a fuse, at which it is not named for itself yet. */
const TOOK_SHARE = 0.01;
/** Of an output's share from which its program may be what does not ask. */
const UNASKED_SHARE = 0.05;
const MOST_NEEDS = 3;
/** The leading suspect, with what its proof needs. */
export interface Lead {
  weighed: WeighedFault;
  place: FaultPlace;
  /** What feeds it or takes its return and was not shown good. */
  way: NotShown[];
  /** Another part that might still be it, and that no reading was taken on. */
  rival: WeighedFault | null;
  /** It is an output whose command bit nobody has looked at. */
  command: boolean;
}

export interface Judgement {
  verdict: Verdict;
  /** The part that leads, once it leads far enough to be proved; null before. */
  lead: Lead | null;
}

/**
 * Decides whether to name, go on, or say that nothing fits.
 *
 * @param mendedNow parts that were mended up to now
 */
export function decide(
  model: CircuitModel,
  faults: readonly CandidateFault[],
  posterior: Posterior,
  suspects: readonly Suspect[],
  observations: readonly Observation[],
  mendedNow: ReadonlySet<number>,
): Judgement {
  const without = (verdict: Verdict): Judgement => ({ verdict, lead: null });
  const keepTesting = { state: 'keepTesting' } as const;
  if (observations.length === 0) return without({ ...keepTesting, because: 'noReading' });
  const [top, ...others] = partShares(posterior.faults);
  const worst = worstFit(posterior, top?.lead ?? null);
  if (posterior.unexplained > UNEXPLAINED_SHARE && worst) {
    const reading = observations[worst.at]!.positions[0]!;
    return without({ state: 'unexplained', reading, wouldNeed: needsOf(posterior, worst.at) });
  }
  if (posterior.noFault >= NAME_SHARE) {
    const unseen = posterior.faults
      .filter(({ fault, share }) => share > 0.3 * fault.prior)
      .slice(0, 12)
      .map(({ fault, share }) => ({ part: fault.ref, fault: fault.fault, share }));
    return without({ state: 'noFault', share: posterior.noFault, unseen });
  }
  if (!top) return without({ ...keepTesting, because: 'noSuspect' });
  const proofs = provedBest(suspects, top.ref, proofsFrom(top.lead, observations));
  const place = placeOfFault(model, top.lead);
  const lead: Lead = { weighed: top.lead, place, way: [], rival: null, command: false };
  const onTop = { ...keepTesting, part: top.ref, share: top.share, proofs };
  if (top.share < NAME_SHARE) {
    return { verdict: { ...onTop, because: 'tooLittle', needed: NAME_SHARE }, lead };
  }
  if (
    worst &&
    worst.bits > CONFLICT_BITS &&
    observations[worst.at]!.readings.length === 1 &&
    // What was read before a repair cannot be read again.
    observations[worst.at]!.mended.size === mendedNow.size &&
    !proofs.readings.includes(observations[worst.at]!.positions[0]!)
  ) {
    const retake = observations[worst.at]!.positions[0]!;
    return { verdict: { ...onTop, because: 'misfit', retake }, lead };
  }
  const left = complaintLeft(posterior, top.lead, observations);
  if (left) return { verdict: { ...onTop, because: 'complaintLeft', ...left }, lead };
  lead.way = wayNotShown(model, faults, top.lead, place, observations);
  if (proofs.have < proofs.need) return { verdict: { ...onTop, because: 'proofMissing' }, lead };
  if (lead.way.length > 0) {
    const parts = lead.way.map(({ fault }) => fault.ref);
    return { verdict: { ...onTop, because: 'wayNotShown', parts }, lead };
  }
  const rival =
    others.find(({ share, lead: other }) => {
      if (share < RIVAL_SHARE) return false;
      const there = placeOfFault(model, other);
      // A reading across both, such as a coil with its suppressor, does not say which of them it is.
      return !observations.some(
        ({ bound }) => isOnPart(model, bound, there) && !isOnPart(model, bound, place),
      );
    }) ?? whatTook(model, top.lead, others, observations.length);
  if (rival) {
    lead.rival = rival.lead;
    return { verdict: { ...onTop, because: 'rivalOpen', rival: rival.ref, rivalShare: rival.share }, lead };
  }
  if (programOpen(posterior, top, observations)) {
    lead.command = true;
    return { verdict: { ...onTop, because: 'programOpen' }, lead };
  }
  return { verdict: named(model, top, proofs, []), lead };
}

/** What may have taken a fuse that is about to be named for itself: a new one would go as the old one did. */
function whatTook(
  { compiled }: CircuitModel,
  { fault }: WeighedFault,
  others: readonly PartShare[],
  observed: number,
): PartShare | undefined {
  const { part, branches } = compiled.parts[fault.part]!;
  if (part.kind !== 'fuse') return undefined;
  const own = branches[0]!.index;
  const took = others.filter(({ lead }) => {
    const during = leadDuring(lead);
    return Array.from({ length: observed }).some((_one, k) =>
      during(k).some((edit) => isSpent(edit) && edit.branch === own),
    );
  });
  return took.reduce((sum, { share }) => sum + share, 0) < TOOK_SHARE ? undefined : took[0];
}

/** Whether an output that is not told to be on and one that gives nothing are still one to all that was read, and its page was not looked at. */
function programOpen(
  { faults }: Posterior,
  { ref, share }: { ref: string; share: number },
  observations: readonly Observation[],
): boolean {
  const unasked = faults.find(({ fault }) => fault.ref === ref && fault.fault === 'noCommand');
  if (!unasked || unasked.share < UNASKED_SHARE * share) return false;
  return !observations.some(({ bound }) => isCommandBit(bound.test, ref));
}

/** Observations that may prove the leading part: of one that was mended and is believed bad again, those since. */
function proofsFrom(lead: WeighedFault, observations: readonly Observation[]): readonly Observation[] {
  const { part } = lead.fault;
  if (leadNow(lead).length === 0 || !observations.some(({ mended }) => mended.has(part))) return observations;
  return observations.filter(({ mended }) => mended.has(part));
}

/** The proofs of a part: of that among its likely faults of which most are there. */
function provedBest(suspects: readonly Suspect[], ref: string, observations: readonly Observation[]): Proofs {
  const own = suspects.filter(({ part }) => part === ref);
  const least = SAME_PART_SHARE * own[0]!.share;
  return own
    .filter(({ share }) => share >= least)
    .map((suspect) => countProofs(suspect, observations))
    .reduce((best, one) => (worth(one) > worth(best) ? one : best));
}

/** More proofs first, then those with one on the part. */
function worth({ have, onPart }: Proofs): number {
  return 2 * have + Number(onPart);
}

/**
 * Names the leading part after all where no test at hand could clear what holds the name back, what is left open being said; or where
 * one reading on it stands and nothing else is left.
 */
export function settled(model: CircuitModel, posterior: Posterior, verdict: Verdict): Verdict {
  const [top] = partShares(posterior.faults);
  if (verdict.state !== 'keepTesting' || !top || !verdict.proofs) return verdict;
  if (verdict.because === 'wayNotShown') return named(model, top, verdict.proofs, verdict.parts);
  if (verdict.because === 'rivalOpen') return named(model, top, verdict.proofs, [verdict.rival]);
  if (verdict.because === 'programOpen') return named(model, top, verdict.proofs, []);
  // One decisive reading stands on the part, the rest is eliminated, and no other would add anything.
  if (verdict.because === 'proofMissing' && verdict.proofs.onPart && top.share >= ELIMINATED_SHARE)
    return named(model, top, verdict.proofs, []);
  return verdict;
}

function named(model: CircuitModel, top: PartShare, proofs: Proofs, notCleared: string[]): Verdict {
  const { fault } = top.lead.fault;
  return {
    state: 'name',
    part: top.ref,
    fault,
    share: top.share,
    proofs,
    clearFirst: clearBefore(model, top.ref, fault),
    notCleared,
    spent: spentBy(model, top.lead),
    ...(leadNow(top.lead).length === 0 ? { mended: true } : {}),
  };
}

/** Share of what is believed of a part in which a fuse is gone by now, from which somebody has to look at it. */
const SPENT_SHARE = 0.25;

/** Fuses that may well be gone by now, were it this fault: run since, it took each that went in. */
function spentBy({ compiled }: CircuitModel, { points }: WeighedFault): string[] {
  const gone = new Map<number, number>();
  let total = 0;
  for (const { weight, now } of points) {
    total += weight;
    for (const edit of now?.() ?? [])
      if (isSpent(edit)) gone.set(edit.branch, (gone.get(edit.branch) ?? 0) + weight);
  }
  return [...gone]
    .filter(([, weight]) => weight >= SPENT_SHARE * total)
    .map(([branch]) => compiled.parts[compiled.branches[branch]!.part]!.part.ref);
}

/** Faults that would explain one reading by itself, likeliest first. */
function needsOf({ faults }: Posterior, at: number): { part: string; fault: FaultName }[] {
  return [...faults]
    .filter(({ partner }) => !partner)
    .map(({ fault, fits }) => ({ fault, worth: Math.log(fault.prior) + fits[at]! }))
    .sort((a, b) => b.worth - a.worth)
    .slice(0, MOST_NEEDS)
    .map(({ fault }) => ({ part: fault.ref, fault: fault.fault }));
}

/** Reading that fits the leading suspect worst although something else explains it, or null when all fit. */
export function doubtfulReading(posterior: Posterior, observations: readonly Observation[]): number | null {
  const lead = partShares(posterior.faults)[0]?.lead ?? null;
  const once = observations.map(({ readings }) => readings.length === 1);
  const worst = worstFit(posterior, lead, once);
  return worst && worst.bits > DOUBTFUL_BITS ? observations[worst.at]!.positions[0]! : null;
}

function worstFit(
  posterior: Posterior,
  lead: WeighedFault | null,
  among: readonly boolean[] = [],
): { at: number; bits: number } | null {
  if (!lead || lead.fits.length === 0) return null;
  let worst = { at: 0, bits: -Infinity };
  lead.fits.forEach((fit, at) => {
    const bits = (posterior.bestFits[at]! - fit) / Math.LN2;
    if (among[at] === false) return;
    if (bits > worst.bits) worst = { at, bits };
  });
  return worst;
}
