import { codes, fill } from '../testing/fill';
import type { EvacuationAnswer } from './evacuation';

const minutes = [0, 1, 2, 3, 4, 6, 8, 10, 12];
const rise = (pa: (minute: number) => number, until = 12) =>
  minutes
    .filter((one) => one <= until)
    .map((minute) => ({ seconds: 60 * minute, pa: Math.round(pa(minute) * 10) / 10 }));
const evacuation = (list: object[], more: object = {}) =>
  fill<EvacuationAnswer>('evacuation', { rise: list, passPa: 67, forSeconds: 600, ...more });

describe('the rise of a vacuum', () => {
  it('tight, wet and leaking told apart by how it goes on', () => {
    expect(evacuation(rise((m) => 30 + m)).verdict).toBe('tight');
    expect(evacuation(rise((m) => 30 + 570 * (1 - Math.exp(-m / 1.5)))).verdict).toBe('moisture');
    expect(evacuation(rise((m) => 30 + 40 * m)).verdict).toBe('leak');
  });

  it('a curve between levelling and going on is not told, nor one that was too short', () => {
    expect(evacuation(rise((m) => 30 + 200 * (1 - Math.exp(-m / 9)))).verdict).toBeNull();
    const short = evacuation(rise((m) => 30 + m, 4));
    expect(short).toMatchObject({ verdict: null, next: { ask: 'rise' } });
    expect(codes(short)).toContain('notLongEnough');
    expect(codes(evacuation(rise((m) => 30 + m, 2)))).toContain('fewReadings');
    expect(codes(evacuation(rise(() => 90)))).toContain('notDeepEnough');
  });

  it('takes the shop’s mark where the maker’s is not typed, and says so', () => {
    const usual = evacuation(
      rise((m) => 30 + m),
      { passPa: undefined, forSeconds: undefined },
    );
    expect(usual).toMatchObject({ verdict: 'tight', passPa: 67 });
    expect(codes(usual)).toContain('passUsual');
  });

  it('readings out of order are refused with their place', () => {
    const twice = [...rise((m) => 30 + m), { seconds: 60, pa: 40 }];
    expect(() => evacuation(twice)).toThrow(/rise\[9\]\.seconds: 60 does not come after 720/);
  });
});
