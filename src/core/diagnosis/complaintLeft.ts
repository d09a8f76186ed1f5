import type { Edit } from '../circuit/edits';
import { isPlain } from './legality';
import type { Observation } from './observations';
import { choiceKey, predict } from './predict';
import { isComplaint } from './proofs';
import { leadDuring, type Posterior, type WeighedFault } from './weighed';

/** Chance, under a suspect, below which what was complained of counts as left unexplained. */
const COMPLAINT_CHANCE = 0.15;
/** How much better something else has to explain it, bits. */
const COMPLAINT_BITS = 2;

/**
 * Bits by which something else explains better what was complained of, or watched, in the `k`-th observation; null where it is no
 * complaint or the suspect explains it.
 */
export function complaintGap(
  { bestFits }: Posterior,
  suspect: WeighedFault,
  observation: Observation,
  k: number,
): number | null {
  const { test } = observation.bound;
  if (!isComplaint(test) && !(test.kind === 'fuse' && isPlain(test))) return null;
  const fit = suspect.fits[k]!;
  const gap = (bestFits[k]! - fit) / Math.LN2;
  if (fit >= Math.log(COMPLAINT_CHANCE) || gap <= COMPLAINT_BITS) return null;
  return isSaidOtherwiseNow(observation, leadDuring(suspect)(k)) ? null : gap;
}

/** The first that the leading suspect does not explain and another would, by the position of its reading, and whether it was seen again. */
export function complaintLeft(
  posterior: Posterior,
  lead: WeighedFault,
  observations: readonly Observation[],
): { reading: number; again: boolean } | null {
  const left = observations.find((one, k) => complaintGap(posterior, lead, one, k) !== null);
  return left ? { reading: left.positions[0]!, again: left.positions.length > 1 } : null;
}

/** It was asked again, and the newest answer is what the suspect asks for: somebody was wrong at first. */
function isSaidOtherwiseNow({ bound, readings }: Observation, edits: readonly Edit[]): boolean {
  if (readings.length < 2) return false;
  const expected = predict(bound, edits);
  if (expected.type !== 'choice') return false;
  return (expected.odds[choiceKey(readings.at(-1)!.value)] ?? 0) >= COMPLAINT_CHANCE;
}
