import { circuitSchema, type Circuit, type Reading, type Test } from '../circuit/schema';
import { CircuitModel } from '../circuit/model';
import { Diagnoser } from './diagnose';
import { meaningLimits } from './meaningLimits';
import { bindTest, predict, predictedValue } from './predict';
import { yardsticks } from './yardsticks';

/** A load behind a fuse and a switch, drawn with what it has at work. */
function fed(load: { kind: 'lamp' | 'motor' | 'heater'; ohms: number; restOhms?: number }): Circuit {
  const two = (one: string, other: string) => ({ '1': one, '2': other });
  return circuitSchema.parse({
    format: 'spiraxis-circuit',
    version: 1,
    name: 'Works behind a switch',
    frame: 'GND',
    controls: { lever: ['off', 'on'] },
    parts: [
      { ref: 'G1', kind: 'source', nodes: { '+': 'B+', '-': 'GND' }, volts: 13.4, internalOhms: 0.02 },
      { ref: 'F1', kind: 'fuse', nodes: two('B+', 'F1:2'), amps: 25 },
      {
        ref: 'S1',
        kind: 'switch',
        guards: 'none',
        nodes: two('F1:2', 'S1:2'),
        closedWhen: { lever: ['on'] },
      },
      { ref: 'W1', kind: 'wire', nodes: two('S1:2', 'A1:1'), ohms: 0.03 },
      { ref: 'A1', nodes: two('A1:1', 'A1:2'), ...load },
      { ref: 'W2', kind: 'wire', nodes: two('A1:2', 'GND'), ohms: 0.03 },
    ],
  });
}

const across: Test = {
  kind: 'ohms',
  from: 'A1:1',
  to: 'A1:2',
  setup: { controls: { lever: 'off' }, pulled: ['F1'] },
};
const dead: Reading = { kind: 'function', part: 'A1', setup: { controls: { lever: 'on' } }, value: 'dead' };

/** Shares once the load was measured: of everything shorted, and of what is open in it. */
function judged(circuit: Circuit, value: number | 'OL') {
  const { suspects, noFault } = new Diagnoser(circuit).diagnose([dead, { ...across, value } as Reading]);
  const share = (wanted: (one: (typeof suspects)[number]) => boolean) =>
    suspects.filter(wanted).reduce((sum, one) => sum + one.share, 0);
  return {
    noFault,
    shorted: share(({ fault }) => fault === 'short' || fault === 'shortToFrame'),
    open: share(({ part, fault }) => part === 'A1' && fault === 'open'),
  };
}

