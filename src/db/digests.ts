import type { ResultSetHeader, RowDataPacket } from 'mysql2/promise';
import { z } from 'zod';
import type { JobDigest } from '@/core/job/jobDigest';
import type { PastWinding, ProvedWinding } from '@/core/job/provedWindings';
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
  windings: readonly ProvedWinding[];
}

/**
 * Keeps a digest, and what the job proved, unless what they were worked out for has been overtaken by a later one. Says whether it was
 * kept.
 */
export async function putDigest(
  jobId: string,
  mark: DigestMark,
  { digest, windings }: JobYield,
): Promise<boolean> {
  return withTransaction(async (db) => {
    const [done] = await db.execute<ResultSetHeader>(
      `UPDATE jobs SET digest = ?, digest_number = ?, defects = ?
       WHERE id = ? AND digest_round = ? AND COALESCE(digest_number, 0) <= ?`,
      [JSON.stringify(digest), mark.number, digest.defects.length, jobId, mark.round, mark.number],
    );
    if (done.affectedRows === 0) return false;
    await db.execute('DELETE FROM proved_windings WHERE job_id = ?', [jobId]);
    if (windings.length > 0)
      await db.query('INSERT INTO proved_windings (job_id, part, type, ohms, at_reference) VALUES ?', [
        windings.map(({ part, type, ohms, atReference }) => [jobId, part, type, ohms, atReference]),
      ]);
    return true;
  });
}

/** Dots of one type that are enough of a picture. */
const MOST_WINDINGS = 240;

const windingRow = z.object({
  part: z.string(),
  type: z.string(),
  ohms: z.coerce.number(),
  at_reference: z.coerce.boolean(),
  function_id: z.string(),
  machine: z.string(),
  number: z.coerce.number(),
  closed_at: z.date(),
});

/** What windings of these types read in jobs that were handed over, the latest first; those of one job left out. */
export async function readWindings(
  types: readonly string[],
  functionId: string,
  exceptJobId: string,
): Promise<PastWinding[]> {
  if (types.length === 0) return [];
  const [rows] = await pool().query<RowDataPacket[]>(
    `SELECT w.part, w.type, w.ohms, w.at_reference, j.function_id, m.code AS machine, j.number, j.closed_at
     FROM proved_windings w JOIN jobs j ON j.id = w.job_id
     JOIN functions f ON f.id = j.function_id JOIN machines m ON m.id = f.machine_id
     WHERE w.type IN (?) AND w.job_id <> ? AND j.closed_at IS NOT NULL
     ORDER BY (j.function_id = ?) DESC, j.closed_at DESC LIMIT ?`,
    [types, exceptJobId, functionId, MOST_WINDINGS],
  );
  return rows.map((row) => {
    const { part, type, ohms, at_reference, function_id, machine, number, closed_at } = windingRow.parse(row);
    return {
      part,
      type,
      ohms,
      atReference: at_reference,
      own: function_id === functionId,
      machine,
      jobNumber: number,
      at: closed_at.toISOString(),
    };
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
