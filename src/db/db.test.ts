import { countRetestsUntil, listRetests } from './retests';
import { spawnSync } from 'node:child_process';
import type { RowDataPacket } from 'mysql2/promise';
import { v7 as uuidv7 } from 'uuid';
import type { Entry } from '@/core/job/entries';
import { appendEntries, readBaselines, readEntries } from './entries';
import { countJobs, findJob, insertJob, listFunctions, listJobs, listMachines, type JobCursor } from './jobs';
import { jobsWithCodes, mergeBook, putBookRow, readBook, removeBookRow } from './codeBook';
import { migrate } from './migrate';
import { getPhoto, putPhoto } from './photos';
import { createConnection } from 'mysql2/promise';
import { codeOf } from './databaseAway';
import { closePool, pool, withTransaction } from './pool';
import { seedAfresh } from './testing/seedAfresh';

const seed = (...words: string[]) =>
  spawnSync('npx', ['tsx', 'scripts/seed.ts', ...words], { encoding: 'utf8', env: process.env });

function reading(value: number | 'OL', more: Partial<Entry> = {}): Entry {
  const one = { kind: 'ohms' as const, from: 'X8:1', to: 'GND', setup: { pulled: ['F7'] }, value };
  return {
    id: uuidv7(),
    at: new Date().toISOString(),
    person: 'Tove',
    type: 'reading',
    body: { reading: one, typed: String(value) },
    ...more,
  } as Entry;
}

let jobId = '';
beforeAll(async () => {
  await seedAfresh();
  jobId = (await findJob(417))!.id;
});
afterAll(closePool);

describe('the schema', () => {
  it('is safe to bring up to date again, also by two starters at once', async () => {
    const [one, two] = await Promise.all([migrate(), migrate()]);
    expect([...one, ...two]).toEqual([]);
  });

  it('has a primary key on every table, as a cluster needs', async () => {
    const [rows] = await pool().query<RowDataPacket[]>(
      `SELECT t.table_name AS name FROM information_schema.tables t
       WHERE t.table_schema = DATABASE() AND NOT EXISTS (
         SELECT 1 FROM information_schema.table_constraints c
         WHERE c.table_schema = t.table_schema AND c.table_name = t.table_name AND c.constraint_type = 'PRIMARY KEY')`,
    );
    expect(rows).toEqual([]);
  });

  it('keeps what is there when the demo data is asked for again', async () => {
    await appendEntries(jobId, [reading(1)]);
    const before = (await readEntries(jobId)).length;
    expect(seed().status).toBe(0);
    expect((await readEntries(jobId)).length).toBe(before);
  });
});

