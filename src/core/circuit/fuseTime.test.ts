import { fuseWindow, openedBy, opensFirst } from './fuseTime';
import oracles from './oracles.json';

describe('blade fuses', () => {
  it('open inside the reference’s windows', () => {
    const { out } = oracles.E23;
    expect(fuseWindow(out.pct_10)).toEqual({ leastSeconds: out.tmin_10, mostSeconds: Infinity });
    expect(fuseWindow(out.pct_15)).toEqual({ leastSeconds: out.tmin_15, mostSeconds: Infinity });
    for (const { out: both } of [oracles.E24a, oracles.E24b]) {
      expect(fuseWindow(both.pct_a)).toEqual({ leastSeconds: both.tmin_a, mostSeconds: Number(both.tmax_a) });
      expect(fuseWindow(both.pct_b)).toEqual({ leastSeconds: both.tmin_b, mostSeconds: Number(both.tmax_b) });
    }
  });

  it('name the first of two in series only where that is certain', () => {
    for (const { in: given, out } of [oracles.E24a, oracles.E24b]) {
      expect(opensFirst(given.I, given.a, given.b) === 'first').toBe(out.certain);
    }
    expect(opensFirst(36, 30, 10)).toBe('second');
  });

  it('grow likelier to have opened with time, never before the least nor after the most', () => {
    const { leastSeconds, mostSeconds } = fuseWindow(200);
    expect(openedBy(leastSeconds * 0.9, 200)).toBe(0);
    expect(openedBy(mostSeconds * 1.1, 200)).toBe(1);
    expect(openedBy(1, 200)).toBeGreaterThan(openedBy(0.5, 200));
    expect(openedBy(1e9, 120)).toBe(0);
  });
});
