import type { FaultName } from './faultTypes';
import type { CircuitModel } from '../circuit/model';
import type { Test } from '../circuit/schema';
import { NO_FAULT_PRIOR } from './faultFrequency';
import { clearBefore, type ClearFirst } from './clearBefore';
import type { CandidateFault } from './faultTypes';
import { isPlain } from './legality';
import { placeOf, type Observation } from './observations';
import { isOnPart, placeOfFault, type FaultPlace } from './onPart';
import { wayNotShown, type NotShown } from './wayShown';
import type { Posterior, WeighedFault } from './weighed';

export interface Evidence {
  /** Position of the reading in the case. */
  reading: number;
  /** How much better this suspect explains the reading than the rest of the doubt does, bits. Negative speaks against it. */
  bits: number;
  /** The reading was taken on the suspect itself. */
  onPart: boolean;
}

export interface Suspect {
  part: string;
  fault: FaultName;
  /** The other part of a fault between two. */
  other?: string;
  severityOhms?: number;
  /** Severity of a fault that is not measured in ohms. */
  severity?: { value: number; unit: 'restriction' | 'factor' };
  /** Interval that holds 90 % of the severity, in the same unit. */
  severityRange?: [number, number];
  share: number;
  intermittent?: boolean;
  /** A second fault that has to be present too. */
  with?: { part: string; fault: FaultName } & Pick<Suspect, 'severity' | 'severityOhms'>;
  for: Evidence[];
  against: Evidence[];
}

/** Why no part is named yet; `needed` is the share that one has to reach. */
export type WhyNot =
  | { because: 'noReading' | 'noSuspect' | 'proofMissing' }
  | { because: 'tooLittle'; needed: number }
  | { because: 'misfit'; retake: number }
  /** What was complained of, or seen, speaks against the part: it would leave that unexplained. */
  | { because: 'complaintLeft'; reading: number }
  /** What feeds it or takes its return could be broken too, for all that was read. */
  | { because: 'wayNotShown'; parts: string[] }
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

export interface Proofs {
  have: number;
  need: number;
  /** Positions of the readings that count. */
  readings: number[];
  onPart: boolean;
}

const NAME_SHARE = 0.9;
const PROOFS_NEEDED = 2;
/** Bits by which a reading on the part must favour it over the rest of the doubt to count as proof. */
const PROOF_BITS_ON_PART = 1;
/** The same for a reading elsewhere, which mostly shows that feed and return are good. */
const PROOF_BITS = 0.3;
/** Bits by which a reading may fit worse than its best explanation before the verdict waits for it. */
const CONFLICT_BITS = 7;
/** Bits of misfit at which a single reading is worth taking again once no other test is left. */
const DOUBTFUL_BITS = 2;
const UNEXPLAINED_SHARE = 0.5;
/** Limits of a severity further apart than this leave it untold. */
const MOST_OPEN = 100;
/** Share at which another part that nothing has been read on holds a name back. */
const RIVAL_SHARE = 0.03;
/** Chance, under the leading suspect, below which what was complained of counts as left unexplained. */
const COMPLAINT_CHANCE = 0.15;
/** How much better something else has to explain it, bits. */
const COMPLAINT_BITS = 2;
/** Asked of a person: what works, clicks and moves. */
const WATCHED: readonly Test['kind'][] = ['function', 'moves', 'click'];
const MOST_NEEDS = 3;

/** For and against every suspect, as data; wording belongs to the interface. One row for each part and fault. */
export function explainSuspects(
  model: CircuitModel,
  posterior: Posterior,
  observations: readonly Observation[],
): Suspect[] {
  const rest = observations.map((_one, k) => restOf(posterior, complaintsBut(observations, k), k));
  const rows = new Map<string, { lead: WeighedFault; share: number }>();
  // Heaviest first: a row's details are those of its likeliest story, alone or with a partner.
  for (const weighed of posterior.faults) {
    const key = JSON.stringify([weighed.fault.part, weighed.fault.fault, weighed.fault.other]);
    const known = rows.get(key);
    if (known) known.share += weighed.share;
    else rows.set(key, { lead: weighed, share: weighed.share });
  }
  const suspects = [...rows.values()].map(({ lead, share }): Suspect => {
    const { fault, fits, severity, severityRange, intermittent, partner } = lead;
    const place = placeOfFault(model, lead);
    const evidence = observations.flatMap(({ positions, bound }, k): Evidence[] => {
      const bits = (fits[k]! - Math.log(Math.max(rest[k]!.without(fault, fits), 1e-300))) / Math.LN2;
      const onPart = isOnPart(model, bound, place);
      return positions.map((reading) => ({ reading, bits, onPart }));
    });
    return {
      part: fault.ref,
      fault: fault.fault,
      ...(fault.other === undefined ? {} : { other: fault.other }),
      ...severityOf(fault, severity, severityRange),
      ...(severityRange ? { severityRange } : {}),
      share,
      ...(intermittent > 0.5 ? { intermittent: true } : {}),
      ...(partner
        ? {
            with: {
              part: partner.fault.ref,
              fault: partner.fault.fault,
              ...severityOf(partner.fault, partner.severity),
            },
          }
        : {}),
      for: evidence.filter(({ bits }) => bits > 0.3).sort((a, b) => b.bits - a.bits),
      against: evidence.filter(({ bits }) => bits < -0.3).sort((a, b) => a.bits - b.bits),
    };
  });
  return suspects.sort((a, b) => b.share - a.share);
}