describe('the log', () => {
  it('gives back what was written, in order of arrival', async () => {
    const written = [reading(31.4), reading('OL')];
    const last = (await readEntries(jobId)).at(-1)!.number;
    expect(await appendEntries(jobId, written)).toEqual([
      { id: written[0]!.id, state: 'added', number: last + 1 },
      { id: written[1]!.id, state: 'added', number: last + 2 },
    ]);
    const stored = await readEntries(jobId, last);
    expect(stored.map(({ entry }) => entry)).toEqual(written);
  });

  it('changes nothing when the same entry comes twice, also at the same moment', async () => {
    const one = reading(12);
    const answers = await Promise.all([1, 2, 3, 4].map(() => appendEntries(jobId, [one])));
    expect(answers.flat().filter(({ state }) => state === 'added')).toHaveLength(1);
    expect(new Set(answers.flat().map((one) => ('number' in one ? one.number : 0))).size).toBe(1);
    const found = (await readEntries(jobId)).filter(({ entry }) => entry.id === one.id);
    expect(found).toHaveLength(1);
  });

  it('refuses another content under a known id, and keeps the first', async () => {
    const one = reading(12);
    await appendEntries(jobId, [one]);
    const conflict = [{ id: one.id, state: 'refused', refusal: { code: 'conflict', id: one.id } }];
    expect(await appendEntries(jobId, [{ ...reading(99), id: one.id }])).toEqual(conflict);
    const other = (await findJob(416))!.id;
    expect(await appendEntries(other, [one])).toEqual(conflict);
    const stored = (await readEntries(jobId)).find(({ entry }) => entry.id === one.id)!;
    expect(stored.entry).toEqual(one);
  });

  it('judges each entry of a batch by itself: one that is refused holds no other back', async () => {
    const known = reading(5);
    await appendEntries(jobId, [known]);
    const [before, behind, barred] = [reading(6), reading(8), reading(9)];
    const conflicting = { ...reading(7), id: known.id };
    const answers = await appendEntries(jobId, [before, conflicting, barred, behind], {
      judge: (entry) => Promise.resolve(entry.id === barred.id ? { code: 'barred' } : null),
    });
    expect(answers.map(({ state }) => state)).toEqual(['added', 'refused', 'refused', 'added']);
    const kept = new Set((await readEntries(jobId)).map(({ entry }) => entry.id));
    expect([before, behind, barred].map(({ id }) => kept.has(id))).toEqual([true, true, false]);
  });

  it('gives numbers in the order of commits: who has read up to one has missed nothing', async () => {
    const start = (await readEntries(jobId)).at(-1)!.number;
    let [seen, missed, done] = [start, 0, false];
    const follower = (async () => {
      while (!done || (await readEntries(jobId, seen)).length > 0) {
        for (const { number } of await readEntries(jobId, seen)) {
          if (number !== seen + 1) missed++;
          seen = number;
        }
      }
    })();
    const writer = async (n: number) => {
      for (let k = 0; k < 25; k++) await appendEntries(jobId, [reading(n), reading(k)]);
    };
    await Promise.all([1, 2, 3, 4, 5].map(writer));
    done = true;
    await follower;
    expect([seen - start, missed]).toEqual([250, 0]);
  });

  it('keeps when an entry arrived and how far its writer’s clock was off', async () => {
    const one = reading(3);
    const receivedAt = new Date('2026-11-24T06:00:00.000Z');
    await appendEntries(jobId, [one], { receivedAt, skewMs: 3_600_000 });
    const stored = (await readEntries(jobId)).at(-1)!;
    expect(stored).toMatchObject({ receivedAt: '2026-11-24T06:00:00.000Z', skewMs: 3_600_000 });
  });

  it('keeps text and numbers exactly', async () => {
    const words = 'Größe ±2 Ω, “quoted”, emoji 🧰, backslash \\ and % _';
    const entry: Entry = {
      id: uuidv7(),
      at: '2026-11-24T05:06:07.089Z',
      person: 'Åsa',
      type: 'complaint',
      body: { words },
    };
    await appendEntries(jobId, [entry, reading(0.1 + 0.2)]);
    const stored = (await readEntries(jobId)).map((one) => one.entry);
    expect(stored.find(({ id }) => id === entry.id)).toEqual(entry);
    expect(stored.at(-1)).toMatchObject({ body: { reading: { value: 0.30000000000000004 } } });
  });
});

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
    await appendEntries(closed.id, [proof({ done: false, found: '9 A' })]);
    expect(await amps()).toEqual([]);
    await appendEntries(closed.id, [proof({ done: true, found: '1.7 A' })]);
    expect(await amps()).toHaveLength(1);
    await appendEntries(closed.id, [proof({ done: false, reason: 'clamp is broken' })]);
    expect(await amps()).toEqual([]);
  });
});

describe('code books', () => {
  const row = {
    system: 'maker',
    code: '31',
    mode: '',
    means: 5,
    text: 'Stop',
    function: '',
    part: '',
    sheet: '',
    note: '',
  } as const;

  it('take in lines, put new ones in the place of old, and let go of them', async () => {
    const machine = (await findJob(412))!.machine_id;
    await mergeBook(machine, [row, { ...row, code: '32' }]);
    await mergeBook(machine, [{ ...row, text: 'Stop relay' }]);
    expect((await readBook(machine)).map(({ code, text }) => [code, text])).toEqual([
      ['31', 'Stop relay'],
      ['32', 'Stop'],
    ]);
    const [first] = await readBook(machine);
    await putBookRow(machine, { ...row, text: 'Stop coil' }, first!.id);
    expect((await readBook(machine))[0]!.text).toBe('Stop coil');
    for (const { id } of await readBook(machine)) await removeBookRow(machine, id);
    expect(await readBook(machine)).toEqual([]);
  });

  it('know the jobs that had a code, and what it turned out to be', async () => {
    const { machine_id } = (await findJob(398))!;
    const [past] = await jobsWithCodes(['14-5', 'P0001'], machine_id, 10);
    expect(past).toMatchObject({ code_key: '14-5', number: 398, decision: { part: 'X31.2' } });
    expect(await jobsWithCodes([], machine_id, 10)).toEqual([]);
  });
});

