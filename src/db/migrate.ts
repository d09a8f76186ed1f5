import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { RowDataPacket } from 'mysql2/promise';
import { pool } from './pool';

/** A holder that has not beaten for this long is dead; a living one beats far more often, however long it migrates. */
const STALE_LOCK_SECONDS = 60;
const BEAT_MS = 5_000;

/**
 * Brings the schema up to date: numbered SQL files, each once. A lock row keeps two starting servers apart. Its
 * holder beats while it works, so that it is taken over when the holder died and never while it still runs.
 */
export async function migrate(folder = join(process.cwd(), 'src', 'db', 'migrations')): Promise<string[]> {
  const db = pool();
  await db.query(
    'CREATE TABLE IF NOT EXISTS schema_migrations (name VARCHAR(120) NOT NULL PRIMARY KEY, applied_at DATETIME(3) NOT NULL) ENGINE = InnoDB',
  );
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
    const [rows] = await db.query<RowDataPacket[]>('SELECT name FROM schema_migrations');
    const done = new Set(rows.map(({ name }) => String(name)));
    const fresh = readdirSync(folder)
      .filter((name) => name.endsWith('.sql') && !done.has(name))
      .sort();
    for (const name of fresh) {
      for (const statement of statements(readFileSync(join(folder, name), 'utf8'))) await db.query(statement);
      await db.query('INSERT INTO schema_migrations (name, applied_at) VALUES (?, UTC_TIMESTAMP(3))', [name]);
    }
    return fresh;
  } finally {
    clearInterval(beat);
    await db.query('DELETE FROM migration_lock WHERE id = 1');
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