/** Positions among the observations of what was complained of, one left aside. */
function complaintsBut(observations: readonly Observation[], but: number): number[] {
  return observations.flatMap(({ bound }, k) => (k !== but && isComplaint(bound.test) ? [k] : []));
}

/**
 * What the rest of the doubt, as the complaint leaves it, makes of one reading: the mean likelihood over all that could be wrong. A fault
 * that the complaint rules out would make every reading look like a proof of whatever is left.
 */
function restOf(
  { faults, noFault: _share, noFaultFits }: Posterior,
  complaints: readonly number[],
  k: number,
) {
  const weightOf = (prior: number, fits: readonly number[]) =>
    prior * Math.exp(complaints.reduce((sum, c) => sum + fits[c]!, 0));
  let weight = weightOf(NO_FAULT_PRIOR, noFaultFits);
  let total = weight * Math.exp(noFaultFits[k]!);
  for (const { fault, fits, partner } of faults) {
    if (partner) continue;
    const own = weightOf(fault.prior, fits);
    weight += own;
    total += own * Math.exp(fits[k]!);
  }
  return {
    /** The same without one of them. */
    without: (fault: CandidateFault, fits: readonly number[]) => {
      const own = weightOf(fault.prior, fits);
      return (total - own * Math.exp(fits[k]!)) / Math.max(weight - own, 1e-300);
    },
  };
}

/** How likely each fault is under the complaint alone, by index, with the sound circuit last; not scaled. */
export function complaintWeights(
  { faults, noFaultFits }: Posterior,
  observations: readonly Observation[],
): ReadonlyMap<number, number> {
  const complaints = complaintsBut(observations, -1);
  const fitOf = (fits: readonly number[]) => complaints.reduce((sum, c) => sum + fits[c]!, 0);
  const weights = new Map<number, number>([[-1, fitOf(noFaultFits)]]);
  for (const { fault, fits, partner } of faults) if (!partner) weights.set(fault.index, fitOf(fits));
  return weights;
}

function severityOf(
  { severity: range }: CandidateFault,
  likeliest: number | undefined,
  within?: [number, number],
): Pick<Suspect, 'severity' | 'severityOhms'> {
  if (!range || likeliest === undefined) return {};
  const [low, high] = within ?? [likeliest, likeliest];
  // Readings that leave two decades open have not told its size.
  if (high > MOST_OPEN * low) return {};
  const value = likeliest >= low && likeliest <= high ? likeliest : Math.sqrt(low * high);
  return range.unit === 'ohms' ? { severityOhms: value } : { severity: { value, unit: range.unit } };
}

/** Share of each part, faults merged, highest first. */
export function partShares(
  faults: readonly WeighedFault[],
): { ref: string; share: number; lead: WeighedFault }[] {
  const parts = new Map<string, { ref: string; share: number; lead: WeighedFault }>();
  for (const one of faults) {
    const known = parts.get(one.fault.ref);
    if (known) known.share += one.share;
    else parts.set(one.fault.ref, { ref: one.fault.ref, share: one.share, lead: one });
  }
  return [...parts.values()].sort((a, b) => b.share - a.share);
}

/** Bits from which a reading counts as a proof. */
export function proofBits(onPart: boolean): number {
  return onPart ? PROOF_BITS_ON_PART : PROOF_BITS;
}

/** What works and what does not is the complaint; the same with something swapped or pushed is a test. */
export function isComplaint(test: Test): boolean {
  return WATCHED.includes(test.kind) && isPlain(test);
}

/** Equal for readings that prove the same thing: one kind and place, and whether something moves said in either way. */
export function proofKey(test: Test): string {
  return placeOf(test.kind === 'moves' ? { ...test, kind: 'function' } : test);
}

