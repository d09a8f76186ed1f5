import { demoCircuit } from '@/testing/demoCircuits';
import { CircuitModel } from '../circuit/model';
import type { Part, Reading, Test } from '../circuit/schema';
import { shopMarks } from '../tables/marks';
import { ruleKey } from '../tables/ruleKey';
import { REFERENCE_TABLES } from '../tables/tables';
import { TEMPLATES } from '../templates/templates';
import { testKey } from './observations';
import { yardsticks, type Baseline, type Yardstick } from './yardsticks';

const MARKS = shopMarks({});
const template = (id: string) => TEMPLATES.find((one) => one.id === id)!.build();
const tilt = new CircuitModel(demoCircuit('groomer-blade-tilt'));
const of = (
  model: CircuitModel,
  test: Test,
  known: { readings?: Reading[]; baselines?: Baseline[]; rules?: Record<string, number> } = {},
): Yardstick[] =>
  yardsticks(model, test, {
    readings: known.readings ?? [],
    baselines: known.baselines ?? [],
    marks: known.rules ? shopMarks(known.rules) : MARKS,
  });
const dead = { pulled: ['F7'], unplugged: ['X7', 'X8'] };

describe('what a reading is held against', () => {
  it('is the drawing first, then a twin, then its own past', () => {
    const test: Test = { kind: 'ohms', from: 'Y8:1', to: 'Y8:2', setup: dead };
    const twin: Reading = { kind: 'ohms', from: 'Y7:1', to: 'Y7:2', setup: dead, value: 31.4 };
    const old = { key: testKey(test), value: 31.8, jobNumber: 388, at: '2026-02-03T10:00:00.000Z' };
    const older = { ...old, value: 31.1, jobNumber: 340 };
    const { ohms, tolerance } = tilt.compiled.circuit.parts.find(({ ref }) => ref === 'Y8') as Extract<
      Part,
      { kind: 'coil' }
    >;
    expect(of(tilt, test, { readings: [twin], baselines: [old, older] })).toEqual([
      { code: 'drawn', part: 'Y8', ohms, tolerance },
      { code: 'twin', part: 'Y7', value: 31.4 },
      { code: 'past', value: 31.8, jobNumber: 388, at: old.at },
    ]);
    // The other way round is another reading where a diode lies across, and another coil is no twin.
    expect(of(tilt, { ...test, from: 'Y8:2', to: 'Y8:1' }, { baselines: [old] })).toHaveLength(1);
    const other = new CircuitModel({
      ...tilt.compiled.circuit,
      parts: tilt.compiled.circuit.parts.map((part) =>
        part.ref === 'Y7' && part.kind === 'coil' ? { ...part, ohms: 1.2 * (part.ohms ?? NaN) } : part,
      ),
    });
    expect(of(other, test, { readings: [twin] }).map(({ code }) => code)).toEqual(['drawn']);
  });

  it('of current through a coil is what its twin draws', () => {
    const test: Test = { kind: 'amps', through: 'Y8', setup: { controls: { key: 'on', tilt: 'right' } } };
    const twin: Reading = {
      kind: 'amps',
      through: 'Y7',
      setup: { controls: { key: 'on', tilt: 'left' } },
      value: 0.78,
    };
    expect(of(tilt, test, { readings: [twin] })).toEqual([{ code: 'twin', part: 'Y7', value: 0.78 }]);
  });

  it('is a shop rule where volts are lost over a joint that carries current, and none over one that does not', () => {
    const test = (controls: Record<string, string>): Test => ({
      kind: 'volts',
      from: 'X31.2:1',
      to: 'X31.2:2',
      setup: { controls },
    });
    const pin = tilt.compiled.parts.find(({ part }) => part.ref === 'X31.2')!;
    const [from, to] = pin.nodes.map((node) => tilt.compiled.nodeNames[node]!) as [string, string];
    const across = (controls: Record<string, string>): Test => ({ ...test(controls), from, to }) as Test;
    expect(of(tilt, across({ key: 'on', tilt: 'right' }))).toEqual([
      { code: 'drop', place: 'joint', good: 0.05, repair: 0.1 },
    ]);
    expect(of(tilt, across({ key: 'on', tilt: 'left' }))).toEqual([]);
    const rules = {
      [ruleKey(
        REFERENCE_TABLES.find(({ id }) => id === 'contact-drops')!,
        0,
        'repair',
      )]: 0.15,
    };
    expect(of(tilt, across({ key: 'on', tilt: 'right' }), { rules })).toEqual([
      { code: 'drop', place: 'joint', good: 0.05, repair: 0.15 },
    ]);
  });

  it('knows a heavy contact and a heavy ground path from a light one', () => {
    const model = new CircuitModel(template('winch-pack'));
    const { compiled } = model;
    const marks = new Set<string>();
    for (const controls of model.combinations) {
      for (const { part, nodes } of compiled.parts) {
        const names = [...new Set(nodes)].map((node) => compiled.nodeNames[node]!);
        for (const from of names)
          for (const to of names)
            if (from < to)
              for (const one of of(model, { kind: 'volts', from, to, setup: { controls } }))
                if (one.code === 'drop') marks.add(`${part.kind} ${one.place}`);
      }
    }
    expect([...marks]).toContain('relay heavyContact');
    expect([...marks].filter((mark) => mark.startsWith('switch'))).toEqual([]);
    expect(
      of(tilt, { kind: 'volts', from: 'Y8:2', to: 'GND', setup: { controls: { key: 'on', tilt: 'right' } } }),
    ).toEqual([]);
  });

  it('is the mark of a standard for insulation, by the volts of the circuit', () => {
    const test: Test = { kind: 'insulation', from: 'Y8:1', to: 'GND', testVolts: 250, setup: dead };
    expect(of(tilt, test)).toEqual([{ code: 'insulation', ohms: 5e5, by: { standard: 'IEC 60364-6' } }]);
    const line = new CircuitModel(template('contactor-two-supplies'));
    const { frame } = line.compiled.circuit;
    const from = line.compiled.nodeNames.find((name) => name !== frame)!;
    expect(of(line, { kind: 'insulation', from, to: frame, testVolts: 500, setup: {} })).toEqual([
      { code: 'insulation', ohms: 1e6, by: { standard: 'IEC 60364-6' } },
    ]);
  });
});
