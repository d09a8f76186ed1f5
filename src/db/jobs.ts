import type { RowDataPacket } from 'mysql2/promise';
import { z } from 'zod';
import { circuitSchema } from '@/core/circuit/schema';
import { jsonColumn } from './jsonColumn';
import { pool, withTransaction } from './pool';

const jobListRow = z.object({
  id: z.string(),
  number: z.number(),
  title: z.string(),
  person: z.string().nullable(),
  opened_at: z.date(),
  machine_code: z.string(),
  machine_name: z.string(),
  function_name: z.string(),
});
export type JobListRow = z.infer<typeof jobListRow>;

const jobRow = jobListRow.extend({
  function_id: z.string(),
  machine_id: z.string(),
  closed_at: z.date().nullable(),
  /** Version of the function's circuit that the job was opened on, and the newest there is. */
  function_version: z.coerce.number(),
  newest_version: z.coerce.number(),
  circuit: jsonColumn(circuitSchema),
});
export type JobRow = z.infer<typeof jobRow>;

const machineRow = z.object({
  id: z.string(),
  code: z.string(),
  name: z.string(),
  functions: z.coerce.number(),
  open_jobs: z.coerce.number(),
});
export type MachineRow = z.infer<typeof machineRow>;

const functionRow = z.object({
  id: z.string(),
  name: z.string(),
  machine_code: z.string(),
  machine_name: z.string(),
  circuit: jsonColumn(circuitSchema),
});
export type FunctionRow = z.infer<typeof functionRow>;

const LIST = `SELECT j.id, j.number, j.title, j.person, j.opened_at,
    m.code AS machine_code, m.name AS machine_name, f.name AS function_name
  FROM jobs j JOIN functions f ON f.id = j.function_id JOIN machines m ON m.id = f.machine_id`;

/** Position in the list of jobs: the last row seen. */
export interface JobCursor {
  openedAt: Date;
  id: string;
}

/** Which jobs a list shows. */
export interface JobFilter {
  /** Part of a title, a machine's code or name, a function, a person, or a job's number. */
  text?: string;
  closed?: boolean;
  /** Only jobs of this machine, by its code. */
  machine?: string;
}

function filterOf({ text, closed = false, machine }: JobFilter): { where: string; values: unknown[] } {
  const where = [closed ? 'j.closed_at IS NOT NULL' : 'j.closed_at IS NULL'];
  const values: unknown[] = [];
  if (machine) {
    where.push('m.code = ?');
    values.push(machine);
  }
  for (const word of (text ?? '').trim().split(/\s+/).filter(Boolean).slice(0, 6)) {
    const like = `%${word.replace(/[\\%_]/g, '\\$&')}%`;
    where.push(
      '(j.title LIKE ? OR m.code LIKE ? OR m.name LIKE ? OR f.name LIKE ? OR j.person LIKE ? OR j.number = ?)',
    );
    values.push(like, like, like, like, like, /^\d{1,9}$/.test(word) ? Number(word) : -1);
  }
  return { where: where.join(' AND '), values };
}

/** Jobs, newest first, a page at a time. */
export async function listJobs(filter: JobFilter, limit: number, after?: JobCursor): Promise<JobListRow[]> {
  const { where, values } = filterOf(filter);
  const keyset = after ? 'AND (j.opened_at, j.id) < (?, ?)' : '';
  const [rows] = await pool().query<RowDataPacket[]>(
    `${LIST} WHERE ${where} ${keyset} ORDER BY j.opened_at DESC, j.id DESC LIMIT ?`,
    [...values, ...(after ? [after.openedAt, after.id] : []), limit],
  );
  return rows.map((row) => jobListRow.parse(row));
}

export async function countJobs(filter: JobFilter): Promise<number> {
  const { where, values } = filterOf(filter);
  const [rows] = await pool().query<RowDataPacket[]>(
    `SELECT COUNT(*) AS n FROM jobs j JOIN functions f ON f.id = j.function_id JOIN machines m ON m.id = f.machine_id
     WHERE ${where}`,
    values,
  );
  return Number(rows[0]?.n ?? 0);
}

/** A job with the circuit it was opened on, or null. */
export async function findJob(number: number): Promise<JobRow | null> {
  const [rows] = await pool().query<RowDataPacket[]>(
    `SELECT j.id, j.number, j.title, j.person, j.opened_at, j.closed_at, j.function_id, j.function_version,
       f.version AS newest_version, f.machine_id, v.circuit, m.code AS machine_code, m.name AS machine_name, f.name AS function_name
     FROM jobs j JOIN functions f ON f.id = j.function_id JOIN machines m ON m.id = f.machine_id
       JOIN function_versions v ON v.function_id = j.function_id AND v.version = j.function_version
     WHERE j.number = ?`,
    [number],
  );
  return rows[0] ? jobRow.parse(rows[0]) : null;
}

export async function listMachines(limit: number): Promise<MachineRow[]> {
  const [rows] = await pool().query<RowDataPacket[]>(
    `SELECT m.id, m.code, m.name,
       (SELECT COUNT(*) FROM functions f WHERE f.machine_id = m.id) AS functions,
       (SELECT COUNT(*) FROM jobs j JOIN functions f ON f.id = j.function_id
         WHERE f.machine_id = m.id AND j.closed_at IS NULL) AS open_jobs
     FROM machines m ORDER BY m.code LIMIT ?`,
    [limit],
  );
  return rows.map((row) => machineRow.parse(row));
}

export async function listFunctions(limit: number): Promise<FunctionRow[]> {
  const [rows] = await pool().query<RowDataPacket[]>(
    `SELECT f.id, f.name, f.circuit, m.code AS machine_code, m.name AS machine_name
     FROM functions f JOIN machines m ON m.id = f.machine_id ORDER BY m.code, f.name LIMIT ?`,
    [limit],
  );
  return rows.map((row) => functionRow.parse(row));
}

/** Opens a job under the next free number; two people opening at once get two numbers. */
export async function insertJob(job: {
  id: string;
  functionId: string;
  title: string;
  person: string | null;
  openedAt: Date;
}): Promise<number> {
  return withTransaction(async (db) => {
    const [rows] = await db.query<RowDataPacket[]>(
      'SELECT number FROM jobs ORDER BY number DESC LIMIT 1 FOR UPDATE',
    );
    const number = Number(rows[0]?.number ?? 400) + 1;
    await db.execute(
      `INSERT INTO jobs (id, number, function_id, function_version, title, person, opened_at)
       SELECT ?, ?, f.id, f.version, ?, ?, ? FROM functions f WHERE f.id = ?`,
      [job.id, number, job.title, job.person, job.openedAt, job.functionId],
    );
    return number;
  });
}

export async function findMachine(code: string): Promise<{ id: string; code: string; name: string } | null> {
  const [rows] = await pool().query<RowDataPacket[]>('SELECT id, code, name FROM machines WHERE code = ?', [
    code,
  ]);
  return rows[0] ? z.object({ id: z.string(), code: z.string(), name: z.string() }).parse(rows[0]) : null;
}

/** Functions of one machine, by name. */
export async function functionsOf(machineId: string): Promise<FunctionRow[]> {
  const [rows] = await pool().query<RowDataPacket[]>(
    `SELECT f.id, f.name, f.circuit, m.code AS machine_code, m.name AS machine_name
     FROM functions f JOIN machines m ON m.id = f.machine_id WHERE m.id = ? ORDER BY f.name`,
    [machineId],
  );
  return rows.map((row) => functionRow.parse(row));
}
