import type { CircuitModel } from '../circuit/model';
import { NO_FAULT_PRIOR } from './faultFrequency';
import type { CandidateFault } from './faultTypes';

/** What a shed's own past says beside the drawing; nothing of it is needed. */
export interface Experience {
  /** Factors on the odds of faults, by {@link faultKey}; what is not named stays as it is by rule of thumb. */
  odds: Readonly<Record<string, number>>;
  /** Ohms at 20 °C of sound windings, by part, and how far they may be off, a share. */
  windings: Readonly<Record<string, LearntWinding>>;
}

export interface LearntWinding {
  ohms: number;
  tolerance: number;
  /** This very winding, or others of its type in the shed. */
  from: 'own' | 'fleet';
  /** As many readings. */
  count: number;
}

export const NO_EXPERIENCE: Experience = { odds: {}, windings: {} };

/** Part and fault of one. */
export function faultKey({ ref, fault }: Pick<CandidateFault, 'ref' | 'fault'>): string {
  return `${ref}|${fault}`;
}

/** Kind of part and fault: what is learnt of one part holds for its like. */
export function faultClass({ compiled }: CircuitModel, { part, fault }: CandidateFault): string {
  return `${compiled.parts[part]!.part.kind}|${fault}`;
}

/** Brings the shares of faults to what the shed has seen; together with `NO_FAULT_PRIOR` they add to one again. */
export function weighByExperience(faults: readonly CandidateFault[], { odds }: Experience): void {
  let sum = 0;
  for (const fault of faults) {
    fault.prior *= odds[faultKey(fault)] ?? 1;
    sum += fault.prior;
  }
  for (const fault of faults) fault.prior *= (1 - NO_FAULT_PRIOR) / sum;
}
