import { createPool, type Pool, type PoolConnection } from 'mysql2/promise';

/** Errors after which a short transaction may simply be tried again: deadlock, lock wait, lost connection. */
const RETRY_CODES = new Set([
  'ER_LOCK_DEADLOCK',
  'ER_LOCK_WAIT_TIMEOUT',
  'PROTOCOL_CONNECTION_LOST',
  'ECONNRESET',
  'EPIPE',
]);
const MOST_TRIES = 4;

const held = globalThis as typeof globalThis & { spiraxisPool?: Pool };

/** The application's connection pool, made on first use from `SPIRAXIS_DATABASE_URL`. */
export function pool(): Pool {
  if (!held.spiraxisPool) {
    const uri = process.env.SPIRAXIS_DATABASE_URL;
    if (!uri) throw new Error('SPIRAXIS_DATABASE_URL is not set; start with "npm run demo"');
    // Times go in and out as UTC text: the driver must not shift them by the server's zone.
    held.spiraxisPool = createPool({
      uri,
      connectionLimit: 8,
      timezone: 'Z',
      charset: 'utf8mb4',
      connectTimeout: 4000,
    });
  }
  return held.spiraxisPool;
}

/** Closes the pool; a later call to {@link pool} opens a new one. */
export async function closePool(): Promise<void> {
  const open = held.spiraxisPool;
  delete held.spiraxisPool;
  await open?.end();
}

/** Runs `work` in one transaction that it neither commits nor rolls back itself; tries again after a deadlock. */
export async function withTransaction<T>(work: (connection: PoolConnection) => Promise<T>): Promise<T> {
  for (let attempt = 1; ; attempt++) {
    const connection = await pool().getConnection();
    try {
      await connection.beginTransaction();
      const result = await work(connection);
      await connection.commit();
      connection.release();
      return result;
    } catch (error) {
      // A broken connection cannot roll back; throwing it away does the same.
      await connection.rollback().catch(() => undefined);
      connection.destroy();
      const code = error instanceof Error && 'code' in error ? String(error.code) : '';
      if (!RETRY_CODES.has(code) || attempt >= MOST_TRIES) throw error;
      await new Promise((resolve) => setTimeout(resolve, 20 * attempt * attempt));
    }
  }
}
