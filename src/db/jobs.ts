import type { RowDataPacket } from 'mysql2/promise';
import { z } from 'zod';
import { DIGEST_MADE, type JobDigest } from '@/core/job/jobDigest';
import { BEHIND_CODE, BY_CODE } from './byCode';
import { circuitColumn } from './circuitColumn';
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
const shedRow = jobListRow.extend({
  /** What the shed shows of it; null while it is worked out for the log as it stands. */
  digest: z.preprocess(
    (value) => (typeof value === 'string' ? JSON.parse(value) : value),
    z.custom<JobDigest>().nullable(),
  ),
});
export type ShedRow = z.infer<typeof shedRow>;
export type JobListRow = z.infer<typeof jobListRow>;

const jobRow = jobListRow.extend({
  function_id: z.string(),
  machine_id: z.string(),
  equipment: z.string().nullable(),
  /** Of its machine, as they were known when it was opened. */
  machine_hours: z.coerce.number().nullable(),
  closed_at: z.date().nullable(),
  /** Version of the function's circuit that the job was opened on, and the newest there is. */
  function_version: z.coerce.number(),
  newest_version: z.coerce.number(),
  circuit: circuitColumn,
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
  circuit: circuitColumn,
});
export type FunctionRow = z.infer<typeof functionRow>;

const LISTED = `j.id, j.number, j.title, j.person, j.opened_at,
    IF(j.digest_number = j.last_number, j.digest, NULL) AS digest,
    m.code AS machine_code, m.name AS machine_name, f.name AS function_name`;

/** Jobs in hand that wait for a part: one was asked for, and is not here. */
export async function jobsWaitingForParts(): Promise<Set<number>> {
  const [rows] = await pool().query<RowDataPacket[]>(
    `SELECT DISTINCT j.number FROM requisitions r JOIN jobs j ON j.id = r.job_id
     WHERE j.closed_at IS NULL AND r.state IN ('asked', 'approved', 'ordered')`,
  );
  return new Set(rows.map(({ number }) => Number(number)));
}

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
    where.push(
      'j.function_id IN (SELECT own.id FROM functions own JOIN machines it ON it.id = own.machine_id WHERE it.code = ?)',
    );
    values.push(machine);
  }
  for (const word of wordsOf(text)) {
    const like = likeWord(word);
    // Functions that fit are found once and kept: they are few beside the jobs, and so are their machines' names.
    where.push(
      `(j.title LIKE ? OR j.person LIKE ? OR j.number = ? OR j.function_id IN (
        SELECT named.id FROM functions named JOIN machines on_it ON on_it.id = named.machine_id
        WHERE on_it.code LIKE ? OR on_it.name LIKE ? OR named.name LIKE ?))`,
    );
    values.push(like, like, jobNumberIn(word), like, like, like);
  }
  return { where: where.join(' AND '), values };
}

/** Jobs, newest first, a page at a time. */
export async function listJobs(filter: JobFilter, limit: number, after?: JobCursor): Promise<ShedRow[]> {
  const { where, values } = filterOf(filter);
  const keyset = after ? 'AND (j.opened_at, j.id) < (?, ?)' : '';
  // Which ones is read off one key; only those few are then fetched, with what stands around them.
  const [rows] = await pool().query<RowDataPacket[]>(
    `SELECT STRAIGHT_JOIN ${LISTED} FROM (
       SELECT j.id FROM jobs j WHERE ${where} ${keyset} ORDER BY j.opened_at DESC, j.id DESC LIMIT ?
     ) listed
     JOIN jobs j ON j.id = listed.id JOIN functions f ON f.id = j.function_id JOIN machines m ON m.id = f.machine_id
     ORDER BY j.opened_at DESC, j.id DESC`,
    [...values, ...(after ? [after.openedAt, after.id] : []), limit],
  );
  return rows.map((row) => {
    const parsed = shedRow.parse(row);
    return parsed.digest?.made === DIGEST_MADE ? parsed : { ...parsed, digest: null };
  });
}

