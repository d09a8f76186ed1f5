import type { RowDataPacket } from 'mysql2/promise';
import { z } from 'zod';
import { pool, type Statements } from './pool';

const retestRow = z.object({
  id: z.string(),
  number: z.number(),
  /** Day it is due, as the calendar has it: 2026-12-03. */
  due: z.iso.date(),
  title: z.string(),
  function_id: z.string(),
  function_name: z.string(),
  machine_code: z.string(),
  machine_name: z.string(),
  /** Where it stands; null where nobody said. */
  machine_place: z.string().nullable(),
  /** Job in hand on the same function, if there is one. */
  open_job: z.number().nullable(),
});
export type RetestRow = z.infer<typeof retestRow>;

/** Position in the list: the last row seen. */
export interface RetestCursor {
  due: string;
  id: string;
}

/**
 * Of a function's hand-overs the last one says when it is to be looked at again, whatever earlier ones said. Called where a job of it is
 * handed over, or opened again.
 */
export async function settleRetest(db: Statements, jobId: string): Promise<void> {
  const own = '(SELECT function_id FROM (SELECT function_id FROM jobs WHERE id = ?) AS own)';
  await db.execute(
    `UPDATE jobs SET retest_due = NULL WHERE function_id = ${own} AND retest_due IS NOT NULL`,
    [jobId],
  );
  await db.execute(
    `UPDATE jobs SET retest_due = retest_on WHERE id = (SELECT id FROM (SELECT id FROM jobs WHERE function_id = ${own}
       AND closed_at IS NOT NULL ORDER BY closed_at DESC, id DESC LIMIT 1) AS last)`,
    [jobId],
  );
}

/** What is to be looked at again, the longest due first, a page at a time. */
export async function listRetests(limit: number, after?: RetestCursor): Promise<RetestRow[]> {
  const [rows] = await pool().query<RowDataPacket[]>(
    `SELECT STRAIGHT_JOIN j.id, j.number, DATE_FORMAT(j.retest_due, '%Y-%m-%d') AS due, j.title, j.function_id,
       f.name AS function_name, m.code AS machine_code, m.name AS machine_name, m.place AS machine_place,
       (SELECT MAX(open.number) FROM jobs open WHERE open.function_id = j.function_id AND open.closed_at IS NULL)
         AS open_job
     FROM jobs j JOIN functions f ON f.id = j.function_id JOIN machines m ON m.id = f.machine_id
     WHERE j.retest_due IS NOT NULL ${after ? 'AND (j.retest_due, j.id) > (?, ?)' : ''}
     ORDER BY j.retest_due, j.id LIMIT ?`,
    [...(after ? [after.due, after.id] : []), limit],
  );
  return rows.map((row) => retestRow.parse(row));
}

const functionRow = retestRow
  .pick({
    function_id: true,
    function_name: true,
    machine_code: true,
    machine_name: true,
    machine_place: true,
    open_job: true,
  })
  .extend({ due: z.iso.date().nullable() });

/** When a function is to be looked at again, if somebody said so; null where there is no such function. */
export async function findRetest(functionId: string): Promise<z.infer<typeof functionRow> | null> {
  const [rows] = await pool().query<RowDataPacket[]>(
    `SELECT f.id AS function_id, f.name AS function_name, m.code AS machine_code, m.name AS machine_name, m.place AS machine_place,
       (SELECT DATE_FORMAT(MAX(j.retest_due), '%Y-%m-%d') FROM jobs j WHERE j.function_id = f.id) AS due,
       (SELECT MAX(open.number) FROM jobs open WHERE open.function_id = f.id AND open.closed_at IS NULL) AS open_job
     FROM functions f JOIN machines m ON m.id = f.machine_id WHERE f.id = ?`,
    [functionId],
  );
  return rows[0] ? functionRow.parse(rows[0]) : null;
}

/** What is due up to a day, as one walks: machine by machine. */
export async function retestsUntil(day: string, limit: number): Promise<RetestRow[]> {
  const rows = await listRetests(limit);
  return rows.filter(({ due }) => due <= day);
}

/** How many are due up to a day, that day with them. */
export async function countRetestsUntil(day: string): Promise<number> {
  const [rows] = await pool().query<RowDataPacket[]>('SELECT COUNT(*) AS n FROM jobs WHERE retest_due <= ?', [
    day,
  ]);
  return Number(rows[0]?.n ?? 0);
}
