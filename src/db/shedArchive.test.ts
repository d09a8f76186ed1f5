import { closePool, inOneGo, pool } from './pool';
import type { RowDataPacket } from 'mysql2/promise';
import { migrate } from './migrate';
import { insertAccount, listAccounts } from './people';
import { ARCHIVED, LEFT_BEHIND, readShed, writeShed } from './shedArchive';
import { databaseSums } from './testing/databaseSums';
import { seedAfresh } from './testing/seedAfresh';
import { putPhoto } from './photos';

async function archive(): Promise<string[]> {
  const lines: string[] = [];
  await writeShed((line) => Promise.resolve(void lines.push(line)));
  return lines;
}

/** Takes everything out of the schema, as a new one is. */
async function empty() {
  const [tables] = await pool().query<RowDataPacket[]>('SHOW TABLES');
  await inOneGo('writing', async (db) => {
    await db.query('SET FOREIGN_KEY_CHECKS = 0');
    for (const row of tables) await db.query(`DROP TABLE \`${String(Object.values(row)[0])}\``);
    await db.query('SET FOREIGN_KEY_CHECKS = 1');
  });
  await migrate();
}

async function* of(lines: readonly string[]) {
  yield* await Promise.resolve(lines);
}

describe('an archive of a shed', () => {
  beforeAll(async () => {
    await seedAfresh();
  });
  afterAll(closePool);

  it('decides on every table that there is', async () => {
    const [tables] = await pool().query<RowDataPacket[]>('SHOW TABLES');
    const names = tables.map((row) => String(Object.values(row)[0])).sort();
    expect(names).toEqual([...ARCHIVED, ...LEFT_BEHIND].sort());
  });

  it('goes back into an empty shed unchanged, without what anybody signs in with; nothing of a bad one is taken', async () => {
    await insertAccount({ name: 'Odd ‘name’', role: 'lead', licences: [], pinHash: 'h', at: new Date(1e12) });
    const bytes = Buffer.from(Uint8Array.from({ length: 256 }, (_, at) => at));
    await putPhoto({ hash: 'a'.repeat(64), kind: 'image/png', width: 2, height: 3, bytes });
    const lines = await archive();
    expect(lines[0]).toMatch(/^\{"format":"spiraxis-shed","version":1,"schema":"0\d+_/);
    expect(lines.join('\n')).not.toMatch(/pin_hash|password_hash|argon2/);
    await expect(readShed(of(lines))).rejects.toThrow(/the shed: it is not empty \(machines\)/);

    await empty();
    const before = await databaseSums();
    const wrong: [RegExp, readonly string[]][] = [
      [/ends before its end/, lines.slice(0, -1)],
      [/line 1: no archive of a shed/, lines.slice(1)],
      [
        /rows of settings were written and \d+ are here/,
        lines.filter((line) => !line.startsWith('{"settings"')),
      ],
      [/functions: a row points at one that is not there/, lines.filter((_line, at) => at !== 2)],
      [/line 3: no line of an archive/, [...lines.slice(0, 2), '{"machines":', ...lines.slice(2)]],
      [/no row of a table that a shed has \(sessions\)/, [...lines.slice(0, 2), '{"sessions":{}}']],
      [/"pin_hash" is no column of accounts/, [lines[0]!, '{"accounts":{"pin_hash":"x"}}', lines.at(-1)!]],
      [/made by a newer program \(9999_later\)/, [lines[0]!.replace(/"\d{4}_[^"]*"/, '"9999_later"')]],
      [/machines: a row stands there twice/, [lines[0]!, lines[1]!, lines[1]!, lines.at(-1)!]],
      [
        /circuit\.parts/,
        lines.map((line) =>
          line.startsWith('{"functions"') ? line.replace('"parts":[', '"parts":[7,') : line,
        ),
      ],
      [
        /line \d+, type|line \d+, entry/,
        lines.map((line) =>
          line.startsWith('{"entries"') ? line.replace(/"type":"[a-zA-Z]+"/, '"type":"odd"') : line,
        ),
      ],
    ];
    for (const [why, given] of wrong) await expect(readShed(of(given))).rejects.toThrow(why);
    expect(await databaseSums()).toBe(before);

    const rows = await readShed(of(lines));
    expect(rows['machines']).toBeGreaterThan(5);
    expect(rows['entries']).toBeGreaterThan(50);
    expect(await archive()).toEqual(lines);
    const odd = (await listAccounts()).find(({ name }) => name === 'Odd ‘name’');
    expect(odd).toMatchObject({ role: 'lead', pin_hash: null, password_hash: null, one_time: false });
  });
});
