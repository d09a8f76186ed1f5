import type { CircuitModel } from '../circuit/model';
import type { Reading } from '../circuit/schema';
import type { Edit } from '../circuit/edits';
import { NO_FAULT_PRIOR } from '../diagnosis/faultFrequency';
import { listFaults } from '../diagnosis/faults';
import { fuseTaken } from '../circuit/world';
import { spentFuse } from '../diagnosis/faultTable';
import { gatherObservations, logLikelihood } from '../diagnosis/observations';
import { predict } from '../diagnosis/predict';
import { logMasses, logSpaced } from '../diagnosis/severity';

const POINTS = 900;

/**
 * The plain slow way to weigh single faults: every variant at nine hundred severities, every reading predicted anew at
 * each, likelihoods multiplied, sums taken, with the fuse that each would have taken gone and not. Shares by "part fault", and of a sound circuit under "sound".
 */
export function plainPosterior(model: CircuitModel, readings: readonly Reading[]): Map<string, number> {
  const observations = gatherObservations(model, readings);
  const { supplyVolts } = model.compiled;
  const likelihood = (edits: readonly Edit[]) => {
    const own = observations.map(({ bound }) => predict(bound, edits));
    const each = own.map((prediction, k) => logLikelihood(observations[k]!, prediction, supplyVolts));
    const whole = each.reduce((sum, one) => sum + one, 0);
    // A fuse that the fault took when it was first run is gone from then on, as likely as not, until somebody looks at it.
    const taken = observations.map(({ bound: { solver, drive } }) =>
      drive.mode === 'live' ? fuseTaken(solver.solve(drive, edits)) : -1,
    );
    const from = taken.findIndex((part) => part >= 0);
    if (from < 0) return whole;
    const { ref } = model.compiled.parts[taken[from]!]!.part;
    const looked = observations.findIndex(({ bound: { test } }) => test.kind === 'fuse' && test.part === ref);
    if (looked >= 0 && looked <= from) return whole;
    const gone = [...edits, spentFuse(model, taken[from]!)];
    const spent = observations.reduce((sum, one, k) => {
      const isGone = k >= from && (looked < 0 || k < looked);
      return sum + (isGone ? logLikelihood(one, predict(one.bound, gone), supplyVolts) : each[k]!);
    }, 0);
    return Math.log(0.5 * Math.exp(whole) + 0.5 * Math.exp(spent));
  };
  const weights = new Map<string, number>([['sound', NO_FAULT_PRIOR * Math.exp(likelihood([]))]]);
  for (const { ref, fault, other, prior, severity, variants } of listFaults(model)) {
    const grid = severity ? logSpaced(severity.least, severity.most, POINTS) : [1];
    const masses = logMasses(grid, severity);
    let total = 0;
    for (const { weight, edits } of variants) {
      grid.forEach((size, s) => (total += weight * Math.exp(likelihood(edits(size)) + masses[s]!)));
    }
    const key = `${ref} ${fault} ${other ?? ''}`.trim();
    weights.set(key, (weights.get(key) ?? 0) + prior * total);
  }
  const sum = [...weights.values()].reduce((a, b) => a + b, 0);
  return new Map([...weights].map(([key, weight]) => [key, weight / sum]));
}
