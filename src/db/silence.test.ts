import type { RowDataPacket } from 'mysql2';
import { DatabaseAway } from './databaseAway';

/** Less than the tests' own, which stands above what a stalling machine takes; see `scripts/test.mjs`. */
const PATIENCE_MS = 4000;

describe('a database that says nothing', () => {
  it('is given up when patience ends, and the next statement finds another connection', async () => {
    process.env.SPIRAXIS_DB_PATIENCE_MS = String(PATIENCE_MS);
    // The pool reads its patience when it is loaded.
    const { closePool, pool } = await import('./pool');
    await expect(pool().query('SELECT SLEEP(25)')).rejects.toThrow(DatabaseAway);
    const [rows] = await pool().query<RowDataPacket[]>('SELECT 1 AS one');
    expect(rows).toEqual([{ one: 1 }]);
    await closePool();
  });
});
