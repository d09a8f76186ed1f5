import { CircuitModel } from '@/core/circuit/model';
import { singleCoil } from '@/core/templates/electrical';
import { TEMPLATES } from '@/core/templates/templates';
import { soundSpare, spareRatings } from './spareRatings';

describe('a spare', () => {
  const model = new CircuitModel(singleCoil({ volts: 24, ohms: 24 }));
  it('of a coil is measured on the bench, and its rated volts stand on the old label, not on the rail', () => {
    const { ratings, bench } = spareRatings(new CircuitModel(singleCoil({ volts: 25.4, ohms: 24 })), 'Y1');
    expect(ratings.map(({ name }) => name)).toEqual([
      'Volts, AC or DC',
      'Ohms at 20 °C',
      'Watts',
      'Duty',
      'Plug and thread',
    ]);
    expect(JSON.stringify(ratings)).not.toMatch(/25/);
    expect(soundSpare(24.5, bench!)).toBe(true);
    expect(soundSpare(12, bench!)).toBe(false);
    expect(soundSpare('OL', bench!)).toBe(false);
  });
  it('of every kind is matched by something', () => {
    for (const { build } of TEMPLATES) {
      const circuit = build();
      for (const { ref } of circuit.parts)
        expect(spareRatings(new CircuitModel(circuit), ref).ratings.length).toBeGreaterThan(0);
    }
  });
  it('of a fuse is never larger, and has nothing to measure', () => {
    const { ratings, bench } = spareRatings(model, 'F1');
    expect(ratings[0]!.wanted).toContain('never larger');
    expect(bench).toBeNull();
    expect(spareRatings(model, 'none')).toEqual({ ratings: [], bench: null });
  });
});
