import 'server-only';
import type { Entry } from '@/core/job/entries';
import { findSpare, moveSpare, putBack } from '@/db/spares';
import { log } from '../serverLog';

/**
 * What a job's fixes fitted goes off the shelf, each once however often its entry is sent. The record of the work stands whatever becomes
 * of the shelf: a number that no card has is somebody's own part.
 */
export async function takeFitted(jobId: string, taken: readonly Entry[], at: Date): Promise<void> {
  for (const entry of taken) {
    if (entry.type === 'withdrawal')
      await putBack(entry.supersedes, { entryId: entry.id, person: entry.person, at, jobId });
    if (entry.type !== 'fix' || entry.body.spare === '') continue;
    const spare = await findSpare(entry.body.spare);
    if (!spare) continue;
    const moved = await moveSpare({
      spareId: spare.id,
      pieces: -1,
      why: 'used',
      person: entry.person,
      at,
      jobId,
      entryId: entry.id,
    });
    log.info({ spare: spare.number, moved }, 'spare fitted');
  }
}