describe('pictures', () => {
  it('are kept once under their content', async () => {
    const photo = {
      hash: 'ab'.repeat(32),
      kind: 'image/webp',
      width: 4,
      height: 3,
      bytes: Buffer.from([1, 0, 255, 7]),
    };
    await putPhoto(photo);
    await putPhoto(photo);
    expect((await getPhoto(photo.hash))!.bytes.equals(photo.bytes)).toBe(true);
    expect(await getPhoto('cd'.repeat(32))).toBeNull();
  });
});

describe('what the application may do', () => {
  const asApplication = async (sql: string) => {
    const connection = await createConnection(process.env.SPIRAXIS_APP_DATABASE_URL!);
    try {
      await connection.query(sql);
      return 'done';
    } catch (error) {
      return codeOf(error);
    } finally {
      await connection.end();
    }
  };

  it.each([
    ['UPDATE entries SET person = "Nobody"', 'ER_TABLEACCESS_DENIED_ERROR'],
    ['DELETE FROM entries', 'ER_TABLEACCESS_DENIED_ERROR'],
    ['UPDATE trail SET person = "Nobody"', 'ER_TABLEACCESS_DENIED_ERROR'],
    ['DELETE FROM trail', 'ER_TABLEACCESS_DENIED_ERROR'],
    ['UPDATE function_versions SET note = ""', 'ER_TABLEACCESS_DENIED_ERROR'],
    ['DROP TABLE entries', 'ER_TABLEACCESS_DENIED_ERROR'],
    ['CREATE TABLE mine (id INT)', 'ER_TABLEACCESS_DENIED_ERROR'],
    ['SELECT User FROM mysql.global_priv', 'ER_TABLEACCESS_DENIED_ERROR'],
    ['SELECT COUNT(*) FROM entries', 'done'],
    ['UPDATE jobs SET title = title WHERE FALSE', 'done'],
  ])('%s: %s', async (sql, answer) => {
    expect(await asApplication(sql)).toBe(answer);
  });
});

describe('a value that does not fit', () => {
  it('is refused and never cut or bent', async () => {
    await expect(
      pool().execute('INSERT INTO machines (id, code, name) VALUES (?, ?, ?)', [
        'x'.repeat(60),
        'Q-1',
        'Long',
      ]),
    ).rejects.toMatchObject({ code: 'ER_DATA_TOO_LONG' });
  });
});

describe('a statement that is wrong', () => {
  it('is no database that is away', async () => {
    await expect(pool().query('SELEKT 1')).rejects.toMatchObject({ code: 'ER_PARSE_ERROR' });
  });
});

describe('withTransaction', () => {
  it('rolls back when the work fails', async () => {
    const before = await countJobs({});
    await expect(
      withTransaction(async (db) => {
        await db.query('UPDATE jobs SET closed_at = UTC_TIMESTAMP(3)');
        throw new Error('halfway');
      }),
    ).rejects.toThrow('halfway');
    expect(await countJobs({})).toBe(before);
  });

  it('tries a deadlocked transaction again', async () => {
    const numbers = [417, 416];
    const touch = (order: number[]) =>
      withTransaction(async (db) => {
        for (const number of order) {
          await db.query('UPDATE jobs SET person = person WHERE number = ? AND 1 = 1', [number]);
          await db.query('SELECT id FROM jobs WHERE number = ? FOR UPDATE', [number]);
          await new Promise((resolve) => setTimeout(resolve, 60));
        }
        return order;
      });
    await expect(Promise.all([touch(numbers), touch([...numbers].reverse())])).resolves.toHaveLength(2);
  });
});