/** @param most where given, no more than so many are counted */
export async function countJobs(filter: JobFilter, most?: number): Promise<number> {
  const { where, values } = filterOf(filter);
  const [rows] = await pool().query<RowDataPacket[]>(
    most === undefined
      ? `SELECT COUNT(*) AS n FROM jobs j WHERE ${where}`
      : `SELECT COUNT(*) AS n FROM (SELECT 1 FROM jobs j WHERE ${where} LIMIT ?) counted`,
    [...values, ...(most === undefined ? [] : [most])],
  );
  return Number(rows[0]?.n ?? 0);
}

/** A job by its number as it stands in an address or a search, or null where the text is no number of one. */
export async function findJobByText(text: string): Promise<JobRow | null> {
  const number = jobNumberIn(text);
  return number === null ? null : findJob(number);
}

/** Text that could be a job's number, as that number. */
function jobNumberIn(text: string): number | null {
  return /^\d{1,9}$/.test(text) ? Number(text) : null;
}

/** A job with the circuit it was opened on, or null. */
export async function findJob(number: number): Promise<JobRow | null> {
  return findJobWhere('j.number', number);
}

export async function findJobById(id: string): Promise<JobRow | null> {
  return findJobWhere('j.id', id);
}

async function findJobWhere(column: 'j.number' | 'j.id', value: string | number): Promise<JobRow | null> {
  const [rows] = await pool().query<RowDataPacket[]>(
    `SELECT j.id, j.number, j.title, j.person, j.opened_at, j.closed_at, j.function_id, j.function_version,
       f.version AS newest_version, f.machine_id, v.circuit, m.code AS machine_code, m.name AS machine_name,
       m.equipment, j.machine_hours, f.name AS function_name
     FROM jobs j JOIN functions f ON f.id = j.function_id JOIN machines m ON m.id = f.machine_id
       JOIN function_versions v ON v.function_id = j.function_id AND v.version = j.function_version
     WHERE ${column} = ?`,
    [value],
  );
  return rows[0] ? jobRow.parse(rows[0]) : null;
}

/** Number of the last entry of each job, by id. */
export async function lastNumbers(ids: readonly string[]): Promise<ReadonlyMap<string, number>> {
  if (ids.length === 0) return new Map();
  const [rows] = await pool().query<RowDataPacket[]>('SELECT id, last_number FROM jobs WHERE id IN (?)', [
    ids,
  ]);
  return new Map(rows.map((row) => [String(row.id), Number(row.last_number)]));
}

/** Which machines a list shows: those with all these words in what is known of them, behind a code. */
export interface MachineFilter {
  text?: string;
  /** Class of equipment. */
  equipment?: string;
  after?: string;
  /** Those with a job in hand only. */
  busy?: boolean;
}

const wordsOf = (text: string | undefined) => (text ?? '').trim().split(/\s+/).filter(Boolean).slice(0, 6);
const likeWord = (word: string) => `%${word.replace(/[\\%_]/g, '\\$&')}%`;

/** What a machine is found by. */
const MACHINE_WORDS = ['code', 'name', 'serial', 'place', 'equipment'] as const;

function machineWhere({ text, equipment, after, busy }: MachineFilter): { where: string; values: unknown[] } {
  const where = ['TRUE'];
  const values: unknown[] = [];
  for (const word of wordsOf(text)) {
    where.push(`(${MACHINE_WORDS.map((column) => `m.${column} LIKE ?`).join(' OR ')})`);
    values.push(...MACHINE_WORDS.map(() => likeWord(word)));
  }
  if (equipment !== undefined) {
    where.push('m.equipment = ?');
    values.push(equipment);
  }
  if (busy)
    where.push(
      'EXISTS (SELECT 1 FROM jobs j JOIN functions f ON f.id = j.function_id WHERE f.machine_id = m.id AND j.closed_at IS NULL)',
    );
  if (after !== undefined) {
    where.push(BEHIND_CODE);
    values.push(after, after);
  }
  return { where: where.join(' AND '), values };
}

export async function countMachines(filter: MachineFilter = {}): Promise<number> {
  const { where, values } = machineWhere(filter);
  const [rows] = await pool().query<RowDataPacket[]>(
    `SELECT COUNT(*) AS n FROM machines m WHERE ${where}`,
    values,
  );
  return Number(rows[0]?.n ?? 0);
}

