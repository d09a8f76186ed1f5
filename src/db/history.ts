import type { RowDataPacket } from 'mysql2/promise';
import { z } from 'zod';
import { jsonColumn } from './jsonColumn';
import { COMEBACK_DAYS } from './past';
import { pool } from './pool';

const historyRow = z.object({
  number: z.coerce.number(),
  title: z.string(),
  person: z.string().nullable(),
  function_name: z.string(),
  machine_code: z.string(),
  opened_at: z.date(),
  closed_at: z.date().nullable(),
  part: z.string().nullable(),
  fault: z.string().nullable(),
  named: z.string().nullable(),
  minutes: z.coerce.number().nullable(),
  doubt: jsonColumn(z.array(z.array(z.tuple([z.string(), z.number()]))).nullable()),
  is_retest: z.coerce.boolean(),
  came_back: z.coerce.boolean(),
});
export type HistoryRow = z.infer<typeof historyRow>;

const SELECT = `SELECT j.number, j.title, j.person, f.name AS function_name, m.code AS machine_code, j.opened_at, j.closed_at,
    o.part, o.fault, o.named, o.minutes, o.doubt,
    EXISTS (SELECT 1 FROM entries looked WHERE looked.job_id = j.id AND looked.type = 'retest') AND o.job_id IS NULL AS is_retest,
    o.job_id IS NOT NULL AND EXISTS (SELECT 1 FROM jobs again WHERE again.function_id = j.function_id AND again.opened_at > o.closed_at
      AND again.opened_at < o.closed_at + INTERVAL ${COMEBACK_DAYS} DAY
      AND NOT EXISTS (SELECT 1 FROM entries looked WHERE looked.job_id = again.id AND looked.type = 'retest')) AS came_back
  FROM jobs j JOIN functions f ON f.id = j.function_id JOIN machines m ON m.id = f.machine_id
  LEFT JOIN outcomes o ON o.job_id = j.id`;

/** Jobs of a machine, the latest first; from a job number on downwards. */
export async function historyOf(machineId: string, limit: number, before?: number): Promise<HistoryRow[]> {
  const [rows] = await pool().query<RowDataPacket[]>(
    `${SELECT} WHERE m.id = ? ${before === undefined ? '' : 'AND j.number < ?'} ORDER BY j.number DESC LIMIT ?`,
    [machineId, ...(before === undefined ? [] : [before]), limit],
  );
  return rows.map((row) => historyRow.parse(row));
}

/** Jobs that were handed over between two moments, the earliest first. */
export async function closedBetween(from: Date, to: Date, limit: number): Promise<HistoryRow[]> {
  const [rows] = await pool().query<RowDataPacket[]>(
    `${SELECT} WHERE j.closed_at >= ? AND j.closed_at < ? ORDER BY j.closed_at, j.id LIMIT ?`,
    [from, to, limit],
  );
  return rows.map((row) => historyRow.parse(row));
}

interface FittedSpare {
  number: string;
  name: string;
  pieces: number;
  cost: number | null;
}

/**
 * Spares that were fitted between two moments, most pieces first, with what they cost where that is known; and of how many kinds
 * any were.
 */
export async function fittedBetween(
  from: Date,
  to: Date,
  most: number,
): Promise<{ spares: FittedSpare[]; kinds: number }> {
  const [rows] = await pool().query<RowDataPacket[]>(
    `SELECT s.number, s.name, -SUM(v.pieces) AS pieces, -SUM(v.pieces) * s.price AS cost, COUNT(*) OVER () AS kinds
     FROM spare_moves v JOIN spares s ON s.id = v.spare_id
     WHERE v.why = 'used' AND v.moved_at >= ? AND v.moved_at < ? GROUP BY s.id ORDER BY pieces DESC, s.number LIMIT ?`,
    [from, to, most],
  );
  const spares = rows.map((row) => ({
    number: String(row.number),
    name: String(row.name),
    pieces: Number(row.pieces),
    cost: row.cost === null ? null : Number(row.cost),
  }));
  return { spares, kinds: Number(rows[0]?.kinds ?? 0) };
}
