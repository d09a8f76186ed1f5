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

  it('draws at work what it is drawn with', () => {
    const model = new CircuitModel(fed({ kind: 'lamp', ohms: 7.2, restOhms: 0.6 }));
    const amps: Test = { kind: 'amps', through: 'W1', setup: { controls: { lever: 'on' } } };
    expect(predictedValue('amps', predict(bindTest(model, amps), []))).toBeCloseTo(13.4 / 7.28, 2);
  });
});
