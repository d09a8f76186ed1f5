import { carriesItsOwn, fuseUnder, pulsesOf, startOf, startVerdict } from './inrush';
import type { Trace } from './trace';

const over = (value: (t: number) => number, end: number, step = 1e-3): Trace => {
  const seconds = Array.from({ length: Math.round(end / step) }, (_one, k) => k * step);
  return { seconds, values: seconds.map(value) };
};
/** Sixty amperes that run up to eleven, on after a quarter of a second. */
const motor = (t: number) => (t < 0.25 ? 0 : 11 + 50 * Math.exp(-(t - 0.25) / 0.2));

describe('a start', () => {
  it('is read from the moment it is switched on, whatever stands before it', () => {
    const { answer, rms, trace } = startOf(over(motor, 3), 0);
    expect(rms).toBe(false);
    expect(trace.seconds[0]).toBeCloseTo(0.25, 2);
    expect(answer.verdict).toBe('ran');
    expect(answer.peak).toBeCloseTo(61, 0);
    expect(answer.settled).toBeCloseTo(11, 1);
    expect(answer.settleSeconds).toBeCloseTo(0.2 * Math.log(50 / 1.1), 1);
  });
  it('that is switched off again settles where it stood, not at nothing', () => {
    const { answer } = startOf(
      over((t) => (t > 2.5 ? 0 : motor(t)), 3),
      0,
    );
    expect(answer).toMatchObject({ verdict: 'ran' });
    expect(answer.settled).toBeCloseTo(11, 1);
  });
  it('that was caught on the way, and comes again after a pause, is the one that was seen whole', () => {
    const cycle = (t: number) => ((t + 1.2) % 3 > 2 ? 0 : motor(((t + 1.2) % 3) + 0.25));
    const { answer, trace } = startOf(over(cycle, 6), 0);
    expect(trace.seconds[0]).toBeCloseTo(1.8, 2);
    expect(trace.seconds.at(-1)).toBeCloseTo(3.8, 1);
    expect(answer).toMatchObject({ verdict: 'ran' });
    expect(answer.peak).toBeCloseTo(61, 0);
  });
  it('of a motor that stands, and of nothing', () => {
    expect(
      startOf(
        over((t) => (t < 0.2 ? 0 : 60), 2),
        0,
      ).answer.verdict,
    ).toBe('locked');
    expect(
      startOf(
        over(() => 0.001, 2),
        0,
      ).answer.verdict,
    ).toBe('nothing');
  });
  it('of alternating current is taken by its heat, over each period', () => {
    const wave = (t: number) =>
      t < 0.1 ? 0 : Math.SQRT2 * (t < 0.2 ? 4.2 : 0.7) * Math.sin(2 * Math.PI * 60 * t);
    const { answer, rms } = startOf(over(wave, 1.5, 2e-4), 60);
    expect(rms).toBe(true);
    expect(answer.peak!).toBeCloseTo(4.2, 0);
    expect(answer.settled!).toBeCloseTo(0.7, 1);
    // A clamp that shows effective values already is left as it is.
    expect(
      startOf(
        over((t) => (t < 0.1 ? 0 : 0.7), 1),
        60,
      ).rms,
    ).toBe(false);
  });
});

describe('a start without a peak', () => {
  const still = (t: number) => (t < 0.2 ? 0 : 11);
  const verdictOf = (trace: Trace, before: Trace | null = null, drawn: number | null = 11) =>
    startVerdict(startOf(trace, 0), before && startOf(before, 0).answer, drawn, 'motor');

  it('stands where a peak would have been seen', () => {
    expect(verdictOf(over(still, 2))).toBe('locked');
  });
  it('is not seen where values lie too far apart, or it was on already', () => {
    expect(verdictOf(over(still, 8, 0.4))).toBe('unseen');
    expect(startOf(over(still, 8, 0.4), 0).apartSeconds).toBeCloseTo(0.4, 9);
    expect(verdictOf(over(() => 11, 2))).toBe('unseen');
    expect(
      verdictOf(
        over(() => 11, 2),
        null,
        null,
      ),
    ).toBe('unseen');
    expect(
      startOf(
        over(() => 11, 2),
        0,
      ).apartSeconds,
    ).toBeNull();
  });
  it('stands whatever was seen, where it carries what only one that stands carries', () => {
    expect(verdictOf(over(() => 60, 2))).toBe('locked');
    expect(
      verdictOf(
        over(() => 58, 2),
        over(motor, 3),
      ),
    ).toBe('locked');
    // Beside a sound one three times its own is not enough.
    expect(
      verdictOf(
        over(() => 40, 2),
        over(motor, 3),
      ),
    ).toBe('unseen');
    // A sound one that was not seen itself says nothing of a peak.
    expect(
      verdictOf(
        over(() => 11, 2),
        over(() => 11, 2),
      ),
    ).toBe('unseen');
  });
  it('that begins with its rise was seen', () => {
    const { seconds, values } = over(motor, 3);
    const from = seconds.findIndex((at) => at >= 0.25);
    const trace = { seconds: seconds.slice(from), values: [5, 40, ...values.slice(from + 2)] };
    expect(startOf(trace, 0).apartSeconds).toBeLessThan(5e-3);
  });
  it('carries its own, or something else', () => {
    expect(carriesItsOwn(11, null, 11)).toBe(true);
    expect(carriesItsOwn(25, null, 11)).toBe(false);
    expect(carriesItsOwn(4, null, 11)).toBe(false);
    expect(carriesItsOwn(11, null, null)).toBe(false);
  });
});

describe('a fuse under a start', () => {
  const start = startOf(over(motor, 3), 0).trace;
  it('bears it, may open, or opens', () => {
    expect(fuseUnder(start, 40)).toBe('bears');
    expect(fuseUnder(start, 20)).toBe('mayOpen');
    expect(fuseUnder(start, 5)).toBe('opens');
  });
  it('carries what else hangs on it as well', () => {
    expect(fuseUnder(start, 40, 40)).toBe('mayOpen');
  });
  it('at a steady current opens after its own times', () => {
    const steady = (seconds: number) => over(() => 20, seconds);
    expect(fuseUnder(steady(0.1), 10)).toBe('bears');
    expect(fuseUnder(steady(1), 10)).toBe('mayOpen');
    expect(fuseUnder(steady(6), 10)).toBe('opens');
  });
});

it('pulses are read by their frequency and the time on', () => {
  const answer = pulsesOf(over((t) => ((t * 120) % 1 < 0.45 ? 1.4 : 0.6), 0.2, 1e-4));
  expect(answer.hz).toBeCloseTo(120, 0);
  expect(answer.duty).toBeCloseTo(0.45, 1);
});
