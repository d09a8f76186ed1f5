import oracles from '../oracles.json';
import { codes, fill } from '../testing/fill';
import { factorTo40, type InsulationAnswer } from './insulation';

const line = { conductors: ['1', '2'], frame: 'PE', circuitVolts: 230, testVolts: 500 };
const sheet = (fields: object) => fill<InsulationAnswer>('insulation', fields);
const read = (from: string, to: string, ohms: number | 'OL', more: object = {}) => ({
  from,
  to,
  ohms,
  ...more,
});
const verdictOf = (answer: InsulationAnswer, at = 0) => answer.cells[at]!.verdict;

describe('insulation', () => {
  it('refuses electronics and volts above the class, and lower ones pass nothing', () => {
    const readings = [read('1', 'PE', 'OL')];
    expect(sheet({ ...line, readings, electronic: ['Controller'] })).toMatchObject({
      refused: 'electronicConnected',
      cells: [],
    });
    expect(sheet({ ...line, readings, circuitVolts: 24 }).refused).toBe('overClass');
    const under = sheet({ ...line, readings, testVolts: 250 });
    expect([under.refused, verdictOf(under)]).toEqual([null, null]);
    expect(codes(under)).toContain('underClass');
    // 80 V direct current count as line, here as for the tests of a job.
    expect(sheet({ ...line, circuitVolts: 80, readings })).toMatchObject({
      refused: null,
      cells: [{ verdict: 'good' }],
    });
    // What fails at fewer volts fails at more.
    expect(verdictOf(sheet({ ...line, testVolts: 250, readings: [read('1', 'PE', 2e5)] }))).toBe('bad');
    expect(sheet({ ...line, circuitVolts: undefined, readings }).next).toEqual({ ask: 'circuitVolts' });
  });
  it('good, to be watched, bad, by the mark of its class or of the policy (E31)', () => {
    const verdict = (ohms: number | 'OL', more: object = {}) =>
      verdictOf(sheet({ ...line, readings: [read('1', 'PE', ohms)], ...more }));
    expect([verdict(5e5), verdict(5e6), verdict(5e7), verdict('OL')]).toEqual([
      'bad',
      'watch',
      'good',
      'good',
    ]);
    expect(verdict(7e5, { circuitVolts: 24, testVolts: 250 })).toBe('watch');
    expect(sheet({ ...line, circuitVolts: 480, policy: 'kvPlusOne' }).passOhms).toBeCloseTo(
      oracles.E31.out.min_M * 1e6,
      0,
    );
    expect(verdict(5e8, { policy: 'overRange' })).toBe('bad');
    expect(verdict('OL', { policy: 'overRange' })).toBe('good');
    expect(verdict(5e6, { passOhms: 1e7 })).toBe('bad');
  });
  it('a run has its ratios, and one that falls is watched (E29)', () => {
    const run = (values: number[]) =>
      values.map((ohms, k) => read('1', 'PE', ohms * 1e6, { seconds: [30, 60, 600][k] }));
    const rising = sheet({ ...line, readings: run([80, 112, 280]) });
    expect(rising.cells[0]).toMatchObject({
      ratio: oracles.E29.out.DAR,
      index: oracles.E29.out.PI,
      verdict: 'good',
    });
    const falling = sheet({ ...line, readings: run([80, 70, 40]) });
    expect(falling).toMatchObject({ falling: [['1', 'PE']] });
    expect(verdictOf(falling)).toBe('watch');
    // Above five gigohms after a minute the index says nothing.
    expect(sheet({ ...line, readings: run([5000, 6000, 9000]) }).cells[0]!.index).toBeNull();
  });
  it('much below its past is watched; the same at another temperature is the same', () => {
    const before = [read('1', 'PE', 8e8, { temperatureC: 20 })];
    expect(
      verdictOf(sheet({ ...line, before, readings: [read('1', 'PE', 1e8, { temperatureC: 20 })] })),
    ).toBe('watch');
    expect(
      verdictOf(sheet({ ...line, before, readings: [read('PE', '1', 1e8, { temperatureC: 50 })] })),
    ).toBe('good');
    expect(
      verdictOf(sheet({ ...line, before: [read('1', 'PE', 'OL')], readings: [read('1', 'PE', 'OL')] })),
    ).toBe('good');
  });
  it('a reading taken while it charges does not condemn, and is asked for again', () => {
    const early = sheet({ ...line, readings: [read('1', 'PE', 6e5, { seconds: 5 })] });
    expect(verdictOf(early)).toBeNull();
    expect(early.next).toEqual({ from: '1', to: 'PE' });
    expect(verdictOf(sheet({ ...line, readings: [read('1', 'PE', 2e4, { seconds: 5 })] }))).toBe('bad');
  });
  it('asks each conductor to the frame, then each to each, and stops', () => {
    let readings: object[] = [];
    const asked: string[] = [];
    for (let k = 0; k < 5; k++) {
      const { next } = sheet({ ...line, readings });
      if (!next) break;
      const { from, to } = next as { from: string; to: string };
      asked.push(`${from}-${to}`);
      readings = [...readings, read(from, to, 'OL')];
    }
    expect(asked).toEqual(['1-PE', '2-PE', '1-2']);
  });
  it('500 conductors are no trouble', () => {
    const conductors = Array.from({ length: 500 }, (_one, k) => String(k));
    const readings = conductors.map((one) => read(one, 'PE', 'OL'));
    expect(sheet({ ...line, conductors, readings }).cells).toHaveLength(500);
  });
  it('held at 40 °C by either rule, and the current that leaks (E26 to E28)', () => {
    for (const { in: given, out } of [oracles.E27, oracles.E28]) {
      const cell = (material: string) =>
        fill<InsulationAnswer>('insulation', {
          conductors: ['1'],
          frame: 'PE',
          circuitVolts: 400,
          testVolts: 500,
          material,
          readings: [{ from: '1', to: 'PE', ohms: given.R * 1e6, seconds: 60, temperatureC: given.T }],
        }).cells[0]!;
      expect(cell('usual').ohms40! / 1e6).toBeCloseTo(out.R40, 9);
      expect(cell('thermosetting').ohms40! / 1e6).toBeCloseTo(out.R40_thermoset, 6);
    }
    const { in: given, out } = oracles.E26;
    const leaking = fill<InsulationAnswer>('insulation', {
      conductors: ['1'],
      frame: 'PE',
      circuitVolts: 400,
      testVolts: given.V,
      readings: [{ from: '1', to: 'PE', ohms: given.R_M * 1e6 }],
    }).cells[0]!;
    expect(leaking.leakAmps! * 1e6).toBeCloseTo(out.I_uA, 9);
    // No temperature, no figure at another one; outside its range the rule says nothing.
    expect(leaking.ohms40).toBeNull();
    expect(factorTo40(120, 'thermosetting')).toBeNull();
  });
});
