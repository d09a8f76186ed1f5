import { isTimeZone, siteMoment, siteTime } from './siteTime';

describe('the clock of the site', () => {
  it.each([
    ['2026-02-03T13:05:00.000Z', 'UTC', '2026-02-03 13:05'],
    ['2026-02-03T13:05:00.000Z', 'Europe/Vienna', '2026-02-03 14:05'],
    // Summer time, and the days on each side of midnight.
    ['2026-07-03T22:30:00.000Z', 'Europe/Vienna', '2026-07-04 00:30'],
    ['2026-02-03T04:59:00.000Z', 'America/New_York', '2026-02-02 23:59'],
    ['2026-02-03T20:15:00.000Z', 'Asia/Kathmandu', '2026-02-04 02:00'],
  ])('%s in %s is %s', (iso, zone, wanted) => {
    expect(siteMoment(iso, zone)).toBe(wanted);
  });

  it('writes the day as it is said', () => {
    expect(siteTime('2026-02-03T23:30:00.000Z', 'Europe/Vienna').day).toBe('4 Feb 2026');
  });

  it('knows a zone from a word', () => {
    expect(isTimeZone('Pacific/Auckland')).toBe(true);
    expect(isTimeZone('Ostrel/Ridge')).toBe(false);
    expect(() => siteTime('2026-02-03T23:30:00.000Z', 'Ostrel/Ridge')).toThrow(RangeError);
  });
});
