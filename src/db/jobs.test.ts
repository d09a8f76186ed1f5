import { entryWriter } from '@/core/testing/entryWriter';
import { countRetestsUntil, listRetests } from './retests';
import { v7 as uuidv7 } from 'uuid';
import type { Entry } from '@/core/job/entries';
import { appendEntries, readBaselines } from './entries';
import { countJobs, findJob, insertJob, listFunctions, listJobs, listMachines, type JobCursor } from './jobs';
import { closePool, pool } from './pool';
import { reading } from './testing/reading';
import { seedAfresh } from './testing/seedAfresh';

let jobId = '';
beforeAll(async () => {
  await seedAfresh();
  jobId = (await findJob(417))!.id;
});
afterAll(closePool);

describe('jobs', () => {
  it('lists open jobs newest first, a page at a time, without gaps or repeats', async () => {
    const all = await listJobs({}, 100);
    expect(all).toHaveLength(await countJobs({}));
    const paged = [];
    for (let after: JobCursor | undefined; ;) {
      const page = await listJobs({}, 2, after);
      if (page.length === 0) break;
      paged.push(...page);
      const last = page.at(-1)!;
      after = { openedAt: last.opened_at, id: last.id };
    }
    expect(paged.map(({ number }) => number)).toEqual(all.map(({ number }) => number));
    const times = all.map(({ opened_at }) => opened_at.getTime());
    expect(times).toEqual([...times].sort((a, b) => b - a));
  });

  it('gives two people who open jobs at once two numbers', async () => {
    const [one] = await listFunctions(1);
    const open = () =>
      insertJob({
        id: uuidv7(),
        functionId: one!.id,
        title: 'Both at once',
        person: null,
        openedAt: new Date(),
      });
    const numbers = await Promise.all([open(), open(), open()]);
    expect(new Set(numbers).size).toBe(3);
  });

  it('keeps with a job the hours of its machine as they were known when it was opened', async () => {
    const [one] = await listFunctions(1);
    const open = async () =>
      findJob(
        await insertJob({
          id: uuidv7(),
          functionId: one!.id,
          title: 'By its hours',
          person: null,
          openedAt: new Date(),
        }),
      );
    expect(await open()).toMatchObject({ machine_hours: null });
    const hours = (now: number | null) =>
      pool().query('UPDATE machines SET hours = ? WHERE code = ?', [now, one!.machine_code]);
    await hours(5200);
    const job = (await open())!;
    await hours(9000);
    expect(await findJob(job.number)).toMatchObject({ machine_hours: 5200 });
    await hours(null);
  });

  it('lists machines with their functions and open jobs', async () => {
    const machines = await listMachines(50);
    expect(machines.find(({ code }) => code === 'G-2')).toMatchObject({ functions: 4 });
    expect(machines.find(({ code }) => code === 'S-6')).toMatchObject({ functions: 0, open_jobs: 0 });
    expect(await findJob(999_999)).toBeNull();
  });

  it('lists machines as people count, G-2 before G-10, and on from where a page ended', async () => {
    const made = ['G-10', 'G-9', 'G-11'].map((code) => [uuidv7(), code, 'Groomer']);
    await pool().query('INSERT INTO machines (id, code, name) VALUES ?', [made]);
    const codes = (await listMachines(50)).map(({ code }) => code);
    expect(codes.indexOf('G-2')).toBeLessThan(codes.indexOf('G-10'));
    expect(codes).toEqual([...codes].sort((a, b) => a.localeCompare(b, 'en', { numeric: true })));
    const behind = await listMachines(2, { after: 'G-9' });
    expect(behind.map(({ code }) => code)).toEqual(['G-10', 'G-11']);
    await pool().query('DELETE FROM machines WHERE id IN (?)', [made.map(([id]) => id)]);
  });
});

