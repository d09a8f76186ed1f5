import type { Edit } from '../circuit/edits';
import type { CandidateFault } from './faultTypes';

/** A point of a fault's posterior: one variant at one severity. Weights of all points add to the fault's share. */
export interface SeverityPoint {
  variant: number;
  severity: number;
  weight: number;
  /** The fault itself, as it was brought in. */
  edits: () => readonly Edit[];
  /** What was wrong while an observation was made, where that was not always the fault alone: see {@link Story}. */
  during?: (observation: number) => readonly Edit[];
  /** What is wrong by now, where that is not the fault alone. */
  now?: () => readonly Edit[];
}

export interface WeighedFault {
  fault: CandidateFault;
  share: number;
  /** Severity with the highest posterior density, and the interval holding 90 % of it. Absent for discrete faults. */
  severity?: number;
  severityRange?: [number, number];
  points: SeverityPoint[];
  /** Log-likelihood of each observation at the likeliest severity. */
  fits: number[];
  /** Share of this fault's probability that stands for "it comes and goes". */
  intermittent: number;
  /** A second fault that must be present as well, when no single one explains the readings. Its edits are in the points. */
  partner?: {
    fault: CandidateFault;
    severity: number;
    /** It is gone by now: its part was repaired or renewed. */
    mended?: true;
  };
}

export interface Posterior {
  faults: WeighedFault[];
  noFault: number;
  noFaultFits: number[];
  /** Probability that no single or double fault fits: a reading or the drawing is wrong. */
  unexplained: number;
  /** Best log-likelihood each observation could have had under any candidate. */
  bestFits: number[];
}

/** A fault with its unnormalised log-probability; the costly details are worked out for those that count. */
export interface Weighed {
  log: number;
  fault: CandidateFault;
  /** Likeliest severity. */
  severity: number;
  fits: number[];
  details: () => Pick<WeighedFault, 'points' | 'intermittent' | 'severityRange'>;
  partner?: WeighedFault['partner'];
}

/** A fault's likeliest story, a partner included. */
export function leadEdits(weighed: WeighedFault): readonly Edit[] {
  return heaviestOf(weighed)?.edits() ?? fallback(weighed);
}

/** What is wrong by now in a fault's likeliest story: nothing more where it was mended. */
export function leadNow(weighed: WeighedFault): readonly Edit[] {
  const heaviest = heaviestOf(weighed);
  return (heaviest?.now ?? heaviest?.edits)?.() ?? fallback(weighed);
}

/** What was wrong while an observation was made, in a fault's likeliest story. */
export function leadDuring(weighed: WeighedFault): (observation: number) => readonly Edit[] {
  const during = heaviestOf(weighed)?.during;
  const own = leadEdits(weighed);
  return during ?? (() => own);
}

/** Whether something was wrong while an observation was made, in a fault's likeliest story: it may have been mended by then. */
export function wasWrongDuring(weighed: WeighedFault): (observation: number) => boolean {
  const during = heaviestOf(weighed)?.during;
  return during ? (k) => during(k).length > 0 : () => true;
}

function heaviestOf({ points }: WeighedFault): SeverityPoint | undefined {
  return points.reduce<SeverityPoint | undefined>(
    (top, one) => (top && top.weight >= one.weight ? top : one),
    undefined,
  );
}

function fallback({ fault, severity = 1 }: WeighedFault): readonly Edit[] {
  return fault.variants[0]!.edits(severity);
}
