import { clockAfter, dayTroubleWords, dayWords, standingWords } from './day';

const standing = (least: number, most: number, inTime: number | null) => ({
  begins: { least: 0, most: 0 },
  ends: { least, most },
  inTime,
  late: 0,
});

describe('the words of a day', () => {
  it('say when a job is done, and what its chances are where they are open', () => {
    expect(standingWords(standing(25, 70, 0.97), '14:05')).toBe('done 14:30 to 15:15');
    expect(standingWords(standing(25, 70, 0.35), '14:05')).toBe('done 14:30 to 15:15, 7 in 20 to be in time');
    expect(standingWords(standing(90, 200, 0.02), '14:05')).toBe('Not tonight: done 15:35 to 17:25');
    expect(standingWords(standing(30, 30, null), '23:45')).toBe('done by 00:15');
    expect(clockAfter('23:45', 1455)).toBe('00:00');
  });

  it('count the day', () => {
    const day = [standing(10, 20, 0.99), standing(30, 60, 0.5), standing(60, 200, 0.01)];
    expect(dayWords(day, true)).toBe('1 of 3 in time, 1 perhaps, 1 not tonight');
    expect(dayWords(day, false)).toBe('3 planned.');
    expect(dayWords([], true)).toBe('Nothing is planned.');
  });

  it('name the job and the person of what may not stand', () => {
    expect(dayTroubleWords({ code: 'mayNot', person: 'Rasmus', number: 405 })).toBe(
      'Job 405 wants a licence that Rasmus does not hold.',
    );
    expect(dayTroubleWords({ code: 'twice', number: 405 })).toMatch(/^Job 405 stands with two people/);
  });
});
