import { seedAfresh } from '@/db/testing/seedAfresh';
import { listJobs } from '@/db/jobs';
import { closePool } from '@/db/pool';
import { forgetCookies, signInAs } from '@/testing/browser';
import { refreshDigest } from '../desk/digests';
import { keepDay } from './actions';
import { openDay } from './server';

jest.mock('next/headers', () => jest.requireActual<{ nextHeaders: object }>('@/testing/browser').nextHeaders);
jest.mock('next/cache', () => ({ revalidatePath: jest.fn() }));
jest.mock('next/navigation', () => ({ unstable_rethrow: () => undefined, redirect: jest.fn() }));

beforeAll(async () => {
  process.env.SPIRAXIS_DEMO = '1';
  await seedAfresh();
  for (const { id } of await listJobs({}, 8)) await refreshDigest(id);
});
afterEach(forgetCookies);
afterAll(closePool);

const weighed = async () => (await openDay()).cards.filter(({ next }) => next !== '');

describe('the day of a shed', () => {
  it('has the jobs in hand, who works here, and the hour that the policy names', async () => {
    const day = await openDay();
    expect(day.cards.length).toBeGreaterThan(5);
    expect(day.people.map(({ name }) => name)).toEqual(expect.arrayContaining(['Tove', 'Henrike']));
    expect(day.people.map(({ name }) => name)).not.toContain('Ansgar');
    expect(day.out).toMatchObject({ time: '16:30' });
    const line = (await weighed()).filter(({ licences }) => licences.includes('lineVolts'));
    expect(line.every(({ left }) => left === null || left.most >= left.least)).toBe(true);
  });

  it('is kept as it was sent, once a state: who saw an older one is told', async () => {
    await signInAs('Henrike');
    const [card] = await weighed();
    const { since } = await openDay();
    const rows = [{ person: 'Henrike', jobs: [card!.number] }];
    expect(await keepDay(rows, { Tove: 'away' }, since)).toEqual({ trouble: null });
    expect((await openDay()).kept).toMatchObject({ rows, hours: { Tove: 'away' }, person: 'Henrike' });
    expect(await keepDay([{ person: 'Tove', jobs: [] }], {}, since)).toEqual({
      trouble: expect.stringMatching(/^Somebody kept another plan meanwhile/) as string,
    });
    expect((await openDay()).kept).toMatchObject({ rows });
  });

  it('gives nobody what they hold no licence for, whatever a browser sends, and nothing to who does not work here', async () => {
    await signInAs('Henrike');
    const before = (await openDay()).kept;
    const { since } = await openDay();
    const licensed = (await weighed()).find(({ licences }) => licences.length > 0);
    expect(licensed).toBeDefined();
    const to = (person: string, number: number) => keepDay([{ person, jobs: [number] }], {}, since);
    expect(await to('Rasmus', licensed!.number)).toEqual({
      trouble: `Job ${licensed!.number} wants a licence that Rasmus does not hold.`,
    });
    expect((await to('Ansgar', licensed!.number)).trouble).toMatch(/does not work here/);
    expect((await to('Tove', 999_999)).trouble).toMatch(/^Job 999999 is not in hand/);
    const away = await keepDay([{ person: 'Tove', jobs: [licensed!.number] }], { Tove: 'away' }, since);
    expect(away.trouble).toMatch(/^Tove is not here any more today/);
    expect((await openDay()).kept).toEqual(before);
  });

  it('is not for a learner or a reader to change', async () => {
    for (const name of ['Jorin', 'Ansgar']) {
      await signInAs(name);
      const answer = (await keepDay([], {}, (await openDay()).since)) as { trouble: string };
      expect(answer.trouble).toMatch(/says who does what today/);
    }
  });
});
