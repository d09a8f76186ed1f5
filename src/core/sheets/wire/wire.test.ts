import { conductorOhms } from '../../circuit/wireGauge';
import oracles from '../oracles.json';
import { codes, fill } from '../testing/fill';
import type { WireAnswer } from './wire';

const wire = (fields: object) => fill<WireAnswer>('wire', fields);

describe('wire', () => {
  const { Vs, I, oneWay_m, maxPct } = oracles.E05.in;
  const load = { supplyVolts: Vs, amps: I, lengthMetres: oneWay_m, mostShare: maxPct / 100 };

  it('the smallest section that keeps to the share, with what it loses (E05)', () => {
    const { mostOhmsPerKm, size } = wire({ ...load, returns: 'wire' });
    expect(mostOhmsPerKm).toBeCloseTo(oracles.E05.out.ohm_per_km_max, 9);
    expect(size!.mm2).toBe(oracles.E05.out.size_mm2);
    expect(size!.dropVolts).toBeCloseTo(oracles.E05.out.drop_V, 9);
    expect(100 * size!.dropShare).toBeCloseTo(oracles.E05.out.drop_pct, 9);
  });
  it('home over the frame takes half the way; warm copper takes more; what was not said is said', () => {
    expect(wire({ ...load, returns: 'frame' }).size!.mm2).toBe(2.5);
    expect(wire({ ...load, returns: 'wire', temperatureC: 80 }).size!.mm2).toBe(6);
    expect(codes(wire(load))).toContain('returnTakenAsWire');
    const heavy = wire({ ...load, amps: 400, returns: 'wire' });
    expect(heavy.size).toBeNull();
    expect(codes(heavy)).toContain('noSizeSuffices');
  });
  it('what the wire that is there loses (E04)', () => {
    const { in: given, out } = oracles.E04;
    const { own } = wire({
      supplyVolts: given.Vs,
      amps: given.I,
      lengthMetres: given.oneWay_m,
      returns: 'wire',
      mm2: 2.5,
    });
    expect(own!.dropVolts).toBeCloseTo(out.V, 9);
  });

  const cable = { lengthMetres: 60, mm2: 0.5, temperatureC: 20, leadOhms: 0.2 };
  const ends = (metres: number, touch: number) => {
    const per = conductorOhms(1, cable.mm2);
    const shown = (ohms: number) => Number((ohms + cable.leadOhms).toFixed(2));
    return { nearOhms: shown(per * metres + touch), farOhms: shown(per * (60 - metres) + touch) };
  };
  it.each([
    [12, 0],
    [41, 0.8],
    [30, 0.1],
  ])('touches the frame at %d m, within its limits', (metres, touch) => {
    const { fault } = wire({ ...cable, ...ends(metres, touch) });
    expect(fault!.least).toBeLessThanOrEqual(metres);
    expect(fault!.most).toBeGreaterThanOrEqual(metres);
    expect(fault!.metres).toBeCloseTo(metres, 0);
    expect(Math.abs(fault!.ohms - touch)).toBeLessThan(0.1);
  });
  it('a touch of more ohms than the wire, ends that do not fit, or none at all are no place', () => {
    expect(wire({ ...cable, ...ends(20, 300) })).toMatchObject({ fault: null });
    expect(codes(wire({ ...cable, ...ends(20, 300) }))).toContain('shortOutweighs');
    expect(codes(wire({ ...cable, nearOhms: 0.4, farOhms: 9 }))).toContain('endsDoNotFit');
    expect(codes(wire({ ...cable, nearOhms: 'OL', farOhms: 1.2 }))).toContain('endsDoNotFit');
    expect(codes(wire({ ...cable, nearOhms: 'OL', farOhms: 'OL' }))).toContain('notShorted');
    // Copper that nobody took the temperature of widens the limits.
    const known = wire({ ...cable, ...ends(12, 0) }).fault!;
    const unknown = wire({ ...cable, ...ends(12, 0), temperatureC: null }).fault!;
    expect(unknown.most - unknown.least).toBeGreaterThan(known.most - known.least);
  });
  it('asks for what the question needs', () => {
    expect(wire({})).toMatchObject({ next: { ask: 'lengthMetres' } });
    expect(wire({ lengthMetres: 8 })).toMatchObject({ next: { ask: 'amps' } });
    expect(wire({ lengthMetres: 8, nearOhms: 0.4 })).toMatchObject({ next: { ask: 'farOhms' } });
    expect(wire({ lengthMetres: 8, nearOhms: 0.4, farOhms: 1 })).toMatchObject({ next: { ask: 'mm2' } });
  });
});
