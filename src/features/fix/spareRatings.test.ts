import { CircuitModel } from '@/core/circuit/model';
import { singleCoil } from '@/core/templates/electrical';
import { soundSpare, spareRatings } from './spareRatings';

describe('a spare', () => {
  const model = new CircuitModel(singleCoil({ volts: 24, ohms: 24 }));
  it('of a coil is matched by volts, ohms and watts, and measured on the bench', () => {
    const { ratings, bench } = spareRatings(model, 'Y1');
    expect(ratings.find(({ name }) => name === 'Watts')!.wanted).toBe('24 W');
    expect(soundSpare(24.5, bench!)).toBe(true);
    expect(soundSpare(12, bench!)).toBe(false);
    expect(soundSpare('OL', bench!)).toBe(false);
  });
  it('of a fuse is never larger, and has nothing to measure', () => {
    const { ratings, bench } = spareRatings(model, 'F1');
    expect(ratings[0]!.wanted).toContain('never larger');
    expect(bench).toBeNull();
    expect(spareRatings(model, 'none')).toEqual({ ratings: [], bench: null });
  });
});
