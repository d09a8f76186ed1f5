import type { RowDataPacket } from 'mysql2/promise';
import { z } from 'zod';
import { pool } from './pool';

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

/** A later hand-over of the same function has looked again, whatever it says of the next time. */
const STANDING = `j.retest_on IS NOT NULL AND j.closed_at IS NOT NULL AND NOT EXISTS (
    SELECT 1 FROM jobs later WHERE later.function_id = j.function_id AND later.closed_at > j.closed_at)`;

/** What is to be looked at again, the longest due first, a page at a time. */
export async function listRetests(limit: number, after?: RetestCursor): Promise<RetestRow[]> {
  const [rows] = await pool().query<RowDataPacket[]>(
    `SELECT j.id, j.number, DATE_FORMAT(j.retest_on, '%Y-%m-%d') AS due, j.title, j.function_id,
       f.name AS function_name, m.code AS machine_code, m.name AS machine_name, m.place AS machine_place,
       (SELECT MAX(open.number) FROM jobs open WHERE open.function_id = j.function_id AND open.closed_at IS NULL)
         AS open_job
     FROM jobs j JOIN functions f ON f.id = j.function_id JOIN machines m ON m.id = f.machine_id
     WHERE ${STANDING} ${after ? 'AND (j.retest_on, j.id) > (?, ?)' : ''}
     ORDER BY j.retest_on, j.id LIMIT ?`,
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
       (SELECT DATE_FORMAT(MAX(j.retest_on), '%Y-%m-%d') FROM jobs j WHERE j.function_id = f.id AND ${STANDING}) AS due,
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
  const [rows] = await pool().query<RowDataPacket[]>(
    `SELECT COUNT(*) AS n FROM jobs j WHERE ${STANDING} AND j.retest_on <= ?`,
    [day],
  );
  return Number(rows[0]?.n ?? 0);
}
