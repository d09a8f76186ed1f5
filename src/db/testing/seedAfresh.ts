import { spawnSync } from 'node:child_process';
import { createConnection, type Connection, type RowDataPacket } from 'mysql2/promise';

/** One run of the tests: they all stand in one process, one file after the other. */
const RUN = `${process.pid} ${Math.round(performance.timeOrigin)}`;

/**
 * The demo data without the fleet's two winters, and nothing else, in the database that the tests were given. The first of a run comes
 * from the script that users run, and is copied into a schema beside it; the others come from that copy, in a tenth of the time.
 */
export async function seedAfresh(): Promise<void> {
  const url = new URL(process.env.SPIRAXIS_DATABASE_URL!);
  const own = url.pathname.slice(1);
  const copy = `${own}_untouched`;
  const owner = await createConnection(url.href);
  try {
    await owner.query('SET foreign_key_checks = 0');
    if (await madeInThisRun(owner, copy)) {
      await owner.beginTransaction();
      for (const table of await tablesOf(owner, copy)) {
        await owner.query(`DELETE FROM \`${own}\`.\`${table}\``);
        await owner.query(`INSERT INTO \`${own}\`.\`${table}\` SELECT * FROM \`${copy}\`.\`${table}\``);
      }
      await owner.commit();
      return;
    }
    runSeed();
    await owner.query(`DROP DATABASE IF EXISTS \`${copy}\``);
    await owner.query(`CREATE DATABASE \`${copy}\``);
    for (const table of await tablesOf(owner, own)) {
      await owner.query(`CREATE TABLE \`${copy}\`.\`${table}\` LIKE \`${own}\`.\`${table}\``);
      await owner.query(`INSERT INTO \`${copy}\`.\`${table}\` SELECT * FROM \`${own}\`.\`${table}\``);
    }
    await owner.query(`ALTER DATABASE \`${copy}\` COMMENT = ?`, [RUN]);
  } finally {
    await owner.end();
  }
}

/** Whether the copy is whole, and of the program as it is now: one of an earlier run may be of another. */
async function madeInThisRun(owner: Connection, copy: string): Promise<boolean> {
  const [rows] = await owner.query<RowDataPacket[]>(
    'SELECT schema_comment AS run FROM information_schema.schemata WHERE schema_name = ?',
    [copy],
  );
  return rows[0]?.run === RUN;
}

async function tablesOf(owner: Connection, schema: string): Promise<string[]> {
  const [rows] = await owner.query<RowDataPacket[]>(
    `SELECT table_name AS name FROM information_schema.tables
     WHERE table_schema = ? AND table_type = 'BASE TABLE'`,
    [schema],
  );
  return rows.map(({ name }) => String(name));
}

function runSeed(): void {
  const done = spawnSync('npx', ['tsx', 'scripts/seed.ts', '--fresh', '--small'], {
    encoding: 'utf8',
    env: process.env,
  });
  if (done.status !== 0) throw new Error(`the demo data could not be prepared: ${done.stderr}`);
}
