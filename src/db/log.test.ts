import { spawnSync } from 'node:child_process';
import type { RowDataPacket } from 'mysql2/promise';
import { v7 as uuidv7 } from 'uuid';
import type { Entry } from '@/core/job/entries';
import { appendEntries, readEntries } from './entries';
import { findJob } from './jobs';
import { migrate } from './migrate';
import { getPhoto, putPhoto } from './photos';
import { closePool, pool } from './pool';
import { reading } from './testing/reading';
import { seedAfresh } from './testing/seedAfresh';

const seed = (...words: string[]) =>
  spawnSync('npx', ['tsx', 'scripts/seed.ts', ...words], { encoding: 'utf8', env: process.env });

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
