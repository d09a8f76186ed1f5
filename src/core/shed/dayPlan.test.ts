import {
  minutesHere,
  minutesUntil,
  mayDo,
  proposeDay,
  standingOf,
  troubleOf,
  type DayJob,
  type DayPerson,
} from './dayPlan';

const job = (number: number, least: number, most: number, more: Partial<DayJob> = {}): DayJob => ({
  number,
  left: { least, most },
  person: null,
  licences: [],
  waitsForPart: false,
  ...more,
});
const tove: DayPerson = { name: 'Tove', role: 'technician', licences: ['lineVolts'] };
const ilse: DayPerson = { name: 'Ilse', role: 'technician', licences: [] };
const ansgar: DayPerson = { name: 'Ansgar', role: 'reader', licences: [] };
const mapOf = (jobs: readonly DayJob[]) => new Map(jobs.map((one) => [one.number, one]));

describe('the plan of a day', () => {
  it('of one pair of hands is shortest first, and what does not fit comes last', () => {
    const jobs = [job(1, 100, 120), job(2, 20, 30), job(3, 40, 60)];
    const { rows } = proposeDay(jobs, [ilse], 90);
    expect(rows).toEqual([{ person: 'Ilse', jobs: [2, 3, 1] }]);
    const standing = standingOf(rows[0]!, mapOf(jobs), 90);
    expect(standing.get(2)!.ends).toEqual({ least: 20, most: 30 });
    expect(standing.get(3)!.begins).toEqual({ least: 20, most: 30 });
    expect(standing.get(2)!.inTime).toBeGreaterThan(0.99);
    expect(standing.get(1)!.inTime).toBeLessThan(0.01);
    expect(standing.get(1)!.late).toBeCloseTo(25 + 50 + 110 - 90, 0);
  });

  it('gives what wants a licence to who holds it, a reader nothing, and who began a job goes on with it', () => {
    const jobs = [
      job(1, 60, 60, { licences: ['lineVolts'] }),
      job(2, 50, 60, { person: 'ilse' }),
      job(3, 30, 40, { licences: ['refrigerant'] }),
    ];
    const { rows, why, left } = proposeDay(jobs, [ansgar, ilse, tove], 200);
    expect(rows).toEqual([
      { person: 'Ilse', jobs: [2] },
      { person: 'Tove', jobs: [1] },
    ]);
    expect([why.get(1), why.get(2)]).toEqual(['onlyLicensed', 'theirs']);
    expect(left).toEqual([{ number: 3, why: 'licence' }]);
    expect([mayDo(ansgar, jobs[1]!), mayDo(ilse, jobs[0]!), mayDo(tove, jobs[0]!)]).toEqual([
      false,
      false,
      true,
    ]);
  });

  it('leaves out what waits for a part, and what nobody has weighed; nothing is invented for it', () => {
    const jobs = [job(1, 10, 20, { waitsForPart: true }), job(2, 0, 0, { left: null }), job(3, 10, 20)];
    const { rows, left } = proposeDay(jobs, [ilse], null);
    expect(rows[0]!.jobs).toEqual([3]);
    expect(left).toEqual([
      { number: 1, why: 'part' },
      { number: 2, why: 'notWeighed' },
    ]);
    expect(standingOf({ person: 'Ilse', jobs: [2, 3] }, mapOf(jobs), null).get(3)).toMatchObject({
      begins: { least: 0, most: 0 },
      inTime: null,
      late: 0,
    });
  });

  it('is never later than shortest first dealt out in turn, on a hundred days', () => {
    let seed = 7;
    const next = () => (seed = (seed * 16_807) % 2_147_483_647) / 2_147_483_647;
    const people: DayPerson[] = [ilse, { ...ilse, name: 'Rasmus' }, tove];
    for (let day = 0; day < 100; day++) {
      const jobs = Array.from({ length: 3 + Math.floor(6 * next()) }, (_one, k) => {
        const least = 10 + 100 * next();
        return job(k + 1, least, least + 80 * next());
      });
      const late = (rows: { person: string; jobs: number[] }[]) =>
        rows
          .flatMap((row) => [...standingOf(row, mapOf(jobs), 150).values()])
          .reduce((sum, one) => sum + one.late, 0);
      const sorted = jobs.toSorted((a, b) => a.left!.least + a.left!.most - b.left!.least - b.left!.most);
      const dealt = people.map(({ name }, at) => ({
        person: name,
        jobs: sorted.flatMap(({ number }, k) => (k % 3 === at ? [number] : [])),
      }));
      expect(late(proposeDay(jobs, people, 150).rows)).toBeLessThanOrEqual(late(dealt) + 0.5);
    }
  });

  it('that somebody sends is judged: people, jobs, each once, and licences', () => {
    const jobs = mapOf([job(1, 10, 20, { licences: ['lineVolts'] }), job(2, 10, 20)]);
    const of = (...rows: [string, number[]][]) =>
      troubleOf(
        rows.map(([person, numbers]) => ({ person, jobs: numbers })),
        jobs,
        [ilse, tove],
      );
    expect(of(['Tove', [1, 2]], ['Ilse', []])).toBeNull();
    expect(of(['Nobody', [2]])).toEqual({ code: 'noSuchPerson', person: 'Nobody' });
    expect(of(['Tove', [7]])).toEqual({ code: 'noSuchJob', number: 7 });
    expect(of(['Tove', [2]], ['Ilse', [2]])).toEqual({ code: 'twice', number: 2 });
    expect(of(['Ilse', [1]])).toEqual({ code: 'mayNot', person: 'Ilse', number: 1 });
  });

  it('gives who is not here nothing, and who goes home early what is done by then', () => {
    const jobs = [job(1, 50, 60, { licences: ['lineVolts'] }), job(2, 50, 60), job(3, 20, 30)];
    const away = proposeDay(jobs, [ilse, tove], 300, new Map([['Tove', 0]]));
    expect(away.rows).toEqual([{ person: 'Ilse', jobs: [3, 2] }]);
    expect(away.left).toEqual([{ number: 1, why: 'notHere' }]);
    const early = proposeDay([jobs[1]!, jobs[2]!], [ilse, tove], 300, new Map([['Ilse', 30]]));
    expect(early.rows).toContainEqual({ person: 'Tove', jobs: expect.arrayContaining([2]) as number[] });
    const row = { person: 'Ilse', jobs: [2] };
    expect(standingOf(row, mapOf(jobs), 300).get(2)!.inTime).toBeGreaterThan(0.99);
    expect(standingOf(row, mapOf(jobs), 300, new Map([['Ilse', 30]])).get(2)!.inTime).toBeLessThan(0.01);
    expect(troubleOf([row], mapOf(jobs), [ilse], new Map([['Ilse', 0]]))).toEqual({
      code: 'notHere',
      person: 'Ilse',
    });
  });

  it('somebody is here until a time that lies ahead, and gone once it is past', () => {
    expect(minutesHere('22:00', '14:00')).toBe(480);
    expect(minutesHere('06:00', '22:00')).toBe(480);
    expect(minutesHere('13:30', '14:00')).toBe(0);
  });

  it('the hour is the next one on the clock', () => {
    expect(minutesUntil('16:30', '14:05')).toBe(145);
    expect(minutesUntil('06:00', '22:00')).toBe(480);
    expect(minutesUntil('14:05', '14:05')).toBe(1440);
  });
});
