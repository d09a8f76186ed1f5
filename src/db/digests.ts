import type { ResultSetHeader, RowDataPacket } from 'mysql2/promise';
import type { JobDigest } from '@/core/job/jobDigest';
import type { JobLeft } from '@/core/shed/outcome';
import { putPast } from './past';
import { pool, withTransaction } from './pool';

/** Which state of a job a digest is worked out for. */
export interface DigestMark {
  number: number;
  round: number;
}

/** Where a job's log and its surroundings stand now; null when there is no such job. */
export async function digestMark(jobId: string): Promise<DigestMark | null> {
  const [rows] = await pool().query<RowDataPacket[]>(
    'SELECT last_number, digest_round FROM jobs WHERE id = ?',
    [jobId],
  );
  const row = rows[0];
  return row ? { number: Number(row.last_number), round: Number(row.digest_round) } : null;
}

/** What is worked out of a job's log for the rest of the shed. */
export interface JobYield {
  digest: JobDigest;
  past: JobLeft;
}

/**
 * Keeps a digest, and what the job left behind, unless what they were worked out for has been overtaken by a later one. Says whether it
 * was kept, and whether the shed's past is another one now.
 */
export async function putDigest(
  jobId: string,
  mark: DigestMark,
  { digest, past }: JobYield,
): Promise<{ kept: boolean; pastChanged: boolean }> {
  return withTransaction(async (db) => {
    const [done] = await db.execute<ResultSetHeader>(
      `UPDATE jobs SET digest = ?, digest_number = ?, defects = ?
       WHERE id = ? AND digest_round = ? AND COALESCE(digest_number, 0) <= ?`,
      [JSON.stringify(digest), mark.number, digest.defects.length, jobId, mark.round, mark.number],
    );
    if (done.affectedRows === 0) return { kept: false, pastChanged: false };
    return { kept: true, pastChanged: await putPast(db, jobId, past) };
  });
}

/** Something outside the log changed what digests say: those of all jobs in hand, or of one machine's. */
export async function outdateDigests(machineId?: string): Promise<void> {
  await pool().execute(
    `UPDATE jobs SET digest_round = digest_round + 1, digest_number = NULL WHERE closed_at IS NULL
     ${machineId ? 'AND function_id IN (SELECT id FROM functions WHERE machine_id = ?)' : ''}`,
    machineId ? [machineId] : [],
  );
}

/** Guards of a machine that are out of action, as its jobs left them. */
export async function defectsOf(machineId: string): Promise<{ job: number; text: string }[]> {
  const [rows] = await pool().query<RowDataPacket[]>(
    `SELECT j.number, j.digest FROM jobs j JOIN functions f ON f.id = j.function_id
     WHERE f.machine_id = ? AND j.defects > 0 ORDER BY j.number DESC LIMIT 20`,
    [machineId],
  );
  return rows.flatMap((row) => {
    const digest = (typeof row.digest === 'string' ? JSON.parse(row.digest) : row.digest) as JobDigest;
    return digest.defects.map((text) => ({ job: Number(row.number), text }));
  });
}
