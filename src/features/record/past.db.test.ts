import { spawnSync } from 'node:child_process';
import { v7 as uuidv7 } from 'uuid';
import { NOTHING_LEARNT } from '@/core/shed/learntOdds';
import type { JobLeft, Outcome } from '@/core/shed/outcome';
import type { TitledTrend } from '@/core/shed/functionTrends';
import { learnFromPast } from './learn';
import { oddsBefore, settleOwnOdds } from './odds';
import { openRecord } from './server';

jest.mock('next/cache', () => ({ revalidatePath: jest.fn() }));
jest.mock('../serverLog', () => ({ log: { info: jest.fn(), warn: jest.fn(), error: jest.fn() } }));
import { shedTask } from '@/workers/shedTask';
import { digestMark, putDigest } from '@/db/digests';
import { readEntries } from '@/db/entries';
import { findJob, insertJob } from '@/db/jobs';
import {
  listOutcomes,
  measuresOf,
  putLearntOdds,
  readLearntOdds,
  findLearntOdds,
  readWindings,
  repairsOf,
} from '@/db/past';
import { closePool, pool } from '@/db/pool';
import { seedAfresh } from '@/db/testing/seedAfresh';
import { countTrends, findTrend, fleetDots, listTrends, putTrends } from '@/db/trends';

const digest = { made: 0, next: '', runs: [], defects: [], left: null, licences: [] };
const winding: JobLeft['measures'][number] = {
  kind: 'winding',
  place: 'winding|Y14',
  type: 'a type',
  part: 'Y14',
  value: 7.2,
  sigma: 0.07,
  corrected: true,
  over: false,
  at: '2026-01-04T08:00:00.000Z',
  test: { kind: 'ohms', from: 'Y14:1', to: 'Y14:2', setup: { unplugged: ['X31'] } },
};
const outcome: Outcome = {
  part: 'X31.2',
  fault: 'highResistance',
  when: [],
  weather: 'thaw',
  doubt: [[['X31.2', 0.96]]],
  named: 'X31.2',
  minutes: 61,
};
const left = (more: Partial<JobLeft> = {}): JobLeft => ({
  measures: [winding],
  outcome,
  type: 'Y14:coil',
  place: 'wet',
  ...more,
});

const jobsBefore = async (moment: Date) => (await readLearntOdds((await findLearntOdds(moment))!))!.jobs;

let openJobId = '';
beforeAll(async () => {
  await seedAfresh();
  openJobId = (await findJob(417))!.id;
});
afterAll(closePool);

async function put(id: string, past: JobLeft) {
  return putDigest(id, (await digestMark(id))!, { digest, past });
}

describe('what jobs left behind', () => {
  it('is kept with the digest, found by type, and gone when it proves nothing any more', async () => {
    const { id, function_id } = (await findJob(398))!;
    expect(await put(id, left())).toEqual({ kept: true, pastChanged: true });
    expect(await readWindings(['a type', 'another'], function_id, openJobId)).toEqual([
      expect.objectContaining({ part: 'Y14', ohms: 7.2, atReference: true, own: true, jobNumber: 398 }),
    ]);
    expect((await readWindings(['a type'], uuidv7(), openJobId))[0]).toMatchObject({ own: false });
    expect(await readWindings(['a type'], function_id, id)).toEqual([]);
    expect(await readWindings([], function_id, openJobId)).toEqual([]);
    const [measure] = await measuresOf(function_id);
    expect(measure).toMatchObject({ place: 'winding|Y14', test: winding.test, job: 398, at: winding.at });
    // When the part went in, not when the job was closed: what was read in between is of the new one.
    const fix = (await readEntries(id)).find(({ entry }) => entry.type === 'fix')!.entry;
    expect(await repairsOf(function_id)).toEqual([{ part: 'X31.2', at: fix.at }]);
    // One that was worked out before the log grew changes nothing.
    const late = (await digestMark(id))!;
    const stale = await putDigest(id, { ...late, round: late.round + 1 }, { digest, past: left() });
    expect(stale).toEqual({ kept: false, pastChanged: false });
    expect(await put(id, left({ measures: [], outcome: null }))).toEqual({ kept: true, pastChanged: true });
    expect(await measuresOf(function_id)).toEqual([]);
    expect(await put(id, left({ measures: [], outcome: null }))).toMatchObject({ pastChanged: false });
  });

  it('is nothing while a job is open', async () => {
    await put(openJobId, left());
    const { function_id } = (await findJob(417))!;
    expect(await measuresOf(function_id)).toEqual([]);
  });

  it('names a job to which somebody had to come back, and does not learn from it', async () => {
    const { id, function_id } = (await findJob(398))!;
    await put(id, left());
    expect(await listOutcomes(10)).toContainEqual(
      expect.objectContaining({
        number: 398,
        part: 'X31.2',
        named: 'X31.2',
        came_back: false,
        weather: 'thaw',
        doubt: [[['X31.2', 0.96]]],
      }),
    );
    const { jobs } = await learnFromPast(new Date(), shedTask);
    // The other one that ends here has a job in hand again.
    expect(jobs).toBe(1);
    const closed = (await findJob(398))!.closed_at!;
    await insertJob({
      id: uuidv7(),
      functionId: function_id,
      title: 'Floats late again',
      person: 'Tove',
      openedAt: new Date(closed.getTime() + 3 * 86_400_000),
    });
    const again = (await listOutcomes(10)).find(({ number }) => number === 398);
    expect(again).toMatchObject({ came_back: true });
    expect((await learnFromPast(new Date(), shedTask)).jobs).toBe(0);
  });
});

