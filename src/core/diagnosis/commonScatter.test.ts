import { CircuitModel } from '../circuit/model';
import type { Reading, Test } from '../circuit/schema';
import { singleCoil } from '../templates/electrical';
import { commonScatter, supplySigma } from './commonScatter';
import { totalSigma } from './likelihood';
import { gatherObservations, logLikelihood } from './observations';
import type { Prediction } from './prediction';

const model = new CircuitModel(singleCoil({ volts: 24, ohms: 24 }));
const RUN = { controls: { key: 'on' } };
const tests: Test[] = [
  { kind: 'volts', from: 'B+', to: 'GND', setup: RUN },
  { kind: 'volts', from: 'F1:2', to: 'GND', setup: RUN },
  { kind: 'amps', through: 'Y1', setup: RUN },
];
const SHARE = 0.03;

function observed(values: readonly number[]) {
  return gatherObservations(
    model,
    tests.slice(0, values.length).map((test, k) => ({ ...test, value: values[k]! }) as Reading),
  );
}
/** Each predicted at a value, with the supply's scatter and a little of its own. */
const due = (means: readonly number[]): Prediction[] =>
  means.map((mean) => ({
    type: 'number',
    mean,
    sigma: Math.hypot(SHARE * mean, 0.004 * mean),
    loose: false,
  }));

/** log density of a normal vector, by elimination. */
function logNormal(off: readonly number[], covariance: readonly (readonly number[])[]): number {
  const rows = covariance.map((row, k) => [...row, off[k]!]);
  let logDeterminant = 0;
  for (let k = 0; k < rows.length; k++) {
    logDeterminant += Math.log(rows[k]![k]!);
    for (let j = k + 1; j < rows.length; j++) {
      const factor = rows[j]![k]! / rows[k]![k]!;
      for (let c = k; c <= rows.length; c++) rows[j]![c] = rows[j]![c]! - factor * rows[k]![c]!;
    }
  }
  const solved = new Array<number>(rows.length).fill(0);
  for (let k = rows.length - 1; k >= 0; k--) {
    let left = rows[k]![rows.length]!;
    for (let c = k + 1; c < rows.length; c++) left -= rows[k]![c]! * solved[c]!;
    solved[k] = left / rows[k]![k]!;
  }
  const square = off.reduce((sum, one, k) => sum + one * solved[k]!, 0);
  return -0.5 * (square + logDeterminant + rows.length * Math.log(2 * Math.PI));
}

describe('what the supply does to all readings alike', () => {
  it.each([[[23.3, 23.25, 0.97]], [[24.05, 23.98, 1.001]], [[23.85, 24.0, 0.998]]])(
    'is the correlated normal of %j against the independent one',
    (values) => {
      const means = [24, 23.95, 1];
      const predictions = due(means);
      const observations = observed(values);
      const sigmas = predictions.map((one, k) =>
        totalSigma(tests[k]!.kind, means[k]!, one.type === 'number' ? one.sigma : 0, undefined),
      );
      const covariance = means.map((one, i) =>
        means.map((other, j) => (i === j ? sigmas[i]! ** 2 : SHARE * one * SHARE * other)),
      );
      const off = values.map((one, k) => one - means[k]!);
      const alone = off.reduce((sum, one, k) => sum + logNormal([one], [[sigmas[k]! ** 2]]), 0);
      const wanted = logNormal(off, covariance) - alone;
      // Each counts as far as it is no slip; here hardly less than whole.
      expect(commonScatter(observations, SHARE, 24, (k) => predictions[k]!)).toBeCloseTo(wanted, 0);
    },
  );

  it('one reading says nothing more than itself, and neither does a circuit without scatter', () => {
    const predictions = due([24, 23.95, 1]);
    expect(commonScatter(observed([23]), SHARE, 24, (k) => predictions[k]!)).toBe(0);
    expect(commonScatter(observed([23, 23]), 0, 24, (k) => predictions[k]!)).toBe(0);
    expect(supplySigma(model)).toBeGreaterThan(0.01);
  });

  it('readings that cannot stand beside each other cost no more than a slip', () => {
    const predictions = due([24, 23.95, 1]);
    const apart = commonScatter(observed([23.1, 24.9]), SHARE, 24, (k) => predictions[k]!);
    expect(apart).toBeCloseTo(Math.log(0.02), 6);
  });

  it('a slip has no part in it', () => {
    const predictions = due([24, 23.95, 1]);
    const both = commonScatter(observed([24, 0]), SHARE, 24, (k) => predictions[k]!);
    expect(Math.abs(both)).toBeLessThan(0.2);
  });
});

describe('the same test once more', () => {
  const repeated = (...values: number[]) =>
    gatherObservations(
      model,
      values.map((value) => ({ ...tests[0]!, value }) as Reading),
    )[0]!;
  const [volts] = due([24]) as [Prediction];

  it('does not count the same deviation of the parts twice', () => {
    const once = logLikelihood(repeated(23), volts, 24);
    const twice = logLikelihood(repeated(23, 23.02), volts, 24);
    // The second agrees with the first as well as the meter allows: it is likelier than a fresh deviation would be.
    expect(twice).toBeGreaterThan(2 * once);
  });

  it('and one that jumps away is as odd as the meter makes it', () => {
    expect(logLikelihood(repeated(23, 24.6), volts, 24)).toBeLessThan(
      logLikelihood(repeated(23, 23.1), volts, 24) - 2,
    );
  });
});