/** Readings that prove a suspect: different kind or place, one of them on the part itself. */
export function countProofs(suspect: Suspect, observations: readonly Observation[]): Proofs {
  const strong = suspect.for.filter(({ bits, onPart }) => bits >= proofBits(onPart));
  const places = new Map<string, Evidence>();
  for (const evidence of strong) {
    const { bound } = observations.find(({ positions }) => positions.includes(evidence.reading))!;
    const { test } = bound;
    if (isComplaint(test)) continue;
    const key = proofKey(test);
    const known = places.get(key);
    if (!known || (evidence.onPart && !known.onPart)) places.set(key, evidence);
  }
  const counted = [...places.values()];
  const onPart = counted.some((evidence) => evidence.onPart);
  const have = Math.min(onPart ? counted.length : Math.min(counted.length, 1), PROOFS_NEEDED);
  return { have, need: PROOFS_NEEDED, readings: counted.map(({ reading }) => reading), onPart };
}

/** The leading suspect, with what its proof needs. */
export interface Lead {
  weighed: WeighedFault;
  place: FaultPlace;
  /** What feeds it or takes its return and was not shown good. */
  way: NotShown[];
  /** Another part that might still be it, and that no reading was taken on. */
  rival: WeighedFault | null;
}

export interface Judgement {
  verdict: Verdict;
  /** The part that leads, once it leads far enough to be proved; null before. */
  lead: Lead | null;
}

/** Decides whether to name, go on, or say that nothing fits. */
export function decide(
  model: CircuitModel,
  faults: readonly CandidateFault[],
  posterior: Posterior,
  suspects: readonly Suspect[],
  observations: readonly Observation[],
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
  const suspect = suspects.find(({ part }) => part === top.ref)!;
  const proofs = countProofs(suspect, observations);
  const place = placeOfFault(model, top.lead);
  const lead: Lead = { weighed: top.lead, place, way: [], rival: null };
  const onTop = { ...keepTesting, part: top.ref, share: top.share, proofs };
  if (top.share < NAME_SHARE) {
    return { verdict: { ...onTop, because: 'tooLittle', needed: NAME_SHARE }, lead };
  }
  if (
    worst &&
    worst.bits > CONFLICT_BITS &&
    observations[worst.at]!.readings.length === 1 &&
    !proofs.readings.includes(observations[worst.at]!.positions[0]!)
  ) {
    const retake = observations[worst.at]!.positions[0]!;
    return { verdict: { ...onTop, because: 'misfit', retake }, lead };
  }
  const left = complaintLeft(posterior, top.lead, observations);
  if (left !== null) return { verdict: { ...onTop, because: 'complaintLeft', reading: left }, lead };
  lead.way = wayNotShown(model, faults, top.lead, place, observations);
  if (proofs.have < proofs.need) return { verdict: { ...onTop, because: 'proofMissing' }, lead };
  if (lead.way.length > 0) {
    const parts = lead.way.map(({ fault }) => fault.ref);
    return { verdict: { ...onTop, because: 'wayNotShown', parts }, lead };
  }
  const rival = others.find(({ share, lead: other }) => {
    if (share < RIVAL_SHARE) return false;
    const there = placeOfFault(model, other);
    return !observations.some(({ bound }) => isOnPart(model, bound, there));
  });
  if (rival) {
    lead.rival = rival.lead;
    return { verdict: { ...onTop, because: 'rivalOpen', rival: rival.ref, rivalShare: rival.share }, lead };
  }
  return { verdict: named(model, top, proofs, []), lead };
}

/** Names the leading part after all where no test at hand could clear what holds the name back: what is left open is said. */
export function settled(model: CircuitModel, posterior: Posterior, verdict: Verdict): Verdict {
  const [top] = partShares(posterior.faults);
  if (verdict.state !== 'keepTesting' || !top || !verdict.proofs) return verdict;
  if (verdict.because === 'wayNotShown') return named(model, top, verdict.proofs, verdict.parts);
  if (verdict.because === 'rivalOpen') return named(model, top, verdict.proofs, [verdict.rival]);
  return verdict;
}

function named(
  model: CircuitModel,
  top: { ref: string; share: number; lead: WeighedFault },
  proofs: Proofs,
  notCleared: string[],
): Verdict {
  const { fault } = top.lead.fault;
  return {
    state: 'name',
    part: top.ref,
    fault,
    share: top.share,
    proofs,
    clearFirst: clearBefore(model, top.ref, fault),
    notCleared,
  };
}

/** Something that was complained of, or watched, which the leading suspect does not explain and another would. */
function complaintLeft(
  posterior: Posterior,
  { fits }: WeighedFault,
  observations: readonly Observation[],
): number | null {
  const at = observations.findIndex(
    ({ bound }, k) =>
      (isComplaint(bound.test) || (bound.test.kind === 'fuse' && isPlain(bound.test))) &&
      fits[k]! < Math.log(COMPLAINT_CHANCE) &&
      (posterior.bestFits[k]! - fits[k]!) / Math.LN2 > COMPLAINT_BITS,
  );
  return at < 0 ? null : observations[at]!.positions[0]!;
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