describe('odds that were learnt', () => {
  it('stand from their moment on: a job is weighed by those of when it was opened', async () => {
    await pool().query('DELETE FROM learnt_odds');
    const at = (day: number) => new Date(Date.UTC(2026, 0, day));
    // In hand since the seventh.
    const { function_id } = (await findJob(398))!;
    await insertJob({ id: uuidv7(), functionId: function_id, title: 'Old', person: 'Ilse', openedAt: at(7) });
    await putLearntOdds(uuidv7(), at(3), 1, NOTHING_LEARNT);
    await putLearntOdds(uuidv7(), at(5), 3, NOTHING_LEARNT);
    await putLearntOdds(uuidv7(), at(9), 8, NOTHING_LEARNT);
    // What no job in hand stands on is let go.
    expect(await findLearntOdds(at(4))).toBeNull();
    expect(await jobsBefore(at(7))).toBe(3);
    expect(await jobsBefore(at(30))).toBe(8);
  });

  it('that were learnt before machines were told apart by their hours are read all the same', async () => {
    await pool().query('DELETE FROM learnt_odds');
    const { age: _later, ...factors } = NOTHING_LEARNT.factors;
    const earlier = { jobs: 12, factors: { ...factors, shed: { 'pin|open': 3 } } };
    await putLearntOdds(uuidv7(), new Date(), 12, earlier as unknown as typeof NOTHING_LEARNT);
    const { learnt } = await oddsBefore(new Date());
    expect(learnt).toEqual({
      jobs: 12,
      factors: { ...NOTHING_LEARNT.factors, shed: { 'pin|open': 3 } },
    });
  });
});

describe('what drifts', () => {
  const trend = (
    place: string,
    more: Partial<TitledTrend> & { state?: TitledTrend['trend']['state'] } = {},
  ): TitledTrend => ({
    kind: 'winding',
    place,
    title: place,
    part: 'Y14',
    test: null,
    limits: null,
    trend: {
      state: more.state ?? 'steady',
      level: 7,
      perYear: null,
      scatterShare: 0.01,
      swing: null,
      beyond: null,
      toLimit: null,
      step: null,
      byFactors: false,
      used: 5,
    },
    dots: [],
    repairs: [],
    lastOn: '2026-11-01',
    mayReachOn: null,
    ...more,
  });

  it('stands the worst first, a page at a time, and takes the place of what stood before', async () => {
    const { function_id } = (await findJob(398))!;
    const beyond = trend('past it');
    beyond.trend.beyond = 'least';
    const all = [
      trend('steady'),
      trend('few', { state: 'few' }),
      trend('in May', { state: 'falling', mayReachOn: '2027-05-03' }),
      beyond,
      trend('moving', { state: 'rising' }),
      trend('in March', { state: 'falling', mayReachOn: '2027-03-03' }),
    ];
    await putTrends(function_id, all);
    const order = ['past it', 'in March', 'in May', 'moving', 'steady', 'few'];
    const rows = await listTrends(100, { functionId: function_id });
    expect(rows.map(({ body }) => body.place)).toEqual(order);
    const third = rows[2]!;
    const next = await listTrends(
      100,
      { functionId: function_id },
      { on: third.sort_on, functionId: function_id, place: third.place_key },
    );
    expect(next.map(({ body }) => body.place)).toEqual(order.slice(3));
    expect(
      (await listTrends(100, { functionId: function_id, moving: true })).map(({ body }) => body.place),
    ).toEqual(order.slice(0, 4));
    expect(await countTrends()).toMatchObject({ all: 6, moving: 4, machines: 1 });
    expect((await findTrend(function_id, third.place_key))!.body.mayReachOn).toBe('2027-05-03');
    await putTrends(function_id, []);
    expect(await listTrends(100)).toEqual([]);
    expect(await findTrend(function_id, third.place_key)).toBeNull();
  });
});

describe('the demo shed with its two winters', () => {
  it('comes from its file: trends, learnt odds, like machines beside each other', async () => {
    const done = spawnSync('npx', ['tsx', 'scripts/seed.ts', '--fresh'], {
      encoding: 'utf8',
      env: process.env,
    });
    expect(done.stderr.replace(/^npm warn.*$/gm, '').trim()).toBe('');
    const { all, moving, machines } = await countTrends();
    expect(machines).toBeGreaterThan(15);
    expect(all).toBeGreaterThan(150);
    expect(moving).toBeGreaterThan(3);
    expect(moving).toBeLessThan(0.15 * all);
    expect(await jobsBefore(new Date())).toBeGreaterThan(100);
    const [worst] = await listTrends(1);
    expect(await fleetDots(worst!.function_id, worst!.place_key, 40)).not.toEqual([]);
  });
});

describe('the lead’s own factors', () => {
  it('stay in the table, and so in what is kept, for a class that was never found', async () => {
    await settleOwnOdds({ learn: true, own: { 'sensor3|drifted': 4 } }, 'Henrike');
    const { rows } = await openRecord();
    expect(rows.find(({ of }) => of === 'sensor3|drifted')).toMatchObject({ found: 0, factor: 4, own: true });
  });
});
