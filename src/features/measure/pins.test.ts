import { readFileSync } from 'node:fs';
import { CircuitModel } from '@/core/circuit/model';
import { parseCircuit } from '@/core/circuit/parse';
import type { Reading } from '@/core/circuit/schema';
import { findLanes } from '@/core/path/lanes';
import { demoCircuit } from '@/testing/demoCircuits';
import { apartParts, closedParts, pinsOf } from './pins';

const model = new CircuitModel(
  parseCircuit(JSON.parse(readFileSync('demo/circuits/groomer-blade-tilt.circuit.json', 'utf8'))),
);
const lanes = findLanes(model);
const lane = lanes.lanes.find(({ id }) => id === 'Y8')!;
const node = (name: string) => model.compiled.nodeIndex.get(name)!;
const right = { controls: { key: 'on', tilt: 'right' } };
const pins = (...readings: Reading[]) => pinsOf({ model, gaugeUnit: 'bar' }, lane, readings);

describe('pinsOf', () => {
  it('pins a reading at its point, at its true height when that is off', () => {
    const sound = pins({ kind: 'volts', from: 'X8:1', to: 'GND', setup: right, value: 25 }).pins[0]!;
    expect(sound).toMatchObject({ node: node('X8:1'), text: '25.0 V' });
    expect(sound.off).toBeUndefined();
    const fallen = pins({ kind: 'volts', from: 'X8:1', to: 'GND', setup: right, value: 4.1 }).pins[0]!;
    expect(fallen).toMatchObject({ off: 'fallen', trueVolts: 4.1 });
    const lifted = pins({ kind: 'volts', from: 'X8:2', to: 'GND', setup: right, value: 12.5 }).pins[0]!;
    expect(lifted).toMatchObject({ off: 'lifted', trueVolts: 12.5 });
  });

  it('says under what condition a reading was taken when it is not the lane’s own', () => {
    const unplugged = { ...right, unplugged: ['X8'] };
    expect(
      pins({ kind: 'volts', from: 'X8:1', to: 'GND', setup: unplugged, value: 25 }).pins[0],
    ).toMatchObject({
      condition: 'no load',
    });
    expect(
      pins({ kind: 'ohms', from: 'X8:1', to: 'GND', setup: { pulled: ['F7'] }, value: 'OL' }).pins[0],
    ).toMatchObject({ condition: 'to frame', text: 'OL', over: true });
  });

  it('says of a gauge that it was read at rest, where the lane is drawn driven', () => {
    const clamp = new CircuitModel(demoCircuit('press-clamp'));
    const lane = findLanes(clamp).lanes.find(({ id }) => id === 'C1')!;
    const gauge = (bit: string): Reading => ({
      kind: 'pressure',
      at: 'C:A',
      value: 127,
      setup: { controls: { bit } },
    });
    const pinned = (bit: string) => pinsOf({ model: clamp, gaugeUnit: 'bar' }, lane, [gauge(bit)]).pins[0]!;
    expect(pinned('0')).toMatchObject({ text: '1.27 bar', condition: 'at rest' });
    expect(pinned('0').off).toBeUndefined();
    expect(pinned('1').condition).toBeUndefined();
    expect(pinned('1').off).toBe('fallen');
  });

  it('brackets neighbours, and lets the latest reading of a point win', () => {
    const across: Reading = {
      kind: 'ohms',
      from: 'Y8:1',
      to: 'Y8:2',
      setup: { pulled: ['F7'] },
      value: 31.4,
    };
    expect(pins(across)).toMatchObject({
      pins: [],
      spans: [{ from: node('Y8:1'), to: node('Y8:2'), text: '31.4 Ω' }],
    });
    const twice = pins(
      { kind: 'volts', from: 'X8:1', to: 'GND', setup: right, value: 4 },
      { kind: 'volts', from: 'X8:1', to: 'GND', setup: right, value: 25 },
    );
    expect(twice.pins.map(({ text }) => text)).toEqual(['25.0 V']);
  });

  it('leaves readings of other lanes to those lanes', () => {
    expect(pins({ kind: 'volts', from: 'X7:1', to: 'GND', setup: right, value: 0 }).pins).toEqual([]);
  });
});

describe('what stands apart or closed in a set-up', () => {
  const refs = (set: Set<number>) => [...set].map((at) => model.compiled.parts[at]!.part.ref);
  it('draws plugs apart and contacts as commanded', () => {
    expect(refs(apartParts(model, { pulled: ['F7'], unplugged: ['X8'] }))).toEqual(['F7', 'X8.1', 'X8.2']);
    const closed = refs(closedParts(model, right));
    expect(closed).toEqual(expect.arrayContaining(['S1', 'S3R']));
    expect(closed).not.toContain('S3L');
  });
});
