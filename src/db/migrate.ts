import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { RowDataPacket } from 'mysql2/promise';
import { codeOf } from './databaseAway';
import { pool, type Statements } from './pool';

/** A holder that has not beaten for this long is dead; a living one beats far more often, however long it migrates. */
const STALE_LOCK_SECONDS = 15;
const BEAT_MS = 2_000;
/** User that the application comes as, where it is not the owner of the schema. */
const APPLICATION = "'spiraxis_app'@'127.0.0.1'";
/** Tables of which nothing is ever changed or taken away: what stands in a log stands. */
const APPEND_ONLY: readonly string[] = ['entries', 'function_versions', 'schema_migrations', 'trail'];

/**
 * Runs something alone, whoever else starts at the same time. The lock's holder beats while it works, so that it is taken
 * over when the holder died and never while it still runs.
 */
export async function alone<T>(work: (db: Statements) => Promise<T>): Promise<T> {
  const db = pool();
  await db.query(
    'CREATE TABLE IF NOT EXISTS migration_lock (id TINYINT NOT NULL PRIMARY KEY, taken_at DATETIME(3) NOT NULL) ENGINE = InnoDB',
  );
  for (;;) {
    await db.query('DELETE FROM migration_lock WHERE taken_at < UTC_TIMESTAMP(3) - INTERVAL ? SECOND', [
      STALE_LOCK_SECONDS,
    ]);
    const [taken] = await db.query(
      'INSERT IGNORE INTO migration_lock (id, taken_at) VALUES (1, UTC_TIMESTAMP(3))',
    );
    if ('affectedRows' in taken && taken.affectedRows === 1) break;
    await new Promise((resolve) => setTimeout(resolve, 250));
  }
  const beat = setInterval(() => {
    void db
      .query('UPDATE migration_lock SET taken_at = UTC_TIMESTAMP(3) WHERE id = 1')
      .catch(() => undefined);
  }, BEAT_MS);
  try {
    return await work(db);
  } finally {
    clearInterval(beat);
    await db.query('DELETE FROM migration_lock WHERE id = 1');
  }
}

/** Brings the schema up to date: numbered SQL files, each once; and gives the application's user its rights on it. */
export async function migrate(folder = join(process.cwd(), 'src', 'db', 'migrations')): Promise<string[]> {
  return alone(async (db) => {
    await db.query(
      'CREATE TABLE IF NOT EXISTS schema_migrations (name VARCHAR(120) NOT NULL PRIMARY KEY, applied_at DATETIME(3) NOT NULL) ENGINE = InnoDB',
    );
    const [rows] = await db.query<RowDataPacket[]>('SELECT name FROM schema_migrations');
    const done = new Set(rows.map(({ name }) => String(name)));
    const fresh = readdirSync(folder)
      .filter((name) => name.endsWith('.sql') && !done.has(name))
      .sort();
    for (const name of fresh) {
      for (const statement of statements(readFileSync(join(folder, name), 'utf8'))) await db.query(statement);
      await db.query('INSERT INTO schema_migrations (name, applied_at) VALUES (?, UTC_TIMESTAMP(3))', [name]);
    }
    await giveRights(db);
    return fresh;
  });
}

/**
 * What the application may do, table by table. A database of one's own may know no such user, or may not let this one give
 * rights; then it is its keeper's to do, and `docs/security.md` says what.
 */
async function giveRights(db: Statements): Promise<void> {
  const [grants] = await db.query<RowDataPacket[]>('SHOW GRANTS');
  const mayGrant = grants.some((row) => /WITH GRANT OPTION/.test(String(Object.values(row)[0])));
  if (!mayGrant) return;
  const [[at]] = await db.query<RowDataPacket[]>('SELECT DATABASE() AS name');
  const [tables] = await db.query<RowDataPacket[]>('SHOW TABLES');
  // An underscore stands for any letter there, and two sheds could be one but for a letter.
  const schema = String(at!.name).replaceAll('_', '\\_');
  try {
    // For the schema as a whole: of rights on single tables the server looks through all there are, of every shed.
    await db.query(`GRANT SELECT, INSERT ON \`${schema}\`.* TO ${APPLICATION}`);
    for (const row of tables) {
      const table = String(Object.values(row)[0]);
      if (table === 'migration_lock' || APPEND_ONLY.includes(table)) continue;
      await db.query(`GRANT UPDATE, DELETE ON \`${table}\` TO ${APPLICATION}`);
    }
  } catch (error) {
    // There is no such user here, and none is made.
    if (codeOf(error) !== 'ER_PASSWORD_NO_MATCH') throw error;
  }
}

/** Splits a file of plain statements; a semicolon ends one only at the end of a line. */
function statements(sql: string): string[] {
  return sql
    .replace(/^--.*$/gm, '')
    .split(/;\s*$/m)
    .map((one) => one.trim())
    .filter((one) => one !== '');
}
