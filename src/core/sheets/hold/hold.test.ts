import oracles from '../oracles.json';
import { codes, fill } from '../testing/fill';
import type { HoldAnswer } from './hold';

const hold = (fields: object) => fill<HoldAnswer>('hold', fields);

describe('holds or falls', () => {
  it('a vessel of air: the leak in free air (P01)', () => {
    const { litresPerMinute, lostKpa } = hold({
      of: 'air',
      startKpa: 700,
      endKpa: 640,
      seconds: 90,
      litres: 40,
    });
    expect(litresPerMinute).toBeCloseTo(oracles.P01.out.Q_L_min, 6);
    expect(lostKpa).toBeCloseTo(60, 6);
  });

  it('a vacuum side draws air in (P16), and its actuator may lose the shop’s share in a minute', () => {
    const side = hold({ of: 'vacuum', startKpa: -80, endKpa: -70, seconds: 60, litres: 50 });
    expect(1000 * side.litresPerMinute!).toBeCloseTo(oracles.P16.out.Q_mL_min, 3);
    expect(side).toMatchObject({ verdict: 'leaks' });
    expect(side.sharePerMinute).toBeCloseTo(0.125, 6);
    expect(hold({ of: 'vacuum', startKpa: -60, endKpa: -56, seconds: 60 }).verdict).toBe('holds');
    // The same loss in half the time is twice the leak.
    expect(hold({ of: 'vacuum', startKpa: -60, endKpa: -56, seconds: 30 }).verdict).toBe('leaks');
  });

  it('a system left standing: what its temperature explains is no leak', () => {
    const standing = { of: 'standing', startKpa: 1000, seconds: 12 * 3600, gaugeKpa: 5 };
    // 20 K cooler: (1000 + 101.3) kPa times 273.15 over 293.15.
    const cooled = hold({ ...standing, endKpa: 925, startC: 20, endC: 0 });
    expect(cooled.expectedKpa).toBeCloseTo(924.9, 1);
    expect(cooled.verdict).toBe('holds');
    expect(hold({ ...standing, endKpa: 925, startC: 20, endC: 20 }).verdict).toBe('leaks');
    const unknown = hold({ ...standing, endKpa: 925 });
    expect(unknown).toMatchObject({ verdict: null, next: { ask: 'startC' } });
    expect(codes(unknown)).toContain('temperatureNotKnown');
    // Warmed by as much as it lost it would read the same: without temperatures it is not said to hold.
    expect(hold({ ...standing, endKpa: 998 }).verdict).toBeNull();
  });

  it('says nothing below what the gauge shows, and asks for its step', () => {
    const air = { of: 'air', startKpa: 600, endKpa: 596, seconds: 600, startC: 20, endC: 20 };
    expect(hold(air)).toMatchObject({ verdict: null, next: { ask: 'gaugeKpa' } });
    const coarse = hold({ ...air, gaugeKpa: 10 });
    expect(coarse.verdict).toBe('holds');
    expect(codes(coarse)).toContain('withinGauge');
    expect(hold({ ...air, gaugeKpa: 1 }).verdict).toBe('leaks');
  });

  it('a vacuum typed as a pressure is asked again, and no leak goes backwards', () => {
    const wrong = hold({ of: 'vacuum', startKpa: 60, endKpa: 50, seconds: 60 });
    expect(wrong).toMatchObject({ verdict: null, lostKpa: null, next: { ask: 'startKpa' } });
    expect(codes(wrong)).toContain('wrongSide');
    const gained = hold({
      of: 'air',
      startKpa: 600,
      endKpa: 605,
      seconds: 60,
      litres: 10,
      startC: 20,
      endC: 20,
      gaugeKpa: 1,
    });
    expect(gained).toMatchObject({ verdict: 'holds', litresPerMinute: 0 });
  });
});
