import type { CircuitModel } from '../circuit/model';
import type { Reading } from '../circuit/schema';
import { NO_FAULT_PRIOR } from '../diagnosis/faultFrequency';
import { listFaults } from '../diagnosis/faults';
import { gatherObservations, logLikelihood } from '../diagnosis/observations';
import { predict } from '../diagnosis/predict';
import { logMasses, logSpaced } from '../diagnosis/severity';

const POINTS = 900;

/**
 * The plain slow way to weigh single faults: every variant at nine hundred severities, every reading predicted anew at
 * each, likelihoods multiplied, sums taken. Shares by "part fault", and of a sound circuit under "sound".
 */
export function plainPosterior(model: CircuitModel, readings: readonly Reading[]): Map<string, number> {
  const observations = gatherObservations(model, readings);
  const { supplyVolts } = model.compiled;
  const likelihood = (edits: Parameters<typeof predict>[1]) =>
    observations.reduce((sum, one) => sum + logLikelihood(one, predict(one.bound, edits), supplyVolts), 0);
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
