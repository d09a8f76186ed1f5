import { CircuitModel } from '../circuit/model';
import type { Circuit, Reading, Test } from '../circuit/schema';
import { singleCoil } from '../templates/electrical';
import { contactorTwoSupplies } from '../templates/line';
import { Diagnoser } from './diagnose';
import { bindTest, predict } from './predict';
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

  it('and what nobody has said is summed over all that it may be', () => {
    // A coil of ten ohms, or of none that anybody knows, read and clamped: eight ohms and 1.55 A belong together.
    const dues: NumberDue[] = [
      {
        type: 'number',
        mean: 10,
        sigma: Math.hypot(1.8 * 10, 0.1),
        loose: false,
        common: { branch: 3, slope: -10, bend: 1 },
      },
      {
        type: 'number',
        mean: 1.2,
        sigma: Math.hypot(1.8 * 1.17, 0.02),
        loose: false,
        common: { branch: 3, slope: 1.17, bend: 0.025 },
      },
    ];
    const read = gatherObservations(model, [
      { kind: 'ohms', from: 'X1.1:2', to: 'Y1:2', setup: { isolated: ['G1'] }, value: 8 },
      { ...tests[2]!, value: 1.48 } as Reading,
    ]);
    const own = dues.map(({ sigma, common }, k) =>
      Math.sqrt(
        totalSigma(k ? 'amps' : 'ohms', dues[k]!.mean, sigma, undefined) ** 2 - (1.8 * common!.slope) ** 2,
      ),
    );
    const step = 1e-4;
    let sum = 0;
    for (let u = -3; u < 3; u += step) {
      const more = Math.exp(u) - 1;
      const logs = dues.map(({ mean, common }, k) => {
        const off = [8, 1.48][k]! - (mean + (common!.slope * more) / (1 + common!.bend * more));
        return -0.5 * (off / own[k]!) ** 2 - Math.log(own[k]! * Math.sqrt(2 * Math.PI));
      });
      sum += step * Math.exp(logs[0]! + logs[1]! - 0.5 * (u / Math.log(3)) ** 2);
    }
    const together = Math.log(sum / (Math.log(3) * Math.sqrt(2 * Math.PI)));
    const alone = dues.reduce((total, due, k) => total + logLikelihood(read[k]!, due, 24), 0);
    const found = commonScatter(read, 0, 24, (k) => dues[k]!);
    expect(together - alone).toBeGreaterThan(2);
    // Each is right as good as surely, not quite.
    expect(Math.abs(found - (together - alone))).toBeLessThan(0.15);
  });

  it('of what hardly follows it nothing is asked, and what fits nowhere is still a number', () => {
    const common = { branch: 3, slope: 1e-9, bend: 0.99 };
    const dues = due([24, 23.9]).map((one) => ({ ...one, common }) as NumberDue);
    for (const values of [
      [24, 23.9],
      [0.1, 23.9],
      [600, -600],
    ])
      expect(Number.isFinite(commonScatter(observed(values), SHARE, 24, (k) => dues[k]!))).toBe(true);
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
      const branch = model.compiled.notKnown[0]!;
      const shown = (of: CircuitModel, test: Test) => predict(bindTest(of, test), []) as NumberDue;
      const own = coil.kind === 'relay' ? coil.nodes.a1 : coil.kind === 'coil' ? coil.nodes['1'] : '';
      const isDirect = ref === 'Y1';
      const places: Test[] = [
        { kind: 'volts', from: own!, to: bare.frame, setup },
        { kind: 'amps', through: ref, setup },
      ];
      if (isDirect) places.push({ kind: 'ohms', from: own!, to: bare.frame, setup: { isolated: ['G1'] } });
      for (const times of [0.4, 3]) {
        const other = new CircuitModel(bare);
        for (const changed of other.compiled.branches)
          if (changed.index === branch.index) {
            changed.ohms /= times;
            changed.reactance /= times;
          }
        for (const test of places) {
          const { mean, common } = shown(model, test);
          const moved = shown(other, test).mean - mean;
          expect(common?.branch).toBe(branch.index);
          const { slope, bend } = common!;
          const told = (slope * (times - 1)) / (1 + bend * (times - 1));
          // Of what alternates nobody knows the phase either: it is no less than what the size changes by.
          if (isDirect) expect(told / moved).toBeCloseTo(1, 3);
          else {
            expect(Math.sign(told)).toBe(Math.sign(moved));
            expect(Math.abs(told)).toBeGreaterThan(0.9 * Math.abs(moved));
          }
        }
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
