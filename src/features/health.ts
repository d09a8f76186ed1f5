import 'server-only';
import { pool } from '@/db/pool';
import { log } from './serverLog';

export async function checkHealth(): Promise<{ status: 'ok' | 'failing'; database: 'ok' | 'no answer' }> {
  try {
    await pool().query('SELECT 1');
    return { status: 'ok', database: 'ok' };
  } catch (error) {
    log.warn({ err: error }, 'the database does not answer');
    return { status: 'failing', database: 'no answer' };
  }
}
