import { TEMPLATES } from '../templates/templates';
import { readCodes, writeCodes } from './codesText';

describe('codes of a driver in a line', () => {
  it.each([
    ['5 under 0.1, 6 over 2.2', { '5': { belowAmps: 0.1 }, '6': { aboveAmps: 2.2 } }],
    ['5 under 0.1,6 over 2.2', { '5': { belowAmps: 0.1 }, '6': { aboveAmps: 2.2 } }],
    ['5 < 0,1; 6>2,2 A', { '5': { belowAmps: 0.1 }, '6': { aboveAmps: 2.2 } }],
    ['07 under 0.05 over 3', { '7': { belowAmps: 0.05, aboveAmps: 3 } }],
    ['5 under 0,1, 6 over 2', { '5': { belowAmps: 0.1 }, '6': { aboveAmps: 2 } }],
    ['  ', undefined],
  ])('%s', (text, wanted) => {
    expect(readCodes(text)).toEqual(wanted);
  });

  it.each(['5', '5 at 0.1', 'six over 2', '5 under', '5 under 0.1 A 6 over 2'])('refuses %s', (text) => {
    expect(() => readCodes(text)).toThrow(/is no code; write the mode and its current/);
  });

  it('come back from every template as they were', () => {
    const drivers = TEMPLATES.flatMap(({ build }) => build().parts).filter(({ kind }) => kind === 'driver');
    expect(drivers.length).toBeGreaterThan(3);
    for (const part of drivers)
      if (part.kind === 'driver' && part.codes) expect(readCodes(writeCodes(part.codes))).toEqual(part.codes);
    expect(writeCodes()).toBe('');
  });
});
