import { fill } from '../testing/fill';
import type { CutInAnswer } from './cutIn';

const curve = (...points: [number, number][]) => points.map(([seconds, value]) => ({ seconds, value }));
const cutIn = (fields: object) =>
  fill<CutInAnswer>('cutIn', {
    sensor: 'pressure',
    acts: 'below',
    cutIn: 6,
    cutOut: 8,
    initially: 'off',
    ...fields,
  });

describe('cut-in and cut-out', () => {
  it('straight lines between points: on at or under the one, off at or over the other', () => {
    const answer = cutIn({ curve: curve([0, 8], [400, 4], [800, 8], [1200, 8]) });
    expect(answer).toMatchObject({
      intervals: [{ on: 200, off: 800 }],
      starts: 1,
      shortCycles: 0,
      trouble: [],
    });
    expect(answer.hoursOn).toBeCloseTo(600 / 3600, 9);
  });
  it('above is the other way round; what still runs has no end', () => {
    const answer = cutIn({ acts: 'above', cutIn: 4, cutOut: 2, curve: curve([0, 0], [600, 6], [1200, 6]) });
    expect(answer).toMatchObject({ intervals: [{ on: 400, off: null }], starts: 1 });
    expect(answer.hoursOn).toBeCloseTo(800 / 3600, 9);
  });
  it('minimum times hold a change back until they are over', () => {
    const points = curve([0, 5], [10, 9], [400, 9], [410, 5], [900, 5]);
    expect(cutIn({ curve: points, initially: 'on', minimumOnSeconds: 0 }).intervals![0]!.off).toBeCloseTo(
      7.5,
      9,
    );
    const held = cutIn({ curve: points, minimumOnSeconds: 300, minimumOffSeconds: 500 });
    expect(held.intervals).toEqual([
      { on: 0, off: 300 },
      { on: 800, off: null },
    ]);
    // It wanted off for a moment only: when the minimum is over the reason is gone.
    const gone = cutIn({ curve: curve([0, 5], [10, 9], [20, 7], [900, 7]), minimumOnSeconds: 300 });
    expect(gone.intervals).toEqual([{ on: 0, off: null }]);
  });
  it('short cycles, never on, never off, swapped', () => {
    const saw = curve(
      ...Array.from({ length: 11 }, (_one, k): [number, number] => [k * 40, k % 2 ? 8.5 : 5.5]),
    );
    const short = cutIn({ curve: saw });
    expect(short.shortCycles).toBeGreaterThan(5);
    expect(short.trouble).toContain('deadBandTooNarrow');
    expect(cutIn({ curve: curve([0, 9], [900, 7]) }).trouble).toEqual(['neverOn']);
    expect(cutIn({ curve: curve([0, 7], [900, 7.5]), initially: 'on' }).trouble).toEqual(['neverOff']);
    expect(cutIn({ cutIn: 8, cutOut: 6, curve: saw })).toMatchObject({
      trouble: ['swapped'],
      intervals: null,
      starts: null,
    });
  });
  it('in the dead band the beginning has to be known, and what is missing is asked for', () => {
    expect(cutIn({ curve: curve([0, 7], [900, 7]), initially: null })).toMatchObject({
      intervals: null,
      next: { ask: 'initially' },
    });
    expect(cutIn({ curve: curve([0, 5], [900, 9]), initially: null }).starts).toBe(0);
    expect(cutIn({ acts: null }).next).toEqual({ ask: 'acts' });
    expect(() => cutIn({ curve: curve([0, 5], [0, 9]) })).toThrow(
      /curve\[1\]\.seconds: 0 does not come after 0/,
    );
  });
});
