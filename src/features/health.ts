import 'server-only';
import { askDatabase } from '@/db/health';
import { log } from './serverLog';

export async function checkHealth(): Promise<{ status: 'ok' | 'failing'; database: 'ok' | 'no answer' }> {
  try {
    await askDatabase();
    return { status: 'ok', database: 'ok' };
  } catch (error) {
    log.warn({ err: error }, 'the database does not answer');
    return { status: 'failing', database: 'no answer' };
  }
}
