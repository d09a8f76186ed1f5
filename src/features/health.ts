import 'server-only';
import { askDatabase, shedIsThere } from '@/db/health';
import { ofProcess } from '@/db/shed';
import { log } from './serverLog';

/** Lets the server in front (`scripts/serve.mjs`) ask whether there is a shed. */
export function tellFront(): void {
  ofProcess('shed is there', () => shedIsThere);
}

export async function checkHealth(): Promise<{ status: 'ok' | 'failing'; database: 'ok' | 'no answer' }> {
  try {
    await askDatabase();
    return { status: 'ok', database: 'ok' };
  } catch (error) {
    log.warn({ err: error }, 'the database does not answer');
    return { status: 'failing', database: 'no answer' };
  }
}
