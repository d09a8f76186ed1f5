import { CircuitModel } from '../circuit/model';
import type { Setup, Test } from '../circuit/schema';
import { driverHighSide, twoWayPair } from '../templates/electrical';
import { airClamp } from '../templates/fluid';
import { nodeAccess, setupMinutes, testMinutes } from './access';
import { hypothesesOf } from './hypotheses';
import { isPlain, reachesElectronics } from './legality';
import { meterSigma } from './meter';
import { gatherObservations } from './observations';
import { Weigher } from './posterior';
import { bindTest } from './predict';
import { interval, logMasses, logSpaced, logSum, severityGrid, xlogx } from './severity';

const pair = new CircuitModel(twoWayPair());

describe('minutes', () => {
  const changes: Setup[] = [
    { pulled: ['F1'] },
    { unplugged: ['X1'] },
    { removed: ['Y1'] },
    { lifted: [{ part: 'W11', node: 'W11:2' }] },
    { jumpers: [['C', 'S1:2']] },
    { energised: ['Y1'] },
    { swapped: [['Y1', 'Y2']] },
  ];

  it.each(changes)('are spent on every change, there and back, and once only: %j', (setup) => {
    const there = setupMinutes(pair, {}, setup);
    expect(there).toBeGreaterThan(0.2);
    expect(setupMinutes(pair, setup, {})).toBeCloseTo(there, 9);
    expect(setupMinutes(pair, setup, setup)).toBe(0);
    const both: Setup = { ...setup, controls: { lever: 'forward' } };
    expect(setupMinutes(pair, {}, both)).toBeGreaterThan(there);
  });

  it('cost more where a part is hard to get at', () => {
    const circuit = twoWayPair();
    const far = new CircuitModel({
      ...circuit,
      parts: circuit.parts.map((part) =>
        part.ref === 'F1' || part.ref === 'W1' ? { ...part, accessMinutes: 9 } : part,
      ),
    });
    const test: Test = { kind: 'volts', from: 'F1:2', to: 'GND', setup: {} };
    expect(testMinutes(far, test, nodeAccess(far))).toBeGreaterThan(
      testMinutes(pair, test, nodeAccess(pair)) + 5,
    );
  });
});

describe('what is legal', () => {
  const driver = new CircuitModel(driverHighSide());
  const tester = (setup: Setup): Test => ({
    kind: 'insulation',
    from: 'X1.1:2',
    to: 'GND',
    testVolts: 250,
    setup,
  });

  it('keeps test volts off a driver through anything that is in place', () => {
    const reaches = (setup: Setup) => reachesElectronics(driver, bindTest(driver, tester(setup)));
    expect(reaches({ isolated: ['G1'] })).toBe(true);
    expect(reaches({ isolated: ['G1'], unplugged: ['X1'] })).toBe(false);
    expect(reaches({ isolated: ['G1'], removed: ['A1'] })).toBe(false);
    expect(
      reaches({
        isolated: ['G1'],
        lifted: [
          { part: 'A1', node: 'A1:O' },
          { part: 'A1', node: 'S' },
        ],
      }),
    ).toBe(false);
    // A fuse or switch that happens to stand open is no separation.
    expect(reaches({ isolated: ['G1'], pulled: ['F1'] })).toBe(true);
  });

  it('tells looking from taking apart', () => {
    const test = (setup: Setup): Test => ({ kind: 'function', part: 'Y1', setup });
    expect(isPlain(test({ controls: { lever: 'forward' } }))).toBe(true);
    expect(isPlain(test({ pulled: ['F1'] }))).toBe(true);
    for (const setup of [
      { swapped: [['Y1', 'Y2']] },
      { unplugged: ['X1'] },
      { override: ['Q1'] },
    ] as Setup[]) {
      expect(isPlain(test(setup))).toBe(false);
    }
  });
});

describe('severities', () => {
  const range = { unit: 'ohms', least: 0.05, most: 2e6, mainLeast: 0.5, mainMost: 900 } as const;

  it('carry a prior that adds to one, most of it where the fault matters', () => {
    const grid = severityGrid(range);
    expect(grid).toEqual([...grid].sort((a, b) => a - b));
    const masses = logMasses(grid, range);
    expect(logSum(masses)).toBeCloseTo(0, 1);
    const main = grid.reduce(
      (sum, size, s) => (size >= 0.5 && size <= 900 ? sum + Math.exp(masses[s]!) : sum),
      0,
    );
    expect(main).toBeGreaterThan(0.9);
    expect(logMasses([3], null)).toEqual([0]);
  });

  it('have an interval that holds nine tenths', () => {
    const points = logSpaced(1, 1000, 31).map((severity) => ({ severity, weight: 1 / 31 }));
    const [low, high] = interval(points);
    expect(points.filter(({ severity }) => severity >= low && severity <= high).length / 31).toBeCloseTo(
      0.9,
      0,
    );
  });

  it('sum without overflow', () => {
    expect(logSum([1000, 1000])).toBeCloseTo(1000 + Math.LN2, 9);
    expect(logSum([-Infinity, -Infinity])).toBe(-Infinity);
    expect(xlogx(0)).toBe(0);
  });
});

describe('hypotheses', () => {
  const weigher = new Weigher(pair);
  const posterior = weigher.weigh(
    gatherObservations(pair, [
      { kind: 'function', part: 'Y1', setup: { controls: { lever: 'forward' } }, value: 'dead' },
    ]),
  );

  it('carry the whole doubt, the sound circuit first', () => {
    const list = hypothesesOf(posterior);
    expect(list[0]).toMatchObject({ part: -1, ref: null, edits: [] });
    expect(list.reduce((sum, { weight }) => sum + weight, 0)).toBeGreaterThan(0.98);
    for (const { weight } of list.slice(1)) expect(weight).toBeGreaterThan(0);
  });

  it('foresee more answers of faint suspects when asked evenly', () => {
    expect(hypothesesOf(posterior, true).length).toBeGreaterThan(hypothesesOf(posterior).length);
  });
});

describe('gauges and meters', () => {
  it('a gauge is good to a share of its scale, unless its own figure is given', () => {
    expect(meterSigma('pressure', 600, undefined)).toBe(meterSigma('pressure', 900, undefined));
    expect(meterSigma('pressure', 50, undefined)).toBeLessThan(meterSigma('pressure', 600, undefined));
    expect(meterSigma('pressure', 600, { accuracyPercent: 0.5 })).toBeLessThan(3);
  });

  it('what a pressure reads scatters with its supply', () => {
    const clamp = new CircuitModel(airClamp());
    const { solver, read } = bindTest(clamp, { kind: 'pressure', at: 'P', setup: {} });
    const prediction = read(solver.solve({ mode: 'live' }), []);
    if (prediction.type !== 'number') throw new Error(prediction.type);
    expect(prediction.sigma).toBeGreaterThan(3);
    expect(prediction.sigma).toBeLessThan(40);
  });
});
