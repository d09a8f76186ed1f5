import { CircuitModel } from '../circuit/model';
import type { Circuit, Reading, Test } from '../circuit/schema';
import { singleCoil } from '../templates/electrical';
import { contactorTwoSupplies } from '../templates/line';
import { Diagnoser } from './diagnose';
import { bindTest, predict } from './predict';
import { TOLERANCE_SIGMA } from './scatter';
import { commonScatter, supplySigma } from './commonScatter';
import { totalSigma } from './likelihood';
import { gatherObservations, logLikelihood } from './observations';
import type { NumberDue, Prediction } from './prediction';

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

  it('and so is what a branch that nobody has said moves, each by as much as it is moved', () => {
    const means = [24, 23.5, 1];
    const reaches = [-0.3, -0.9, 0.5];
    const values = [23.9, 23.0, 1.3];
    const predictions = due(means).map((one, k) =>
      one.type === 'number'
        ? { ...one, sigma: Math.hypot(one.sigma, reaches[k]!), common: { branch: 3, reach: reaches[k]! } }
        : one,
    );
    const sigmas = predictions.map((one, k) =>
      totalSigma(tests[k]!.kind, means[k]!, one.type === 'number' ? one.sigma : 0, undefined),
    );
    const covariance = means.map((one, i) =>
      means.map((other, j) =>
        i === j ? sigmas[i]! ** 2 : SHARE * one * SHARE * other + reaches[i]! * reaches[j]!,
      ),
    );
    const off = values.map((one, k) => one - means[k]!);
    const alone = off.reduce((sum, one, k) => sum + logNormal([one], [[sigmas[k]! ** 2]]), 0);
    const wanted = logNormal(off, covariance) - alone;
    const found = commonScatter(observed(values), SHARE, 24, (k) => predictions[k]!);
    expect(Math.abs(wanted)).toBeGreaterThan(0.5);
    expect(Math.abs(found - wanted)).toBeLessThan(0.25 * Math.abs(wanted));
  });

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

describe('what nobody has said', () => {
  const shareOf = (circuit: Circuit, readings: readonly Reading[], part: string, fault: string) =>
    new Diagnoser(circuit).diagnose(readings).suspects.find((one) => one.part === part && one.fault === fault)
      ?.share ?? 0;

  it('is moved as a change of it moves what is shown, alternating or not', () => {
    const direct = singleCoil();
    const own = direct.parts.find(({ ref }) => ref === 'Y1')!;
    if (own.kind === 'coil') delete own.ohms;
    for (const [circuit, ref, setup] of [
      [direct, 'Y1', RUN],
      [contactorTwoSupplies(), 'K1', { controls: { thermostat: 'calling' } }],
    ] as const) {
      const bare = structuredClone(circuit);
      const coil = bare.parts.find((part) => part.ref === ref)!;
      if (coil.kind === 'relay') delete coil.henries;
      const model = new CircuitModel(bare);
      const more = new CircuitModel(bare);
      const branch = model.compiled.notKnown[0]!;
      for (const changed of more.compiled.branches)
        if (changed.index === branch.index) {
          changed.ohms /= 1.01;
          changed.reactance /= 1.01;
        }
      const shown = (of: CircuitModel, test: Test) => predict(bindTest(of, test), []) as NumberDue;
      const own = coil.kind === 'relay' ? coil.nodes.a1 : coil.kind === 'coil' ? coil.nodes['1'] : '';
      const places: Test[] = [
        { kind: 'volts', from: own!, to: bare.frame, setup },
        { kind: 'amps', through: ref, setup },
        {
          kind: 'ohms',
          from: own!,
          to: bare.frame,
          setup: {
            isolated: model.compiled.circuit.parts.flatMap(({ kind, ref: source }) =>
              kind === 'source' ? [source] : [],
            ),
          },
        },
      ];
      for (const test of places) {
        const { mean, common } = shown(model, test);
        const moved = (shown(more, test).mean - mean) / 0.01;
        expect(common?.branch).toBe(branch.index);
        const tolerance = test.kind === 'ohms' ? branch.tolerance : branch.liveTolerance;
        const reach = common!.reach / (TOLERANCE_SIGMA * tolerance);
        expect(Math.sign(reach)).toBe(Math.sign(moved));
        // Of what alternates nobody knows the phase either: it is no less than what the size changes by.
        expect(Math.abs(reach)).toBeGreaterThan(0.95 * Math.abs(moved));
      }
    }
  });

  it('is one cause, however often it is read: a coil of no known value is no short at the third place', () => {
    const circuit = singleCoil();
    const coil = circuit.parts.find(({ ref }) => ref === 'Y1')!;
    if (coil.kind === 'coil') delete coil.ohms;
    const setup = { isolated: ['G1'] };
    const read = (from: string, to: string, value: number): Reading => ({
      kind: 'ohms',
      from,
      to,
      setup,
      value,
    });
    const dead: Reading = { kind: 'function', part: 'Y1', setup: RUN, value: 'dead' };
    const once = [dead, read('X1.1:2', 'Y1:2', 6)];
    const thrice = [...once, read('X1.1:2', 'GND', 6.1), read('X1.1:2', 'X1.2:2', 6.1)];
    expect(shareOf(circuit, thrice, 'Y1', 'shortedTurns')).toBeLessThan(0.05);
  });

  it('and full volts at three places do not name the coil of a contactor whose draw nobody knows', () => {
    const circuit = contactorTwoSupplies();
    const coil = circuit.parts.find(({ ref }) => ref === 'K1')!;
    if (coil.kind === 'relay') delete coil.henries;
    const setup = { controls: { thermostat: 'calling' } };
    const volts = (from: string): Reading => ({ kind: 'volts', from, to: 'PE', setup, value: 24 });
    const dead: Reading = { kind: 'function', part: 'M1', setup, value: 'dead' };
    const fed = ['F2:2', 'S1:2', 'A1'].map(volts);
    expect(shareOf(circuit, [dead, ...fed], 'K1', 'open')).toBeLessThan(0.5);
    expect(shareOf(circuit, [dead, ...fed], 'K1', 'open')).toBeLessThan(
      1.2 * shareOf(circuit, [dead, volts('A1')], 'K1', 'open'),
    );
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
