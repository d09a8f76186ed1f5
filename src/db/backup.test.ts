import { spawnSync } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { databaseSums } from './testing/databaseSums';
import { seedAfresh } from './testing/seedAfresh';
import { closePool, pool } from './pool';

const home = mkdtempSync(join(tmpdir(), 'spiraxis-backup-test-'));
const backups = join(home, 'backups');

function ran(script: string, ...args: string[]) {
  const done = spawnSync(process.execPath, [`scripts/${script}.mjs`, ...args], {
    encoding: 'utf8',
    env: { ...process.env, SPIRAXIS_VAR: home },
  });
  return { ok: done.status === 0, said: done.stdout + done.stderr };
}
const files = () => readdirSync(backups).filter((name) => name.endsWith('.sql.gz'));

describe('a backup', () => {
  beforeAll(seedAfresh);
  afterAll(async () => {
    await closePool();
    rmSync(home, { recursive: true, force: true });
  });

  it('is made while the database runs, comes back into an empty place as it was, and keeps what stood there', async () => {
    const before = await databaseSums();
    const made = ran('backup', '--to', backups);
    expect(made.said).toMatch(/\d+ tables, \d+ rows, \d+ bytes; restored and read once/);
    expect(await databaseSums()).toBe(before);
    const [file] = files();
    const manifest = JSON.parse(readFileSync(join(backups, file!.replace('.sql.gz', '.json')), 'utf8')) as {
      tables: Record<string, { rows: number; sum: number }>;
    };
    // The same sums as the database that was copied, table by table.
    const sums = new Map(
      (JSON.parse(before) as [string, number][]).map(([name, sum]) => [name.split('.')[1]!, sum]),
    );
    for (const [name, { sum }] of Object.entries(manifest.tables))
      expect([name, sum]).toEqual([name, sums.get(name)]);
    const first = ran('restore', join(backups, file!));
    expect(first.said).toMatch(/restored as of .*Start the application again/);
    const again = ran('restore', join(backups, file!));
    expect(again.said).toMatch(/what stood there before is kept in/);
    expect(readdirSync(home).filter((name) => name.startsWith('mariadb'))).toEqual([
      'mariadb',
      expect.stringMatching(/^mariadb-before-/),
    ]);
  });

  it('that was changed since, or was never finished, is refused, and nothing is touched', () => {
    const [file] = files();
    const whole = readFileSync(join(backups, file!));
    const bent = Buffer.from(whole);
    bent[bent.length >> 1] = bent[bent.length >> 1]! ^ 1;
    writeFileSync(join(backups, file!), bent);
    const refused = ran('restore', join(backups, file!));
    expect([refused.ok, refused.said]).toEqual([false, expect.stringMatching(/SHA-256 differs/)]);
    const strange = join(backups, 'spiraxis-20200101-000000Z.sql.gz');
    writeFileSync(strange, whole);
    expect(ran('restore', strange).said).toMatch(/beside it; name a backup that was finished/);
    expect(ran('restore', join(home, 'none.sql.gz')).said).toMatch(/there is no backup/);
    rmSync(strange);
    expect(readdirSync(home).filter((name) => name.startsWith('mariadb'))).toHaveLength(2);
  });

  it('beyond those that are kept takes the oldest away', () => {
    const old = 'spiraxis-20200101-000000Z.sql.gz';
    writeFileSync(join(backups, old), '');
    const made = ran('backup', '--to', backups, '--keep', '1');
    expect(made.said).toContain(`2 older taken away: ${old}`);
    expect(files()).toHaveLength(1);
    expect(ran('backup', '--to', backups, '--keep', '0').said).toMatch(/1 or more \(given 0\)/);
  });

  it('of a database that says no is none', async () => {
    const url = new URL(process.env.SPIRAXIS_DATABASE_URL!);
    url.password = 'wrong';
    const done = spawnSync(process.execPath, ['scripts/backup.mjs', '--to', join(home, 'other')], {
      encoding: 'utf8',
      env: { ...process.env, SPIRAXIS_DATABASE_URL: url.href },
    });
    expect([done.status, done.stderr]).toEqual([
      1,
      expect.stringMatching(/mariadb-dump failed .*Access denied/),
    ]);
    expect(readdirSync(join(home, 'other'))).toEqual([]);
    await pool().query('SELECT 1');
  });
});