/** Machines by code, a page at a time. */
export async function listMachines(limit: number, filter: MachineFilter = {}): Promise<MachineRow[]> {
  const { where, values } = machineWhere(filter);
  const [rows] = await pool().query<RowDataPacket[]>(
    `SELECT m.id, m.code, m.name,
       (SELECT COUNT(*) FROM functions f WHERE f.machine_id = m.id) AS functions,
       (SELECT COUNT(*) FROM jobs j JOIN functions f ON f.id = j.function_id
         WHERE f.machine_id = m.id AND j.closed_at IS NULL) AS open_jobs
     FROM (SELECT m.id, m.code, m.name FROM machines m WHERE ${where} ORDER BY ${BY_CODE} LIMIT ?) m
     ORDER BY ${BY_CODE}`,
    [...values, limit],
  );
  return rows.map((row) => machineRow.parse(row));
}

/** A function as a list names it, without its circuit. */
const functionName = functionRow.omit({ circuit: true });
export type FunctionName = z.infer<typeof functionName>;

/** Functions with all these words in their machine's code or name or their own, by machine. */
export async function listFunctions(limit: number, text?: string): Promise<FunctionName[]> {
  const { where, values } = functionWhere(text);
  const [rows] = await pool().query<RowDataPacket[]>(
    `SELECT f.id, f.name, m.code AS machine_code, m.name AS machine_name
     FROM functions f JOIN machines m ON m.id = f.machine_id WHERE ${where} ORDER BY ${BY_CODE}, f.name LIMIT ?`,
    [...values, limit],
  );
  return rows.map((row) => functionName.parse(row));
}

export async function countFunctions(text?: string): Promise<number> {
  const { where, values } = functionWhere(text);
  const [rows] = await pool().query<RowDataPacket[]>(
    `SELECT COUNT(*) AS n FROM functions f JOIN machines m ON m.id = f.machine_id WHERE ${where}`,
    values,
  );
  return Number(rows[0]?.n ?? 0);
}

function functionWhere(text: string | undefined): { where: string; values: unknown[] } {
  const words = wordsOf(text);
  return {
    where: ['TRUE', ...words.map(() => '(f.name LIKE ? OR m.code LIKE ? OR m.name LIKE ?)')].join(' AND '),
    values: words.flatMap((word) => [likeWord(word), likeWord(word), likeWord(word)]),
  };
}

/**
 * Opens a job under the next free number; two people opening at once get two numbers. One that is there already keeps its own.
 *
 * @param job.functionVersion of the drawing that it was begun by; the newest where none is said
 */
export async function insertJob(job: {
  id: string;
  functionId: string;
  functionVersion?: number;
  title: string;
  person: string | null;
  openedAt: Date;
}): Promise<number> {
  return withTransaction(async (db) => {
    // Asked a second time, because nobody knew whether the first was heard.
    const [known] = await db.query<RowDataPacket[]>('SELECT number FROM jobs WHERE id = ?', [job.id]);
    if (known[0]) return Number(known[0].number);
    const [rows] = await db.query<RowDataPacket[]>(
      'SELECT number FROM jobs ORDER BY number DESC LIMIT 1 FOR UPDATE',
    );
    const number = Number(rows[0]?.number ?? 0) + 1;
    await db.execute(
      `INSERT INTO jobs (id, number, function_id, function_version, title, person, opened_at, machine_hours)
       SELECT ?, ?, f.id, COALESCE(?, f.version), ?, ?, ?, m.hours
       FROM functions f JOIN machines m ON m.id = f.machine_id WHERE f.id = ?`,
      [job.id, number, job.functionVersion ?? null, job.title, job.person, job.openedAt, job.functionId],
    );
    return number;
  });
}

const foundMachine = z.object({
  id: z.string(),
  code: z.string(),
  name: z.string(),
  equipment: z.string().nullable(),
  serial: z.string().nullable(),
  place: z.string().nullable(),
  hours: z.coerce.number().nullable(),
});

export async function findMachine(code: string): Promise<z.infer<typeof foundMachine> | null> {
  const [rows] = await pool().query<RowDataPacket[]>(
    'SELECT id, code, name, equipment, serial, place, hours FROM machines WHERE code = ?',
    [code],
  );
  return rows[0] ? foundMachine.parse(rows[0]) : null;
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