describe('finding jobs', () => {
  const numbers = async (...filter: Parameters<typeof listJobs>) =>
    (await listJobs(...filter)).map(({ number }) => number);

  it('by any word of title, machine, function or person, by number, and only all words together', async () => {
    expect(await numbers({ text: 'tilts' }, 50)).toContain(417);
    expect(await numbers({ text: 'G-2 tove' }, 50)).toEqual([417]);
    expect(await numbers({ text: '409' }, 50)).toEqual([409]);
    expect(await numbers({ text: 'tilts pump' }, 50)).toEqual([]);
    expect(await numbers({ machine: 'P-5' }, 50)).toEqual([409]);
    expect(await numbers({ machine: 'P-5', text: 'tilts' }, 50)).toEqual([]);
  });

  it('counts what it finds, and no further than it is asked', async () => {
    const found = (await numbers({ text: 'G-' }, 50)).length;
    expect(found).toBeGreaterThan(3);
    expect(await countJobs({ text: 'G-' })).toBe(found);
    expect(await countJobs({ text: 'G-' }, 3)).toBe(3);
    expect(await countJobs({ machine: 'P-5' })).toBe(1);
  });

  it('takes what is typed as words, not as a pattern', async () => {
    for (const text of ['%', '_', "' OR 1=1 --", '\\']) expect(await numbers({ text }, 50)).toEqual([]);
  });

  it('a hand-over closes a job; taken back, it is in hand again', async () => {
    expect(await numbers({ closed: true }, 50)).toEqual([398, 397]);
    const open = (await findJob(406))!;
    const entry: Entry = {
      id: uuidv7(),
      at: new Date().toISOString(),
      person: 'Tove',
      type: 'handOver',
      body: { note: '', left: [], retest: null },
    };
    await appendEntries(open.id, [entry]);
    expect(await numbers({ closed: true }, 50)).toEqual([406, 398, 397]);
    const back = { ...entry, id: uuidv7(), type: 'withdrawal', supersedes: entry.id, body: {} } as Entry;
    await appendEntries(open.id, [back]);
    expect(await numbers({ closed: true }, 50)).toEqual([398, 397]);
  });

  it('what a tablet in a dead spot had put in meanwhile takes a machine back that was handed over without it', async () => {
    const open = (await findJob(406))!;
    const write = entryWriter();
    const own = (type: Entry['type'], body: object) => ({ ...write(type, body), id: uuidv7() });
    const others = await countRetestsUntil('2027-03-01');
    await appendEntries(open.id, [own('handOver', { note: '', retest: '2027-03-01' })]);
    await appendEntries(open.id, [own('looked', { check: 'water', finding: 'good' })]);
    expect((await findJob(406))!.closed_at).not.toBeNull();
    expect(await countRetestsUntil('2027-03-01')).toBe(others + 1);
    await appendEntries(open.id, [own('ledger', { item: 'jumper across K1', kind: 'jumper' })]);
    expect((await findJob(406))!.closed_at).toBeNull();
    expect(await countRetestsUntil('2027-03-01')).toBe(others);
    // Handed over anew by whoever knows of it, in one batch with what took it out.
    await appendEntries(open.id, [
      own('ledgerOut', { item: 'jumper across K1' }),
      own('handOver', { note: '', retest: null }),
    ]);
    expect((await findJob(406))!.closed_at).not.toBeNull();
    await appendEntries(open.id, [
      own('decision', { part: 'Y1', fault: 'open', action: 'replace', why: '' }),
    ]);
    expect((await findJob(406))!.closed_at).toBeNull();
  });
});

describe('re-tests', () => {
  const due = async () => (await listRetests(50)).map(({ number, due: day }) => [number, day]);

  it('are due by the day a hand-over set, until it is taken back or the function is handed over again', async () => {
    const open = (await findJob(406))!;
    const handOver = (retest: string | null): Entry => ({
      id: uuidv7(),
      at: new Date().toISOString(),
      person: 'Tove',
      type: 'handOver',
      body: { note: '', left: [], retest },
    });
    const before = await due();
    const first = handOver('2027-01-15');
    await appendEntries(open.id, [first]);
    expect(await due()).toEqual([[406, '2027-01-15'], ...before]);
    expect(await countRetestsUntil('2027-01-14')).toBe(0);
    expect(await countRetestsUntil('2027-01-15')).toBe(1);
    expect((await listRetests(50, { due: '2027-01-15', id: open.id })).map(({ number }) => number)).toEqual(
      before.map(([number]) => number),
    );
    // The next job on the function is in hand: it is told of beside it, and handed over it takes its place.
    const number = await insertJob({
      id: uuidv7(),
      functionId: open.function_id,
      title: 'Looked at again',
      person: 'Ilse',
      openedAt: new Date(),
    });
    expect((await listRetests(50)).find((row) => row.number === 406)!.open_job).toBe(number);
    const again = (await findJob(number))!;
    await appendEntries(again.id, [handOver(null)]);
    expect(await due()).toEqual(before);
    await appendEntries(open.id, [
      { ...first, id: uuidv7(), type: 'withdrawal', supersedes: first.id, body: {} } as Entry,
    ]);
    expect(await due()).toEqual(before);
  });
});

describe('baselines', () => {
  it('are the readings that closed jobs of the same function ended with, never those of a job in hand', async () => {
    const closed = (await findJob(398))!;
    const kept = await readBaselines(closed.function_id, jobId);
    expect(kept.length).toBeGreaterThan(0);
    expect(new Set(kept.map(({ jobNumber }) => jobNumber))).toEqual(new Set([398]));
    expect(await readBaselines(closed.function_id, closed.id)).toEqual([]);
    expect(await readBaselines((await findJob(411))!.function_id, jobId)).toEqual([]);
  });

  it('are none where the line was found wrong, or left with a reason', async () => {
    const closed = (await findJob(398))!;
    const amps = async () =>
      (await readBaselines(closed.function_id, jobId)).filter(({ reading: one }) => one.kind === 'amps');
    expect(await amps()).toHaveLength(1);
    const proof = (body: object) =>
      ({ ...reading(1), type: 'proof', body: { proof: 'current Y14', found: '', ...body } }) as Entry;
    // A line that was found wrong takes the machine back in hand: it is handed over anew each time.
    const handedOver = (line: Entry) => [line, { ...entryWriter()('handOver', { note: '' }), id: uuidv7() }];
    await appendEntries(closed.id, handedOver(proof({ done: false, found: '9 A' })));
    expect(await amps()).toEqual([]);
    await appendEntries(closed.id, handedOver(proof({ done: true, found: '1.7 A' })));
    expect(await amps()).toHaveLength(1);
    await appendEntries(closed.id, handedOver(proof({ done: false, reason: 'clamp is broken' })));
    expect(await amps()).toEqual([]);
  });
});
