import { leftTitle, leftWords } from './leftBetween';

describe('where the doubt is left', () => {
  it('two parts are named, and which to try first', () => {
    const left = { parts: ['H2', 'R2'], swap: null, first: 'R2' };
    expect(leftTitle(left)).toBe('H2 or R2: no test here tells them apart');
    expect(leftWords(left)).toEqual([
      'Try a known good part: R2 first, the likeliest for the time that takes. If the fault stays, the old one goes back in, and H2 is next.',
    ]);
  });

  it('an equal beside it comes before a new part', () => {
    const left = { parts: ['Y8', 'X8.1', 'W15'], swap: { part: 'Y8', twin: 'Y7' }, first: 'Y8' };
    expect(leftTitle(left)).toBe('Y8, X8.1 or W15: no test here tells them apart');
    expect(leftWords(left)[0]).toBe(
      'Y7 is like Y8: put each in the other’s place. If the fault goes along, it is Y8.',
    );
    expect(leftWords(left)[1]).toMatch(/^Or try a known good part: Y8 first.*and X8\.1 or W15 is next\.$/);
  });

  it('of many no one is tried', () => {
    const parts = ['X8.1', 'X31.2', 'X8.2', 'W15'];
    expect(leftWords({ parts, swap: null, first: null })).toEqual([
      '4 parts are left: too many to try one after the other.',
    ]);
  });

  it('one part by itself is likeliest, and no more is said of it; nothing is made up where nothing leads', () => {
    expect(leftTitle({ parts: ['Y8'], swap: null, first: 'Y8' })).toBe(
      'Y8 is likeliest, and no test here says more',
    );
    expect(leftWords({ parts: ['Y8'], swap: null, first: 'Y8' })).toEqual([
      'Try a known good part: Y8. If the fault stays, the old one goes back in: it is something else.',
    ]);
    expect(leftTitle(null)).toBe('No test here says more');
    expect(leftWords(null)).toHaveLength(1);
  });
});
