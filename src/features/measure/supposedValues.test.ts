import type { Outcome } from '@/core/diagnosis/outcomes';
import { supposedValues } from './supposedValues';

const outcome = (low: number, high: number, reading: number | 'OL'): Outcome =>
  ({ low, high, reading, share: 0.5, means: [], goes: [], faults: [], sound: false }) as Outcome;

describe('values worth supposing', () => {
  it('lie in every outcome, ascending, with over-range last', () => {
    const values = supposedValues(
      [outcome(28, 34, 31), outcome(900, Infinity, 'OL'), outcome(42, 3200, 300)],
      31.5,
    );
    expect(values.at(-1)).toBe('OL');
    const figures = values.slice(0, -1) as number[];
    expect([...figures].sort((a, b) => a - b)).toEqual(figures);
    expect(figures).toEqual(expect.arrayContaining([28, 31.5, 34, 42, 300, 3200]));
    // Decades get even steps on a logarithmic scale.
    expect(figures.filter((value) => value > 42 && value < 400).length).toBeGreaterThanOrEqual(2);
  });
  it('are none where nothing is measured', () => {
    expect(
      supposedValues(
        [{ reading: 'works', share: 1, means: [], goes: [], faults: [], sound: true } as unknown as Outcome],
        'works',
      ),
    ).toEqual([]);
  });
});
