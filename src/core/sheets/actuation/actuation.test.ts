import { codes, fill } from '../testing/fill';
import type { ActuationAnswer } from './actuation';

const cycle = (makeKpa: number, breakKpa: number) => ({ makeKpa, breakKpa, changed: true });
const still = { changed: false };
const actuation = (cycles: object[], more: object = {}) =>
  fill<ActuationAnswer>('actuation', { atRest: 'open', ratedKpa: 600, cycles, ...more });

describe('a pressure switch over cycles', () => {
  it('good: its points are the middle of its cycles', () => {
    expect(actuation([cycle(598, 480), cycle(602, 482), cycle(610, 484)])).toMatchObject({
      contact: 'NO',
      verdict: 'good',
      makeKpa: 602,
      breakKpa: 482,
      hysteresisKpa: 120,
    });
    expect(
      actuation([cycle(480, 598), cycle(482, 602), cycle(484, 610)], { atRest: 'closed' }),
    ).toMatchObject({
      contact: 'NC',
      verdict: 'good',
    });
  });
  it('dead, intermittent, sticky, drifted', () => {
    expect(actuation([still, still, still]).verdict).toBe('dead');
    expect(actuation([cycle(600, 480), still, cycle(601, 481)])).toMatchObject({
      verdict: 'intermittent',
      makeKpa: 600.5,
    });
    expect(actuation([cycle(600, 480), cycle(690, 420), cycle(560, 500)]).verdict).toBe('sticky');
    expect(actuation([cycle(730, 600), cycle(735, 602), cycle(728, 598)]).verdict).toBe('drifted');
  });
  it('few cycles, no rating, a rest that disagrees: no verdict', () => {
    expect(actuation([cycle(600, 480), cycle(601, 481)])).toMatchObject({
      verdict: null,
      contact: 'NO',
      makeKpa: 600.5,
    });
    const unrated = actuation([cycle(600, 480), cycle(601, 481), cycle(602, 480)], { ratedKpa: null });
    expect(unrated).toMatchObject({ verdict: null, next: { ask: 'ratedKpa' } });
    const odd = actuation([cycle(600, 480), cycle(601, 481), cycle(602, 480)], { atRest: 'closed' });
    expect(odd).toMatchObject({ contact: null, verdict: null });
    expect(codes(odd)).toContain('restDisagrees');
  });
});
