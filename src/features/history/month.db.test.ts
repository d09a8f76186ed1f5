import { findJob } from '@/db/jobs';
import { closePool, pool } from '@/db/pool';
import { moveSpare, putSpare, type SpareFacts } from '@/db/spares';
import { seedAfresh } from '@/db/testing/seedAfresh';
import { openPolicy, settlePolicy } from '../policy/server';
import { monthTable, openMonth } from './server';

jest.mock('next/cache', () => ({ revalidatePath: jest.fn() }));
jest.mock('../serverLog', () => ({ log: { info: jest.fn(), warn: jest.fn(), error: jest.fn() } }));

const NUMBER = 398;
const CARD: Omit<SpareFacts, 'number' | 'price'> = {
  name: 'Coil',
  kind: 'coil',
  ratings: {},
  fitting: '',
  place: 'Rack',
  minimum: 0,
  leadDays: 0,
  supplier: '',
};
let jobId = '';
beforeAll(async () => {
  await seedAfresh();
  jobId = (await findJob(NUMBER))!.id;
});
afterAll(closePool);

async function closedAt(moment: string) {
  await pool().execute('UPDATE jobs SET closed_at = ? WHERE id = ?', [new Date(moment), jobId]);
}
async function siteIn(timeZone: string) {
  const settled = await settlePolicy({ ...(await openPolicy()).policy, timeZone }, 'Henrike');
  expect(settled).toEqual({ trouble: null });
}
const jobsOf = async (month: string) => (await openMonth(month)).rows.map(({ number }) => number);

describe('a month', () => {
  it.each([
    ['Pacific/Auckland', '2024-10-31T12:00:00Z', '2024-11', '2024-10'],
    ['America/Los_Angeles', '2024-11-01T03:00:00Z', '2024-10', '2024-11'],
    ['UTC', '2024-11-01T00:00:00Z', '2024-11', '2024-10'],
    // Summer time ends in this month: its last hour is the month's still.
    ['Europe/Vienna', '2024-10-31T22:59:59Z', '2024-10', '2024-11'],
  ])('begins and ends by the site’s clock: %s', async (zone, moment, its, other) => {
    await siteIn(zone);
    await closedAt(moment);
    expect(await jobsOf(its)).toContain(NUMBER);
    expect(await jobsOf(other)).not.toContain(NUMBER);
    const { name, text } = await monthTable(its);
    expect(name).toBe(`jobs-${its}.csv`);
    expect(text).toContain(`\n${NUMBER},`);
  });

  it('leads to the one before and the one after, but never to one that has not begun', async () => {
    expect(await openMonth('2024-01')).toMatchObject({ before: '2023-12', after: '2024-02' });
    expect(await openMonth(undefined)).toMatchObject({ after: null, more: false });
  });

  it('lists what was fitted, most pieces first, and says of how many kinds there were any', async () => {
    const at = new Date('2024-05-06T08:00:00Z');
    for (let one = 1; one <= 22; one++) {
      const spareId = await putSpare(null, { ...CARD, number: `M-${one}`, price: one === 22 ? null : 5 });
      await moveSpare({ spareId, pieces: 50, why: 'counted', person: 'Ilse', at });
      await moveSpare({ spareId, pieces: -one, why: 'used', person: 'Ilse', at });
    }
    const { fitted } = await openMonth('2024-05');
    expect(fitted.kinds).toBe(22);
    expect(fitted.spares).toHaveLength(20);
    expect(fitted.spares.slice(0, 2)).toEqual([
      { number: 'M-22', name: 'Coil', pieces: 22, cost: null },
      { number: 'M-21', name: 'Coil', pieces: 21, cost: 105 },
    ]);
    expect((await openMonth('2024-06')).fitted).toEqual({ spares: [], kinds: 0 });
  });
});
