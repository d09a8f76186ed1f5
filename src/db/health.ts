import { pool } from './pool';

/** Throws when the database does not answer. */
export async function askDatabase(): Promise<void> {
  await pool().query('SELECT 1');
}
