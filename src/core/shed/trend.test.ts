import { seededRandom } from '../random';
import { FARTHEST_DAYS, trendOf, type TrendPoint, type TrendQuestion } from './trend';

const SIGMA = 0.05;
const point = (day: number, value: number, more: Partial<TrendPoint> = {}): TrendPoint => ({
  day,
  value,
  sigma: SIGMA,
  corrected: true,
  ...more,
});
const ask = (points: TrendPoint[], more: Partial<TrendQuestion> = {}) =>
  trendOf({
    points,
    limits: null,
    repairs: [],
    today: Math.max(...points.map(({ day }) => day)),
    byFactors: false,
    ...more,
  });
/** A place read every `step` days that moves by `perDay`, with the meter's noise. */
function drifting(seed: number, perDay: number, { count = 10, step = 30, base = 7, sigma = SIGMA } = {}) {
  const random = seededRandom(seed);
  return Array.from({ length: count }, (_, k) =>
    point(k * step, base + perDay * k * step + sigma * random.normal()),
  );
}

describe('how a place moves', () => {
  it('says nothing of fewer than four readings, or of three weeks', () => {
    expect(ask([point(0, 7), point(90, 8), point(180, 9)])).toMatchObject({
      state: 'few',
      toLimit: null,
      level: 8,
    });
    expect(ask([0, 5, 10, 15].map((day) => point(day, 7 + day)))).toMatchObject({ state: 'few' });
  });

  it('calls noise steady: of a hundred sound places no more than five move', () => {
    const moving = Array.from({ length: 100 }, (_, seed) => ask(drifting(seed + 1, 0)).state).filter(
      (state) => state !== 'steady',
    );
    expect(moving.length).toBeLessThanOrEqual(5);
  });

  it('gives a slope as it is, and one slip among ten does not turn it', () => {
    const points = drifting(3, 0.002);
    points[6] = point(180, 70);
    const { state, perYear } = ask(points);
    expect(state).toBe('rising');
    expect(Math.abs(perYear!.about - 0.73)).toBeLessThan(0.1);
    expect(perYear!.least).toBeLessThan(0.73);
    expect(perYear!.most).toBeGreaterThan(0.73);
  });

  it('says when the limit is reached, and the truth lies in its interval in four cases of five at least', () => {
    let inside = 0;
    let asked = 0;
    for (let seed = 1; seed <= 200; seed++) {
      const { toLimit } = ask(drifting(seed, 0.002), { limits: { least: 6, most: 8 } });
      if (!toLimit) continue;
      asked++;
      // 7 + 0.002 d = 8 at day 500; the last reading is on day 270.
      if (toLimit.soonest <= 230 && (toLimit.latest ?? FARTHEST_DAYS) >= 230) inside++;
      expect(toLimit.side).toBe('most');
      expect(toLimit.soonest).toBeLessThanOrEqual(toLimit.about);
    }
    expect(asked).toBeGreaterThan(150);
    expect(inside / asked).toBeGreaterThan(0.8);
  });

  it('is past its limit where its line is, and never says that it will be where it runs away from it', () => {
    expect(ask(drifting(5, 0.002), { limits: { least: null, most: 7.2 } })).toMatchObject({ beyond: 'most' });
    expect(ask(drifting(5, 0.002), { limits: { least: 6, most: null } })).toMatchObject({
      beyond: null,
      toLimit: null,
    });
  });

  it('insulation falls by factors: a tenth in a year is a tenth from wherever it stands', () => {
    const points = Array.from({ length: 8 }, (_, k) =>
      point(k * 60, 100e6 * 10 ** (-(k * 60) / 365.25), { sigma: 2e6 }),
    );
    const { perYear, toLimit } = ask(points, { byFactors: true, limits: { least: 1e6, most: null } });
    expect(perYear!.about).toBeCloseTo(-0.9, 3);
    // Two powers of ten from where it began: at day 730, of which 420 are gone.
    expect(toLimit!.about).toBeCloseTo(730.5 - 420, 0);
  });

  it('a joint that gets worse the worse it is, is followed by factors: a straight line would be late', () => {
    const points = Array.from({ length: 9 }, (_, k) => point(k * 80, 0.08 * 10 ** ((k * 80) / 700)));
    const { byFactors, toLimit } = ask(points, { limits: { least: null, most: 1 } });
    expect(byFactors).toBe(true);
    // 0.08 V tenfold in 700 days: 1 V on day 768, and the last was read on day 640.
    expect(Math.abs(toLimit!.about - 128)).toBeLessThan(20);
    expect(ask(drifting(3, 0.002)).byFactors).toBe(false);
  });

  it('a last reading past its limit is said, whatever the line has', () => {
    const points = drifting(3, 0).map((one, k) => (k === 9 ? { ...one, value: 8.4 } : one));
    expect(ask(points, { limits: { least: 6, most: 8 } })).toMatchObject({ state: 'steady', beyond: 'most' });
  });

  it('starts anew at a repair, and says what that changed', () => {
    const before = drifting(7, 0.004, { count: 6 });
    const after = drifting(8, 0, { count: 6 }).map((one) => ({ ...one, day: one.day + 190 }));
    const { state, step, used } = ask([...before, ...after], { repairs: [185] });
    expect(state).toBe('steady');
    expect(used).toBe(6);
    expect(step).toMatchObject({ before: before.at(-1)!.value, after: after[0]!.value });
  });

  it('takes a yearly swing out, and sees none where there is none', () => {
    const random = seededRandom(11);
    const swinging = Array.from({ length: 26 }, (_, k) => {
      const day = k * 28;
      return point(day, 7 + 0.5 * Math.cos((2 * Math.PI * day) / 365.25) + SIGMA * random.normal());
    });
    const seen = ask(swinging);
    expect(seen.swing).toBeCloseTo(0.5, 1);
    expect(seen.state).toBe('steady');
    // Cut after a year and three quarters the bare slope would be no wear.
    expect(ask(swinging.slice(0, 23)).state).toBe('steady');
    expect(ask(drifting(12, 0.001, { count: 26, step: 28 })).swing).toBeNull();
  });

  it('stands on what was corrected where there is enough of it', () => {
    const warm = [10, 40, 70, 100].map((day) => point(day, 8.4, { corrected: false }));
    expect(ask([...warm, ...drifting(13, 0, { count: 5 })])).toMatchObject({ used: 5 });
    expect(ask(warm)).toMatchObject({ used: 4, level: 8.4 });
  });
});
