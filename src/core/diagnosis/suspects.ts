import type { CircuitModel } from '../circuit/model';
import { complaintGap } from './complaintLeft';
import { NO_FAULT_PRIOR } from './faultFrequency';
import type { CandidateFault, FaultName } from './faultTypes';
import type { Observation } from './observations';
import { isOnPart, placeOfFault } from './onPart';
import { isComplaint } from './proofs';
import { wasWrongDuring, type Posterior, type WeighedFault } from './weighed';

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
/** Limits of a severity further apart than this leave it untold. */
const MOST_OPEN = 100;

/** Share from which a suspect's readings on the part itself are held against what the others leave. */
const LEAST_TOLD = 0.05;

/** For and against every suspect, as data; wording belongs to the interface. One row for each part and fault. */
export function explainSuspects(
  model: CircuitModel,
  posterior: Posterior,
  observations: readonly Observation[],
): Suspect[] {
  const rest = observations.map((_one, k) => restOf(posterior, complaintsBut(observations, k), k));
  const known = new Map<string, (part: number) => number>();
  const given = (k: number, elsewhere: readonly number[]) => {
    const told = [...new Set([...complaintsBut(observations, k), ...elsewhere])].filter((one) => one !== k);
    const key = `${k} ${told.join()}`;
    const made = known.get(key) ?? restOf(posterior, told, k);
    known.set(key, made);
    return made;
  };
  const everything = observations.map((_one, k) => k);
  const rows = new Map<string, { lead: WeighedFault; share: number }>();
  // Heaviest first: a row's details are those of its likeliest story, alone or with a partner.
  for (const weighed of posterior.faults) {
    const { part, fault, other } = weighed.fault;
    const key = `${part} ${fault} ${other ?? ''}`;
    const row = rows.get(key);
    if (row) row.share += weighed.share;
    else rows.set(key, { lead: weighed, share: weighed.share });
  }
  const suspects = [...rows.values()].map(({ lead, share }): Suspect => {
    const { fault, fits, severity, severityRange, intermittent, partner } = lead;
    const place = placeOfFault(model, lead);
    const onPlace = observations.map(({ bound }) => isOnPart(model, bound, place));
    const elsewhere = observations.flatMap((_one, k) => (onPlace[k] ? [] : [k]));
    const wasWrong = wasWrongDuring(lead);
    const evidence = observations.flatMap(({ positions }, k): Evidence[] => {
      // What was read once it was mended tells of the mended machine.
      if (!wasWrong(k)) return [];
      const bits = (fits[k]! - Math.log(Math.max(rest[k]!(fault.part), 1e-300))) / Math.LN2;
      const onPart = onPlace[k]!;
      // On the part itself a reading need not tell again what others have told already: whether the part is fed, say. Elsewhere it
      // counts for what it clears of all that the others left: the coil that reads right with its suppressor off condemns that.
      const told = share > LEAST_TOLD ? given(k, onPart ? elsewhere : everything)(fault.part) : Infinity;
      const left = (fits[k]! - Math.log(Math.max(told, 1e-300))) / Math.LN2;
      const best = Math.max(bits, left);
      // What was seen is what this suspect would mostly show: that others show it more often yet does not speak against it.
      const expected = foreseen(observations[k]!, fits[k]!);
      // A complaint it does not explain speaks against it, whether what else is left explains it or not.
      const gap = complaintGap(posterior, lead, observations[k]!, k);
      const counted = gap !== null ? Math.min(best, -gap) : expected ? Math.max(best, 0) : best;
      return positions.map((reading) => ({ reading, bits: counted, onPart }));
    });
    return {
      part: fault.ref,
      fault: fault.fault,
      ...(fault.other === undefined ? {} : { other: fault.other }),
      ...severityOf(fault, severity, severityRange),
      ...(severityRange ? { severityRange } : {}),
      share,
      ...(intermittent > 0.5 ? { intermittent: true } : {}),
      ...(partner && !partner.mended
        ? {
            with: {
              part: partner.fault.ref,
              fault: partner.fault.fault,
              ...severityOf(partner.fault, partner.severity),
            },
          }
        : {}),
      // What was read on the part itself says more to a person than what speaks for it louder from further away.
      for: evidence
        .filter(({ bits }) => bits > 0.3)
        .sort((a, b) => Number(b.onPart) - Number(a.onPart) || b.bits - a.bits),
      against: evidence.filter(({ bits }) => bits < -0.3).sort((a, b) => a.bits - b.bits),
    };
  });
  return suspects.sort((a, b) => b.share - a.share);
}

/** Whether a suspect that fits so well, as a logarithm, foresaw a choice rather than any other. A figure is no choice. */
function foreseen({ readings }: Observation, fit: number): boolean {
  return (
    readings.every(({ value }) => typeof value !== 'number' && value !== 'OL') &&
    fit > readings.length * Math.log(0.5)
  );
}

/** Positions among the observations of what was complained of, one left aside. */
function complaintsBut(observations: readonly Observation[], but: number): number[] {
  return observations.flatMap(({ bound }, k) => (k !== but && isComplaint(bound.test) ? [k] : []));
}

/**
 * What the rest of the doubt, as the complaint leaves it, makes of one reading: the mean likelihood over all that could be wrong, the
 * faults of one part left out. A fault that the complaint rules out would make every reading look like a proof of whatever is left;
 * and what a part could have besides (a contact that does not make, or makes badly) does not speak against the part.
 */
function restOf(
  { faults, noFault: _share, noFaultFits }: Posterior,
  complaints: readonly number[],
  k: number,
): (part: number) => number {
  const weightOf = (prior: number, fits: readonly number[]) =>
    prior * Math.exp(complaints.reduce((sum, c) => sum + fits[c]!, 0));
  let weight = weightOf(NO_FAULT_PRIOR, noFaultFits);
  let total = weight * Math.exp(noFaultFits[k]!);
  const parts = new Map<number, { weight: number; total: number }>();
  for (const { fault, fits, partner } of faults) {
    if (partner) continue;
    const own = weightOf(fault.prior, fits);
    const known = parts.get(fault.part) ?? { weight: 0, total: 0 };
    parts.set(fault.part, known);
    known.weight += own;
    known.total += own * Math.exp(fits[k]!);
    weight += own;
    total += own * Math.exp(fits[k]!);
  }
  return (part) => {
    const own = parts.get(part) ?? { weight: 0, total: 0 };
    // What is left of two sums that are nearly equal is dust.
    return Math.max(total - own.total, 0) / Math.max(weight - own.weight, 1e-300);
  };
}

/** How likely each fault is under the complaint, and what else was `told`, by index, with the sound circuit as -1; not scaled. */
export function complaintWeights(
  { faults, noFaultFits }: Posterior,
  observations: readonly Observation[],
  told: readonly number[] = [],
): ReadonlyMap<number, number> {
  const complaints = [...new Set([...complaintsBut(observations, -1), ...told])];
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

/** A part's share of the doubt, and the likeliest of its faults. */
export interface PartShare {
  ref: string;
  share: number;
  lead: WeighedFault;
}

/** Share of each part, faults merged, highest first. */
export function partShares(faults: readonly WeighedFault[]): PartShare[] {
  const parts = new Map<string, PartShare>();
  for (const one of faults) {
    const known = parts.get(one.fault.ref);
    if (known) known.share += one.share;
    else parts.set(one.fault.ref, { ref: one.fault.ref, share: one.share, lead: one });
  }
  return [...parts.values()].sort((a, b) => b.share - a.share);
}
