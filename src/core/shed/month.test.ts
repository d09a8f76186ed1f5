import { monthOf, type MonthJob } from './month';

const job = (more: Partial<MonthJob> = {}): MonthJob => ({
  isRetest: false,
  minutes: 60,
  part: 'Y1',
  named: 'Y1',
  doubt: [],
  cameBack: false,
  ...more,
});

describe('a month', () => {
  it('counts repairs and re-tests apart, and the minutes of repairs', () => {
    const { repairs, retests, minutes } = monthOf([
      job(),
      job({ minutes: 90 }),
      job({ minutes: 30 }),
      job({ isRetest: true, minutes: 500, part: null, named: null }),
    ]);
    expect({ repairs, retests, minutes }).toEqual({
      repairs: 3,
      retests: 1,
      minutes: { all: 180, middle: 60 },
    });
    expect(monthOf([]).minutes).toBeNull();
  });
  it('counts parts that were suspected and stayed in, each once, never the one it was', () => {
    const doubt = [
      [
        ['Y1', 0.4],
        ['X1.1', 0.3],
        ['W2', 0.2],
      ] as const,
      [
        ['X1.1', 0.5],
        ['Y1', 0.5],
      ] as const,
    ];
    expect(monthOf([job({ doubt })]).spared).toBe(1);
    expect(monthOf([job({ doubt, part: null })]).spared).toBe(0);
  });
  it('counts wrong names and jobs that came back', () => {
    expect(
      monthOf([job(), job({ named: 'K1' }), job({ named: null }), job({ cameBack: true })]),
    ).toMatchObject({
      named: 3,
      wrong: 1,
      cameBack: 1,
    });
  });
});
