import type { RowDataPacket } from 'mysql2/promise';
import { v7 as uuidv7 } from 'uuid';
import { z } from 'zod';
import { bookRowSchema, type BookRow } from '@/core/codes/bookRow';
import { pool, withTransaction, type Statements } from './pool';

const storedRow = z
  .object({ id: z.string(), function_name: z.string() })
  .loose()
  .transform(({ id, function_name, ...rest }) => ({
    id,
    ...bookRowSchema.parse({ ...rest, function: function_name }),
  }));
export type StoredBookRow = BookRow & { id: string };

/** Most lines a book is read with. */
export const MOST_BOOK_ROWS = 5000;

export async function readBook(machineId: string): Promise<StoredBookRow[]> {
  const [rows] = await pool().query<RowDataPacket[]>(
    `SELECT id, system, code, mode, means, text, function_name, part, sheet, note FROM code_book
     WHERE machine_id = ? ORDER BY code, mode, id LIMIT ?`,
    [machineId, MOST_BOOK_ROWS],
  );
  return rows.map((row) => storedRow.parse(row));
}

const INSERT = `INSERT INTO code_book
  (id, machine_id, system, code, mode, means, text, function_name, part, sheet, note)
  VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`;
const valuesOf = (machineId: string, row: BookRow) => [
  uuidv7(),
  machineId,
  row.system,
  row.code,
  row.mode,
  row.means,
  row.text,
  row.function,
  row.part,
  row.sheet,
  row.note,
];

/** Adds one line, or puts it in the place of another. */
export async function putBookRow(machineId: string, row: BookRow, replaces?: string): Promise<void> {
  await withTransaction(async (db) => {
    if (replaces)
      await db.execute('DELETE FROM code_book WHERE id = ? AND machine_id = ?', [replaces, machineId]);
    await db.execute(INSERT, valuesOf(machineId, row));
  });
}

export async function removeBookRow(machineId: string, id: string): Promise<void> {
  await pool().execute('DELETE FROM code_book WHERE id = ? AND machine_id = ?', [id, machineId]);
}

/** Takes in a whole table: lines for a code and mode that the book already has are put in their place. */
export async function mergeBook(machineId: string, book: readonly BookRow[]): Promise<void> {
  await withTransaction((db) => mergeBookIn(db, machineId, book));
}

/** The same within somebody else's transaction. */
export async function mergeBookIn(
  db: Statements,
  machineId: string,
  book: readonly BookRow[],
): Promise<void> {
  for (const row of book) {
    await db.execute(
      'DELETE FROM code_book WHERE machine_id = ? AND system = ? AND code = ? AND mode = ? AND part = ?',
      [machineId, row.system, row.code, row.mode, row.part],
    );
    await db.execute(INSERT, valuesOf(machineId, row));
  }
}

const pastRow = z.object({
  code_key: z.string(),
  number: z.number(),
  title: z.string(),
  opened_at: z.date(),
  machine_code: z.string(),
  decision: z
    .preprocess((value) => (typeof value === 'string' ? (JSON.parse(value) as unknown) : value), z.unknown())
    .nullable(),
});
export type PastJobRow = z.infer<typeof pastRow>;

/** Jobs that named any of these codes, on this machine first, newest first; `decision` is the body of the latest one. */
export async function jobsWithCodes(
  keys: readonly string[],
  machineId: string,
  limit: number,
): Promise<PastJobRow[]> {
  if (keys.length === 0) return [];
  const [rows] = await pool().query<RowDataPacket[]>(
    `SELECT c.code_key, j.number, j.title, j.opened_at, m.code AS machine_code,
       (SELECT e.body FROM entries e WHERE e.job_id = j.id AND e.type = 'decision' ORDER BY e.number DESC LIMIT 1) AS decision
     FROM (SELECT DISTINCT job_id, code_key FROM job_codes WHERE code_key IN (?)) c
     JOIN jobs j ON j.id = c.job_id JOIN functions f ON f.id = j.function_id JOIN machines m ON m.id = f.machine_id
     ORDER BY (m.id = ?) DESC, j.opened_at DESC, j.number DESC LIMIT ?`,
    [[...keys], machineId, limit],
  );
  return rows.map((row) => pastRow.parse(row));
}
