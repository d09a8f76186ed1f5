import { v7 as uuidv7 } from 'uuid';
import { CircuitModel } from '@/core/circuit/model';
import type { Entry } from '@/core/job/entries';
import { isolationPlan } from '@/core/safety/isolationPlan';
import { readEntries } from '@/db/entries';
import { findJob } from '@/db/jobs';
import { closePool } from '@/db/pool';
import { seedAfresh } from '@/db/testing/seedAfresh';
import { appendToJob } from './entriesServer';
import { openJob } from './server';
import { signedFor } from '../people/testing/signedFor';

const JOB = '418';
const entry = (type: Entry['type'], body: object, more: object = {}): Entry =>
  ({ id: uuidv7(), at: new Date().toISOString(), person: 'Tove', type, body, ...more }) as Entry;
const send = (entries: unknown[], more: object = {}) =>
  appendToJob(JOB, JSON.stringify({ entries, ...more }), signedFor());
const log = async () => readEntries((await findJob(Number(JOB)))!.id);
const last = async () => (await log()).at(-1)!.number;
const volts = (value: number, typed = String(value)) => ({ value, unit: 'V', typed });

let locks: (work: number, typed?: string) => Entry[];
beforeAll(async () => {
  await seedAfresh();
  const plan = isolationPlan(new CircuitModel((await openJob(JOB))!.circuit));
  locks = (work, typed) =>
    plan.map(({ point, energy, prove }) =>
      entry('isolation', {
        point,
        energy,
        how: 'off',
        lock: '4',
        tag: '4',
        released: '',
        ...(prove.length > 0
          ? {
              proved: {
                meter: '',
                knownBefore: volts(12.6),
                work: prove.map(({ from, to }) => ({ from, to, measured: volts(work, typed) })),
                knownAfter: volts(12.6),
              },
            }
          : { tried: 'rests' }),
      }),
    );
});
afterAll(closePool);

describe('what a browser sends is judged again by the server', () => {
  it('a live circuit is not proved dead, whatever the screen said', async () => {
    const before = await last();
    // A supply is what a meter proves dead; a load that hangs is not.
    const proved = (list: Entry[]) =>
      list.filter((one) => one.type === 'isolation' && one.body.proved).slice(0, 1);
    expect(await send(proved(locks(12.6, '12.6 V')))).toMatchObject({
      problem: { code: 'bad-input', message: expect.stringMatching(/12\.6 V is over 1 V: it is not dead/) },
    });
    const words = proved(locks(0)).map((one) => ({
      ...one,
      body: {
        ...one.body,
        proved: { knownBefore: '12', work: [{ place: 'x', value: '0' }], knownAfter: '12' },
      },
    }));
    expect(await send(words)).toMatchObject({ problem: { code: 'bad-input' } });
    expect(await last()).toBe(before);
  });

  it('a signature counts only against the newest state, and says what its writer missed', async () => {
    const early = await last();
    const sign = (number: number, own: string[] = []) =>
      entry('madeSafe', { points: [] }, { against: { number, own } });
    const closed = locks(0);
    expect(
      await send([
        ...closed,
        sign(
          early,
          closed.map(({ id }) => id),
        ),
      ]),
    ).toMatchObject({
      added: closed.length + 1,
    });
    const off = entry(
      'reopened',
      { point: (closed[0]!.body as { point: string }).point, reason: 'mine' },
      { against: { number: await last(), own: [] } },
    );
    const seen = await last();
    // Two tablets, one an hour fast: it signs what its owner has just opened on the other.
    await send([off]);
    const fast = { ...sign(seen), at: new Date(Date.now() + 3_600_000).toISOString() };
    expect(await send([fast])).toMatchObject({
      problem: { message: expect.stringMatching(/moved since: a point opened .+, Tove/) },
    });
    expect(await send([entry('madeSafe', { points: [] })])).toMatchObject({
      problem: { message: expect.stringMatching(/which state/) },
    });
  });

  it('one entry that cannot be taken holds no other back', async () => {
    const good = () => entry('looked', { check: `x ${uuidv7()}`, finding: 'good' });
    const half = entry('complaint', { words: 'half \ud83d' });
    const renamed = entry('reading', {
      reading: { kind: 'volts', from: 'a node of yesterday', to: 'GND', setup: {}, value: 3 },
      typed: '3',
    });
    const [one, two] = [good(), good()];
    const answer = await send([one, half, renamed, { nonsense: true }, two]);
    expect(answer).toMatchObject({ added: 2 });
    if ('problem' in answer) throw new Error(answer.problem.message);
    const refused = answer.results.filter(({ state }) => state === 'refused');
    expect(refused.map(({ id }) => id).toSorted()).toEqual(['', half.id, renamed.id].toSorted());
    const kept = new Set((await log()).map((stored) => stored.entry.id));
    expect([one, two].every(({ id }) => kept.has(id))).toBe(true);
  });

  it('a clock that is an hour fast is kept beside what it wrote, one of another century is refused', async () => {
    const hour = 3_600_000;
    const at = new Date(Date.now() + hour).toISOString();
    await send([{ ...entry('looked', { check: 'fast', finding: 'good' }), at }], { sentAt: at });
    const stored = (await log()).at(-1)!;
    expect(Math.abs(stored.skewMs! - hour)).toBeLessThan(60_000);
    expect(Math.abs(Date.parse(stored.receivedAt) - Date.now())).toBeLessThan(60_000);
    const old = { ...entry('looked', { check: 'old', finding: 'good' }), at: '1970-01-01T00:00:00.000Z' };
    expect(await send([old])).toMatchObject({
      problem: { message: expect.stringMatching(/clock of this device/) },
    });
  });

  it('a proof that was written before somebody’s work is set aside, and says what it had missed', async () => {
    const number = await last();
    const fix = {
      part: 'Y7',
      work: 'New coil',
      spare: '',
      serial: '',
      dated: '',
      torque: '',
      seals: '',
      untested: 'none here',
    };
    expect(await send([entry('fix', fix)])).toMatchObject({ added: 1 });
    const shown = (seen: number) =>
      entry(
        'proof',
        { proof: 'works Y7', done: true, found: 'works' },
        { against: { number: seen, own: [] } },
      );
    expect(await send([shown(number)])).toMatchObject({
      problem: {
        message: expect.stringMatching(/The job has moved since: .*Y7.*Look at it as it stands now/),
      },
    });
    expect(await send([shown(await last())])).toMatchObject({ added: 1 });
  });

  it('a machine is not handed over with anything open, nor by a proof that leaves a bridge in', async () => {
    await send([entry('ledger', { item: 'Bridge', kind: 'jumper' })]);
    const left = entry(
      'proof',
      { proof: 'ledger Bridge', done: false, found: '', reason: 'no time' },
      { against: { number: await last(), own: [] } },
    );
    expect(await send([left])).toMatchObject({
      problem: { message: expect.stringMatching(/cannot be left in/) },
    });
    const hand = entry(
      'handOver',
      { note: '', left: [], retest: null },
      { against: { number: await last(), own: [] } },
    );
    expect(await send([hand])).toMatchObject({
      problem: { message: expect.stringMatching(/Not handed over\. Nothing is decided yet\./) },
    });
    expect((await findJob(Number(JOB)))!.closed_at).toBeNull();
  });
});
