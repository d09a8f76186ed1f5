import type { Edit } from '../circuit/edits';
import type { Posterior } from './weighed';

/** A hypothesis with weight, for prediction: one fault at one representative severity. */
export interface Hypothesis {
  /** Index of the part, or −1 for a sound circuit. */
  part: number;
  ref: string | null;
  fault: string | null;
  edits: readonly Edit[];
  weight: number;
}

/** Severities that stand for a fault, fewer where little doubt is on it. */
const POINTS_PER_FAULT = 7;
const MUCH = 0.02;
const SOME = 0.003;
const LEAST_WEIGHT = 2e-4;
/** How much of the doubt the rough look covers, with how many worlds for each part. */
const ROUGH_SHARE = 0.97;
const ROUGH_EACH = 3;

/**
 * Representative hypotheses of a posterior: every fault that still counts, a few severities each. `evenly`: as many
 * severities for the faint suspects as for the leading ones, so that the answers they would give are all foreseen.
 */
export function hypothesesOf(posterior: Posterior, evenly = false): Hypothesis[] {
  const list: Hypothesis[] = [{ part: -1, ref: null, fault: null, edits: [], weight: posterior.noFault }];
  for (const { fault, share, points } of posterior.faults) {
    if (share < LEAST_WEIGHT) continue;
    const step = share / (evenly || share > MUCH ? POINTS_PER_FAULT : share > SOME ? 3 : 1);
    let run = 0;
    let heaviest = points[0];
    points.forEach((point, at) => {
      run += point.weight;
      if (!heaviest || point.weight > heaviest.weight) heaviest = point;
      const next = points[at + 1];
      if (run >= step || !next || next.variant !== point.variant) {
        if (run > LEAST_WEIGHT / 4) {
          list.push({
            part: fault.part,
            ref: fault.ref,
            fault: fault.fault,
            edits: (heaviest.now ?? heaviest.edits)(),
            weight: run,
          });
        }
        run = 0;
        heaviest = next;
      }
    });
  }
  return list;
}

/** The heaviest hypotheses of every part that matters, carrying that part's whole weight. */
export function roughly(hypotheses: readonly Hypothesis[]): Hypothesis[] {
  const parts = new Map<number, Hypothesis[]>();
  // The sound circuit comes first in every list: predictions are compared with it.
  const [sound, ...faulty] = hypotheses;
  for (const one of faulty) parts.set(one.part, [...(parts.get(one.part) ?? []), one]);
  const sorted = [...parts.values()]
    .map((list) => ({ list, total: list.reduce((sum, { weight }) => sum + weight, 0) }))
    .sort((a, b) => b.total - a.total);
  let run = sound!.weight;
  const rest = sorted.flatMap(({ list, total }) => {
    if (run > ROUGH_SHARE) return [];
    run += total;
    const best = [...list].sort((a, b) => b.weight - a.weight).slice(0, ROUGH_EACH);
    const kept = best.reduce((sum, { weight }) => sum + weight, 0);
    return best.map((one) => ({ ...one, weight: (one.weight / kept) * total }));
  });
  return [sound!, ...rest];
}
