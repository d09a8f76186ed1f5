import { isDeadKind } from '../circuit/testPlace';
import { CircuitModel } from '../circuit/model';
import { parseCircuit } from '../circuit/parse';
import { partSchema } from '../circuit/partSchema';
import { branchAmps } from '../circuit/world';
import { bindTest, predict, predictedValue } from '../diagnosis/predict';
import { Diagnoser } from '../diagnosis/diagnose';
import { listFaults } from '../diagnosis/faults';
import { proportionalFlow } from '../templates/fluid';
import { contactorTwoSupplies, speedPickup } from '../templates/line';
import { TEMPLATES } from '../templates/templates';
import { ALL_KINDS, kindOf, kindsThat, PART_KINDS } from './part/index';
import { READING_KINDS } from './reading/index';

describe('kinds of parts', () => {
  it('are those of the formats, no more and no fewer', () => {
    expect(partSchema.options.map(({ shape }) => shape.kind.value).toSorted()).toEqual(ALL_KINDS.toSorted());
  });

  it('add the faults they give odds for, over all templates, and none without', () => {
    const seen = new Map(ALL_KINDS.map((kind) => [kind, new Set<string>()]));
    for (const { build } of TEMPLATES) {
      const model = new CircuitModel(build());
      for (const { part, fault, prior } of listFaults(model)) {
        const { kind } = model.compiled.parts[part]!.part;
        seen.get(kind)!.add(fault);
        expect([kind, fault, prior > 0]).toEqual([kind, fault, true]);
      }
    }
    for (const [kind, faults] of seen) {
      if (faults.size === 0) continue;
      const odds = Object.keys(PART_KINDS[kind].odds);
      expect([kind, [...faults].filter((fault) => !odds.includes(fault))]).toEqual([kind, []]);
    }
  });

  it('have words of their own: none is taken for another', () => {
    const words = ALL_KINDS.flatMap((kind) => PART_KINDS[kind].chain.words);
    expect(new Set(words).size).toBe(words.length);
    for (const kind of ALL_KINDS) expect(PART_KINDS[kind].accessMinutes).toBeGreaterThan(0);
    expect(kindsThat('contact')).toEqual(['switch', 'relay', 'timer', 'pressureSwitch']);
    expect(kindOf({ kind: 'driver' }).traits.electronic).toBe(true);
  });
});

describe('a valve that follows its current', () => {
  const model = new CircuitModel(proportionalFlow());
  const { parts } = model.compiled;
  const valve = parts.find(({ part }) => part.kind === 'proportionalValve')!;
  const flow = (lever: string, edits: Parameters<typeof predict>[1] = []) =>
    Math.abs(
      branchAmps(
        model.situation({ controls: { lever } }).solve({ mode: 'live' }, edits),
        valve.branches[1]!.index,
      ),
    );
  const amps = (lever: string) =>
    Math.abs(
      branchAmps(model.situation({ controls: { lever } }).solve({ mode: 'live' }), valve.branches[0]!.index),
    );

  it('is shut without current, and the further open the more there is', () => {
    expect(flow('rest')).toBeLessThan(1e-6);
    expect(amps('fast')).toBeGreaterThan(1.5 * amps('slow'));
    const [shut, full] = ['rest', 'fast'].map(
      (lever) =>
        model.situation({ controls: { lever } }).solve({ mode: 'live' }).edges[valve.branches[1]!.index]!
          .siemens,
    );
    expect(full).toBeGreaterThan(10 * shut!);
    const half = model.situation({ controls: { lever: 'slow' } }).solve({ mode: 'live' });
    expect(half.edges[valve.branches[1]!.index]!.siemens).toBeLessThan(0.8 * full!);
    expect(half.edges[valve.branches[1]!.index]!.siemens).toBeGreaterThan(0.2 * full!);
  });

  it('is diagnosed: an open winding is found by the readings a technician would take', () => {
    const diagnoser = new Diagnoser(proportionalFlow());
    const on = { controls: { lever: 'fast' } };
    const { suspects } = diagnoser.diagnose([
      { kind: 'function', part: 'C1', setup: on, value: 'dead' },
      { kind: 'volts', from: 'Q:1', to: 'GND', setup: on, value: 24.5 },
      { kind: 'ohms', from: 'Q:1', to: 'Q:2', setup: { isolated: ['G1'], unplugged: ['X1'] }, value: 'OL' },
    ]);
    expect(suspects[0]).toMatchObject({ part: 'Q1', fault: 'open' });
  });
});

describe('kinds of readings', () => {
  it('are dead where the screen and the rules say so', () => {
    for (const [kind, { dead }] of Object.entries(READING_KINDS))
      expect([kind, isDeadKind(kind as 'ohms')]).toEqual([kind, dead]);
  });

  it('a frequency is that of the supply that stands there, and nothing where none does', () => {
    const model = new CircuitModel(speedPickup({ hertz: 83 }));
    const read = (from: string, wheel: string) =>
      predictedValue(
        'hertz',
        predict(
          bindTest(model, { kind: 'hertz', from, to: 'GND', setup: { controls: { wheel, key: 'on' } } }),
          [],
        ),
      );
    expect(read('A1:5', 'turning')).toBe(83);
    expect(read('A1:5', 'still')).toBe(0);
    expect(read('B+', 'turning')).toBe(0);
    const line = new CircuitModel(contactorTwoSupplies());
    const test = { kind: 'hertz', from: 'L1', to: 'PE', setup: {} } as const;
    expect(predictedValue('hertz', predict(bindTest(line, test), []))).toBe(60);
    expect(() => bindTest(line, { ...test, from: 'nowhere' })).toThrow(/unknown node/);
  });

  it('a dead frequency speaks for what opens the pick-up’s run', () => {
    const diagnoser = new Diagnoser(
      parseCircuit({ ...speedPickup(), parts: speedPickup().parts.map((part) => ({ ...part })) }),
    );
    const setup = { controls: { wheel: 'turning', key: 'on' } };
    const share = (value: number) =>
      diagnoser
        .diagnose([{ kind: 'hertz', from: 'A1:5', to: 'GND', setup, value }])
        .suspects.filter(({ part }) => ['W2', 'W3', 'X4.1', 'X4.2', 'B1', 'B1W'].includes(part))
        .reduce((sum, one) => sum + one.share, 0);
    expect(share(0)).toBeGreaterThan(0.8);
    expect(share(83)).toBeLessThan(0.5);
  });
});
