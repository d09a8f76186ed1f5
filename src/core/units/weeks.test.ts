import { dueOf, endOfWeek } from './weeks';

describe('what is due', () => {
  // 2026-12-02 is a Wednesday.
  it.each([
    ['2026-12-01', 'overdue'],
    ['2026-11-30', 'overdue'],
    ['2026-12-02', 'thisWeek'],
    ['2026-12-06', 'thisWeek'],
    ['2026-12-07', 'nextWeek'],
    ['2026-12-13', 'nextWeek'],
    ['2026-12-14', 'later'],
  ])('%s, seen on Wednesday the second, is %s', (day, due) => expect(dueOf(day, '2026-12-02')).toBe(due));

  it('over the turn of the year: weeks run on', () => {
    expect(dueOf('2027-01-03', '2026-12-30')).toBe('thisWeek');
    expect(dueOf('2027-01-04', '2026-12-30')).toBe('nextWeek');
  });

  it('a week ends on Sunday, also on a Sunday', () => {
    expect(endOfWeek('2026-12-02')).toBe('2026-12-06');
    expect(endOfWeek('2026-12-06')).toBe('2026-12-06');
  });
});
