import { seededRandom } from '../../random';
import oracles from '../oracles.json';
import { codes, fill } from '../testing/fill';
import type { TraceAnswer } from './trace';

const over = (seconds: number, count: number, value: (t: number) => number) => {
  const times = Array.from({ length: count }, (_one, k) => (k * seconds) / (count - 1));
  return { seconds: times, values: times.map(value) };
};
const trace = (kind: string, points: object) =>
  fill<TraceAnswer>('trace', { kind, quantity: 'amps', ...points });

describe('a trace', () => {
  it('a motor that ran, one that stood, nothing, and one that was not watched long enough', () => {
    const ran = trace(
      'inrush',
      over(3, 300, (t) => 20 + 80 * Math.exp(-t / 0.2)),
    );
    expect(ran.verdict).toBe('ran');
    expect(ran.peak).toBeCloseTo(100, 6);
    expect(ran.settled).toBeCloseTo(20, 1);
    expect(ran.settleSeconds).toBeCloseTo(0.2 * Math.log(80 / 2), 1);
    expect(
      trace(
        'inrush',
        over(3, 300, (t) => 95 - t),
      ).verdict,
    ).toBe('locked');
    expect(
      trace(
        'inrush',
        over(3, 300, () => 0.002),
      ),
    ).toMatchObject({ verdict: 'nothing', settled: 0 });
    const noise = seededRandom(2);
    expect(
      trace(
        'inrush',
        over(3, 300, () => 0.05 * noise.normal()),
      ).verdict,
    ).toBe('nothing');
    const short = trace(
      'inrush',
      over(0.1, 30, (t) => 20 + 80 * Math.exp(-t / 0.2)),
    );
    expect(short).toMatchObject({ verdict: null, settled: null, settleSeconds: null });
    expect(codes(short)).toContain('notSettled');
  });
  it('the dip of a plunger that moves (E34), none of one that does not, and too few points', () => {
    const { tau_ms: tau } = oracles.E34.out;
    const rise = (t: number) => 1 - Math.exp((-t * 1000) / tau);
    const dip = (t: number) => rise(t) - 0.25 * Math.exp(-(((t - 0.006) / 0.0006) ** 2));
    const moved = trace('dip', over(0.05, 600, dip));
    expect(moved.moved).toBe(true);
    expect(moved.dipSeconds).toBeCloseTo(0.006, 3);
    expect(moved.settled).toBeCloseTo(1, 2);
    expect(trace('dip', over(0.05, 600, rise))).toMatchObject({ moved: false, dipSeconds: null });
    const coarse = trace('dip', over(0.05, 12, rise));
    expect(coarse.moved).toBeNull();
    expect(codes(coarse)).toContain('tooCoarse');
    const noisy = trace(
      'dip',
      over(0.05, 600, (t) => rise(t) + 0.004 * Math.sin(t * 91_000)),
    );
    expect(noisy.moved).toBe(false);
  });
  it('pulses: frequency, duty, mean, ripple', () => {
    const square = trace(
      'pwm',
      over(0.1, 4001, (t) => ((t * 100) % 1 < 0.3 ? 24 : 0)),
    );
    expect(square.hz).toBeCloseTo(100, 0);
    expect(square.duty).toBeCloseTo(0.3, 2);
    expect(square.mean).toBeCloseTo(7.2, 1);
    expect(square.ripple).toBe(24);
    // Current of E11: it climbs for the duty and falls for the rest.
    const { Imax, Imin, ripple } = oracles.E11.out;
    const saw = (t: number) => {
      const phase = (t * 200) % 1;
      return phase < 0.4 ? Imin + (ripple * phase) / 0.4 : Imax - (ripple * (phase - 0.4)) / 0.6;
    };
    const current = trace('pwm', over(0.05, 2001, saw));
    expect(current.duty).toBeCloseTo(0.4, 1);
    expect(current.ripple).toBeCloseTo(ripple, 2);
    expect(current.hz).toBeCloseTo(200, 0);
    expect(
      trace(
        'pwm',
        over(0.1, 15, (t) => ((t * 100) % 1 < 0.3 ? 24 : 0)),
      ),
    ).toMatchObject({ hz: null, duty: null });
    expect(
      trace(
        'pwm',
        over(0.1, 400, () => 5),
      ),
    ).toMatchObject({ hz: null, mean: expect.closeTo(5, 9) as number, ripple: 0 });
  });
  it('points out of order, or not one for one, are refused', () => {
    expect(() => trace('pwm', { seconds: [0, 1, 1], values: [1, 2, 3] })).toThrow(
      /seconds\[2\]: 1 does not come after 1/,
    );
    expect(() => trace('pwm', { seconds: [0, 1], values: [1] })).toThrow(
      /values: has 1 points, seconds has 2/,
    );
    expect(fill<TraceAnswer>('trace', { seconds: [0, 1], values: [0, 1] }).next).toEqual({ ask: 'kind' });
  });
});
