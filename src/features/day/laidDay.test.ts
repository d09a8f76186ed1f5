import { given, holderOf, jobAt, movedTo, NOBODY, spanOf } from './laidDay';

const ROWS = [
  { person: 'Ilse', jobs: [1, 2, 3] },
  { person: 'Tove', jobs: [4] },
  { person: NOBODY, jobs: [5] },
];
const jobs = (rows: readonly { jobs: number[] }[]) => rows.map((row) => row.jobs);

describe('a day that is laid out by hand', () => {
  it('a job goes into one row, ahead of another or last, and stands in no other', () => {
    expect(jobs(given(ROWS, 5, 'Ilse', 2))).toEqual([[1, 5, 2, 3], [4], []]);
    expect(jobs(given(ROWS, 1, 'Tove', null))).toEqual([[2, 3], [4, 1], [5]]);
    expect(jobs(given(ROWS, 1, NOBODY, 99))).toEqual([[2, 3], [4], [5, 1]]);
  });
  it('moves within its own row and into no other', () => {
    expect(jobs(movedTo(ROWS, 1, 3))).toEqual([[2, 3, 1], [4], [5]]);
    expect(jobs(movedTo(ROWS, 1, 4))).toEqual(jobs(ROWS));
  });
  it('knows whose a job is, and a job from a row', () => {
    expect([holderOf(ROWS, 4), holderOf(ROWS, 5), holderOf(ROWS, 77)]).toEqual(['Tove', NOBODY, NOBODY]);
    expect([jobAt(4), jobAt('Tove'), jobAt(NOBODY)]).toEqual([4, null, null]);
  });
  it('draws its line to the hour, unless that lies far behind what is planned', () => {
    const until = (most: number) =>
      new Map([[1, { begins: { least: 0, most: 0 }, ends: { least: 10, most }, inTime: 1, late: 0 }]]);
    expect(spanOf(until(100), 120)).toBeCloseTo(138, 6);
    expect(spanOf(until(500), 120)).toBe(240);
    expect(spanOf(until(60), 1000)).toBe(60);
    expect(spanOf(until(60), null)).toBe(60);
  });
});
