import oracles from '../oracles.json';
import { codes, fill } from '../testing/fill';
import type { BubblesAnswer } from './bubbles';

const bubbles = (fields: object) =>
  fill<BubblesAnswer>('bubbles', { end: 'extended', portPlugged: true, ...fields });

describe('the bubble test', () => {
  it('counts at the end stop only, by the size of a bubble (P02)', () => {
    const leaking = bubbles({ atEnd: 120, bubbleMm: 3, whileMoving: 200 });
    expect(leaking.verdict).toBe('leaking');
    expect(leaking.litresPerMinute! * 1000).toBeCloseTo(oracles.P02.out.Q_mL_min, 6);
    expect(bubbles({ atEnd: 0, whileMoving: 200 })).toMatchObject({ verdict: 'good', litresPerMinute: 0 });
    expect(codes(bubbles({ atEnd: 20 }))).toContain('bubbleTakenAs3mm');
  });
  it('an open port makes it none, and what is missing is asked for', () => {
    expect(bubbles({ atEnd: 40, portPlugged: false })).toMatchObject({
      verdict: 'invalid',
      litresPerMinute: null,
    });
    expect(bubbles({ whileMoving: 40 })).toMatchObject({ verdict: null, next: { ask: 'atEnd' } });
    expect(bubbles({ atEnd: 4, portPlugged: null })).toMatchObject({
      verdict: null,
      next: { ask: 'portPlugged' },
    });
  });
});
