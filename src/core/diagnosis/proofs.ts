import type { Test } from '../circuit/schema';
import { isPlain } from './legality';
import { placeOf, type Observation } from './observations';
import type { Evidence, Suspect } from './suspects';

export interface Proofs {
  have: number;
  need: number;
  /** Positions of the readings that count. */
  readings: number[];
  onPart: boolean;
}
const PROOFS_NEEDED = 2;
/** Bits by which a reading on the part must favour it over the rest of the doubt to count as proof. */
const PROOF_BITS_ON_PART = 1;
/** The same for a reading elsewhere, which mostly shows that feed and return are good. */
const PROOF_BITS = 0.3;
/** Asked of a person: what works, clicks and moves. */
const WATCHED: readonly Test['kind'][] = ['function', 'moves', 'gauge', 'click'];

/** Bits from which a reading counts as a proof. */
export function proofBits(onPart: boolean): number {
  return onPart ? PROOF_BITS_ON_PART : PROOF_BITS;
}

/** What works and what does not is the complaint; the same with something swapped or pushed is a test. */
export function isComplaint(test: Test): boolean {
  return WATCHED.includes(test.kind) && isPlain(test);
}

/**
 * Equal for readings that prove the same thing: one kind and place, and whether something moves said in either way. With a part lifted,
 * taken out or swapped the same two points read something else.
 */
export function proofKey(test: Test): string {
  const { lifted, removed, swapped } = test.setup;
  const place = placeOf(
    test.kind === 'moves' || test.kind === 'gauge' ? { ...test, kind: 'function' } : test,
  );
  return JSON.stringify([place, lifted ?? [], removed ?? [], swapped ?? []]);
}

/** Readings, of the observations given, that prove a suspect: different kind or place, one of them on the part itself. */
export function countProofs(suspect: Suspect, observations: readonly Observation[]): Proofs {
  const strong = suspect.for.filter(({ bits, onPart }) => bits >= proofBits(onPart));
  const places = new Map<string, Evidence>();
  for (const evidence of strong) {
    const test = observations.find(({ positions }) => positions.includes(evidence.reading))?.bound.test;
    // That a plunger does not click is the reading of what is jammed, once something shows that it is fed.
    const isItsClick = test?.kind === 'click' && evidence.onPart;
    if (!test || (isComplaint(test) && !isItsClick)) continue;
    const key = proofKey(test);
    const known = places.get(key);
    if (!known || (evidence.onPart && !known.onPart)) places.set(key, evidence);
  }
  const counted = [...places.values()];
  const onPart = counted.some((evidence) => evidence.onPart);
  const have = Math.min(onPart ? counted.length : Math.min(counted.length, 1), PROOFS_NEEDED);
  return { have, need: PROOFS_NEEDED, readings: counted.map(({ reading }) => reading), onPart };
}
