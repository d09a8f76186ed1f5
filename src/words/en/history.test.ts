import { endedWords, jobsCount, leftWords, monthLines, workWords, type Ended } from './history';

const ended = (more: Partial<Ended> = {}): Ended => ({
  closed: true,
  isRetest: false,
  part: 'X31.2',
  fault: 'highResistance',
  named: 'X31.2',
  minutes: 85,
  cameBack: false,
  ...more,
});

describe('how jobs ended', () => {
  it.each([
    [ended(), 'X31.2 bad joint, 85 min'],
    [ended({ fault: null, minutes: null }), 'X31.2'],
    [
      ended({ named: 'Y14', cameBack: true }),
      'X31.2 bad joint, 85 min; Y14 was named; came back within thirty days',
    ],
    [ended({ part: null }), 'handed over, no fault shown'],
    [ended({ isRetest: true, part: null }), 're-test, read'],
    [ended({ closed: false }), 'in hand'],
  ])('%#', (one, words) => expect(endedWords(one)).toBe(words));

  it('are counted as far as they were counted', () => {
    expect([
      jobsCount(1, 500),
      jobsCount(500, 500),
      jobsCount(501, 500),
      jobsCount(20_216, Infinity),
    ]).toEqual(['1 job', '500 jobs', 'over 500 jobs', '20216 jobs']);
  });

  it('a month in lines, also an empty one', () => {
    const lines = monthLines({
      repairs: 2,
      retests: 1,
      minutes: { all: 240, middle: 100 },
      spared: 1,
      named: 2,
      wrong: 1,
      cameBack: 0,
    });
    expect(lines).toEqual([
      '2 jobs handed over, 4 h in all, half of them within 100 min',
      '1 re-test read',
      '1 part was in doubt and stayed in: spared',
      '2 parts named, 1 of them wrongly',
      'No jobs came back within thirty days',
    ]);
    const none = { repairs: 0, retests: 0, minutes: null, spared: 0, named: 0, wrong: 0, cameBack: 0 };
    expect(monthLines(none)[3]).toBe('No part was named');
  });

  it('work in minutes or hours, and what is left of it', () => {
    expect([workWords(44.6), workWords(119), workWords(150)]).toEqual(['45 min', '119 min', '2.5 h']);
    expect(leftWords({ least: 38, most: 41 })).toBe('about 40 min');
    expect(leftWords({ least: 2, most: 152 })).toBe('5 min to 2.5 h');
    expect(leftWords({ least: 18, most: 66 })).toBe('20 to 65 min');
  });
});
