import oracles from '../oracles.json';
import { codes, fill } from '../testing/fill';
import type { DropAnswer } from './drop';

const drop = (segments: object[], more: object = {}) =>
  fill<DropAnswer>('drop', { segments, temperatureC: 20, ...more });
const run = (name: string, measuredVolts?: number) => ({ name, lengthMetres: 4, mm2: 10, measuredVolts });

describe('voltage drop', () => {
  it('copper by length, section and temperature; what is over it is the joint’s (E01, E04)', () => {
    // 4 m of 10 mm² are 6.9 mΩ.
    const answer = drop([run('feed', 0.3), run('switch', 1.3)], { amps: 40 });
    expect(answer.segments[0]).toMatchObject({ verdict: 'good', watts: 12 });
    expect(answer.segments[0]!.copperVolts).toBeCloseTo((40 * 4) / 580, 6);
    expect(answer.segments[1]).toMatchObject({ verdict: 'high' });
    expect(answer.segments[1]!.extraOhms).toBeCloseTo(1.3 / 40 - 4 / 580, 6);
    expect(answer).toMatchObject({ worst: 'switch', next: null });
    expect(answer.total).toBeCloseTo(1.6, 9);
    const hot = drop([run('feed', 0.3)], { amps: 40, temperatureC: 85 }).segments[0]!.copperVolts!;
    expect(hot / ((40 * 4) / 580)).toBeCloseTo(oracles.E01.out.R / oracles.E01.in.R20, 6);
  });
  it('a gauge is as good as a section', () => {
    const answer = drop([{ name: 'run', lengthMetres: 10, awg: 12, measuredVolts: 1.1 }], { amps: 20 });
    expect(answer.segments[0]!.copperVolts).toBeCloseTo(20 * 0.05211, 3);
    expect(() => drop([{ name: 'run', awg: '44' }])).toThrow(/awg/);
  });
  it('what is not measured leaves the total open, and is asked for', () => {
    const open = drop([run('feed', 0.3), run('switch')], { amps: 40 });
    expect(open).toMatchObject({ total: null, worst: 'feed', next: { ask: 'switch.measuredVolts' } });
    expect(drop([run('feed', 0.3)])).toMatchObject({ next: { ask: 'amps' }, worst: null });
    expect(drop([{ name: 'feed', lengthMetres: 4, measuredVolts: 0.3 }], { amps: 40 })).toMatchObject({
      segments: [{ verdict: null, copperVolts: null, watts: 12 }],
      next: { ask: 'feed.mm2' },
    });
  });
  it('says nothing that a temperature nobody took could turn round', () => {
    const at = (measuredVolts: number) =>
      drop([run('feed', measuredVolts)], { amps: 40, temperatureC: undefined });
    expect(at(0.3).segments[0]!.verdict).toBe('good');
    expect(at(0.4)).toMatchObject({ segments: [{ verdict: null }], next: { ask: 'temperatureC' } });
    expect(at(1).segments[0]!.verdict).toBe('high');
    expect(codes(at(0.3))).toContain('temperatureNotKnown');
  });
  it('less than its copper is no drop of that wire; a wire too thin for its budget is said', () => {
    const less = drop([run('feed', 0.05)], { amps: 40 });
    expect(less.segments[0]!.verdict).toBeNull();
    expect(codes(less)).toContain('lessThanCopper');
    expect(codes(drop([run('feed', 0.3)], { amps: 40, budgetVolts: 0.2 }))).toEqual([
      'overBudget',
      'copperOverBudget',
    ]);
  });
});