describe('what reads less at rest than at work', () => {
  const lamp = fed({ kind: 'lamp', ohms: 7.2 });
  const motor = fed({ kind: 'motor', ohms: 1.5 });

  it.each([
    ['a cold lamp', lamp, [0.55, 0.9, 7.2]],
    ['a standing motor', motor, [0.2, 0.4, 1.5]],
  ] as const)('%s is no short', (_name, circuit, values) => {
    for (const value of values) expect(judged(circuit, value).shorted).toBeLessThan(0.3);
  });

  it('is open where it reads over range', () => {
    for (const circuit of [lamp, motor]) expect(judged(circuit, 'OL').open).toBeGreaterThan(0.85);
  });

  it('an element that has its ohms cold as well is shorted where it reads a tenth', () => {
    expect(judged(fed({ kind: 'heater', ohms: 7.2 }), 0.7).shorted).toBeGreaterThan(0.65);
  });

  it('counts by what somebody has said that a meter reads', () => {
    const said = fed({ kind: 'motor', ohms: 3, restOhms: 1.1 });
    expect(judged(said, 1.1).shorted).toBeLessThan(0.25);
    expect(judged(said, 0.4).shorted).toBeGreaterThan(0.65);
    const model = new CircuitModel(said);
    expect(predictedValue('ohms', predict(bindTest(model, across), []))).toBeCloseTo(1.1, 2);
    const held = yardsticks(model, across, { readings: [], baselines: [], marks: {} as never });
    expect(held).toMatchObject([{ code: 'drawn', part: 'A1', ohms: 1.1 }]);
    expect(meaningLimits(model, across)).toEqual([]);
  });

  it('is foreseen as drawn, warned of, and sound from cold to hot', () => {
    const model = new CircuitModel(lamp);
    expect(predictedValue('ohms', predict(bindTest(model, across), []))).toBeCloseTo(7.2, 2);
    expect(meaningLimits(model, across)).toEqual([{ code: 'restsLower', part: 'A1' }]);
    const { next } = new Diagnoser(lamp).diagnose([dead], { tests: [across], most: 1 });
    const sound = next[0]!.outcomes.find((one) => one.sound)!;
    expect(sound.low).toBeLessThan(0.5);
    expect(sound.high).toBeGreaterThan(7.2);
  });

  it('says nothing for a seized rotor, however often it is measured: that one stands as well', () => {
    const live = { controls: { lever: 'on' } };
    const fuseOut: Reading[] = [
      dead,
      { kind: 'volts', from: 'F1:2', to: 'GND', setup: live, value: 0.004 },
      { kind: 'ohms', from: 'B+', to: 'F1:2', setup: { isolated: ['G1'] }, value: 'OL' },
    ];
    const often = (values: readonly number[]): Reading[] => {
      const setups = [{}, { pulled: ['F1'] }, { lifted: [{ part: 'W1', node: 'A1:1' }] }];
      return values.map(
        (value, k) => ({ ...across, setup: { ...setups[k], isolated: ['G1'] }, value }) as Reading,
      );
    };
    const odds = (readings: readonly Reading[]) => {
      const { suspects } = new Diagnoser(motor).diagnose(readings);
      const share = (part: string, fault: string) =>
        suspects.find((one) => one.part === part && one.fault === fault)?.share ?? 0;
      return {
        held: share('A1', 'jammed') / share('F1', 'open'),
        short: share('A1', 'short') / share('F1', 'open'),
      };
    };
    const before = odds(fuseOut);
    for (const values of [
      [0.21, 0.24, 0.22],
      [0.36, 0.33, 0.37],
      [1.4, 1.5, 1.45],
    ]) {
      const after = odds([...fuseOut, ...often(values)]);
      expect(after.held / before.held).toBeCloseTo(1, 1);
      // Nor for a short: that nobody knows which of two it reads is one unknown, and not one for each reading.
      expect(after.short).toBeLessThan(before.short);
    }
  });

  it('draws held what it reads standing, as widely as nobody knows it', () => {
    const model = new CircuitModel(motor);
    const amps: Test = { kind: 'amps', through: 'W1', setup: { controls: { lever: 'on' } } };
    const { variants } = new Diagnoser(motor).faults.find(
      ({ ref, fault }) => ref === 'A1' && fault === 'jammed',
    )!;
    const bare = { ...model.compiled.circuit };
    const unfused = new CircuitModel({
      ...bare,
      parts: bare.parts.map((part) => (part.kind === 'fuse' ? { ...part, amps: 500 } : part)),
    });
    const held = predict(bindTest(unfused, amps), variants[0]!.edits(1));
    expect(held).toMatchObject({ type: 'number', mean: expect.closeTo(13.4 / (0.25 + 0.09), 0) });
    expect((held as { sigma: number }).sigma).toBeGreaterThan(8);
    expect(predict(bindTest(model, across), variants[0]!.edits(1))).toEqual(
      predict(bindTest(model, across), []),
    );
  });

  it('draws at work what it is drawn with', () => {
    const model = new CircuitModel(fed({ kind: 'lamp', ohms: 7.2, restOhms: 0.6 }));
    const amps: Test = { kind: 'amps', through: 'W1', setup: { controls: { lever: 'on' } } };
    expect(predictedValue('amps', predict(bindTest(model, amps), []))).toBeCloseTo(13.4 / 7.28, 2);
  });
});
