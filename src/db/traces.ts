import type { RowDataPacket } from 'mysql2/promise';
import { z } from 'zod';
import { keptTrace, type KeptTrace } from '@/core/trace/keptTrace';
import { jsonColumn } from './jsonColumn';
import { pool } from './pool';

/** A trace of a part from when its machine was handed over mended. */
export interface StoredTrace {
  part: string;
  amps: KeptTrace;
  jobNumber: number;
  at: Date;
}

const MOST_TRACES = 24;
const tracedBody = jsonColumn(z.object({ part: z.string(), amps: keptTrace }));

/**
 * Traces taken after the last fix in closed jobs of the same function, the latest first; none of the job itself. What was taken after a
 * work that another one followed may be of a machine that was still broken.
 */
export async function readSoundTraces(jobId: string): Promise<StoredTrace[]> {
  const [rows] = await pool().query<RowDataPacket[]>(
    `SELECT e.body, e.received_at, j.number
     FROM jobs own JOIN jobs j ON j.function_id = own.function_id AND j.id <> own.id AND j.closed_at IS NOT NULL
       JOIN entries e ON e.job_id = j.id AND e.type = 'trace' AND JSON_VALUE(e.body, '$.phase') = 'fixed'
     WHERE own.id = ?
       AND NOT EXISTS (SELECT 1 FROM entries s WHERE s.job_id = e.job_id AND s.supersedes = e.id)
       AND NOT EXISTS (SELECT 1 FROM entries f WHERE f.job_id = e.job_id AND f.type = 'fix' AND f.number > e.number)
     ORDER BY j.closed_at DESC, e.number DESC LIMIT ?`,
    [jobId, MOST_TRACES],
  );
  return rows.map((row) => ({
    ...tracedBody.parse(row.body),
    jobNumber: Number(row.number),
    at: row.received_at as Date,
  }));
}
