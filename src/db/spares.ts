import type { RowDataPacket } from 'mysql2/promise';
import { v7 as uuidv7 } from 'uuid';
import { z } from 'zod';
import type { PartKind } from '@/core/kinds/part/module';
import {
  mayFollow,
  piecesToAsk,
  REQUISITION_STATES,
  type MoveWhy,
  type RequisitionState,
} from '@/core/shed/requisition';
import { spareRatings, type SpareRatings } from '@/core/shed/spares';
import { codeOf } from './databaseAway';
import { jsonColumn } from './jsonColumn';
import { pool, withTransaction, type Statements } from './pool';

const spareRow = z.object({
  id: z.string(),
  number: z.string(),
  name: z.string(),
  kind: z.custom<PartKind>((value) => typeof value === 'string'),
  ratings: jsonColumn(spareRatings),
  fitting: z.string(),
  place: z.string(),
  stock: z.coerce.number(),
  minimum: z.coerce.number(),
  price: z.coerce.number().nullable(),
  lead_days: z.coerce.number().nullable(),
  supplier: z.string(),
  on_the_way: z.coerce.number(),
});
export type SpareRow = z.infer<typeof spareRow>;

const OPEN = "('asked', 'approved', 'ordered')";
const COLUMNS = `s.id, s.number, s.name, s.kind, s.ratings, s.fitting, s.place, s.stock, s.minimum, s.price, s.lead_days, s.supplier,
  (SELECT COALESCE(SUM(r.pieces), 0) FROM requisitions r WHERE r.spare_id = s.id AND r.state IN ${OPEN}) AS on_the_way`;

export interface SpareFilter {
  text?: string;
  kind?: string;
  /** Only what lies under its minimum. */
  low?: boolean;
}

function whereOf({ text, kind, low }: SpareFilter): [string, unknown[]] {
  const terms: string[] = [];
  const values: unknown[] = [];
  if (text) {
    terms.push('(s.number LIKE ? OR s.name LIKE ? OR s.place LIKE ?)');
    const like = `%${text.replace(/[\\%_]/g, '\\$&')}%`;
    values.push(like, like, like);
  }
  if (kind) {
    terms.push('s.kind = ?');
    values.push(kind);
  }
  if (low) terms.push('s.stock < s.minimum');
  return [terms.length > 0 ? `WHERE ${terms.join(' AND ')}` : '', values];
}

/** Spares by their number, a page at a time. */
export async function listSpares(
  limit: number,
  filter: SpareFilter = {},
  after?: string,
): Promise<SpareRow[]> {
  const [where, values] = whereOf(filter);
  const from = after === undefined ? '' : `${where ? 'AND' : 'WHERE'} s.number > ?`;
  const [rows] = await pool().query<RowDataPacket[]>(
    `SELECT ${COLUMNS} FROM spares s ${where} ${from} ORDER BY s.number LIMIT ?`,
    [...values, ...(after === undefined ? [] : [after]), limit],
  );
  return rows.map((row) => spareRow.parse(row));
}

export async function countSpares(): Promise<{ all: number; low: number }> {
  const [[row]] = await pool().query<RowDataPacket[]>(
    'SELECT COUNT(*) AS n, SUM(stock < minimum) AS low FROM spares',
  );
  return { all: Number(row?.n ?? 0), low: Number(row?.low ?? 0) };
}

export async function findSpare(number: string): Promise<SpareRow | null> {
  const [rows] = await pool().query<RowDataPacket[]>(`SELECT ${COLUMNS} FROM spares s WHERE s.number = ?`, [
    number,
  ]);
  return rows[0] ? spareRow.parse(rows[0]) : null;
}

export interface SpareFacts {
  number: string;
  name: string;
  kind: PartKind;
  ratings: SpareRatings;
  fitting: string;
  place: string;
  minimum: number;
  price: number | null;
  leadDays: number | null;
  supplier: string;
}

/** A number that another spare has. */
export class SpareNumberTaken extends Error {
  readonly code = 'name-taken';
}

/** Puts a spare's card in the shed, or in place of the one with its id. Its stock is moved, never written here. */
export async function putSpare(id: string | null, facts: SpareFacts): Promise<string> {
  const { number, name, kind, ratings, fitting, place, minimum, price, leadDays, supplier } = facts;
  const values = [
    number,
    name,
    kind,
    JSON.stringify(ratings),
    fitting,
    place,
    minimum,
    price,
    leadDays,
    supplier,
  ];
  const made = id ?? uuidv7();
  try {
    if (id)
      await pool().execute(
        `UPDATE spares SET number = ?, name = ?, kind = ?, ratings = ?, fitting = ?, place = ?, minimum = ?, price = ?, lead_days = ?,
           supplier = ? WHERE id = ?`,
        [...values, id],
      );
    else
      await pool().execute(
        `INSERT INTO spares (number, name, kind, ratings, fitting, place, minimum, price, lead_days, supplier, id)
         VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
        [...values, made],
      );
  } catch (error) {
    if (codeOf(error) === 'ER_DUP_ENTRY')
      throw new SpareNumberTaken(
        `There is a spare ${number} already; change that one, or give this another number.`,
      );
    throw error;
  }
  return made;
}

export interface Move {
  spareId: string;
  pieces: number;
  why: MoveWhy;
  person: string;
  at: Date;
  jobId?: string;
  entryId?: string;
}

/** Moves pieces; where too few are left and on their way, more are asked for. Says whether it was not done before. */
export async function moveSpare(move: Move): Promise<boolean> {
  return withTransaction((db) => moveIn(db, move));
}

/** A fix that was taken back: its piece is on the shelf again, once. Nothing where it took none. */
export async function putBack(
  fixId: string,
  { entryId, person, at, jobId }: { entryId: string; person: string; at: Date; jobId: string },
): Promise<void> {
  const [[used]] = await pool().query<RowDataPacket[]>(
    "SELECT spare_id, pieces FROM spare_moves WHERE entry_id = ? AND why = 'used'",
    [fixId],
  );
  if (used)
    await moveSpare({
      spareId: String(used.spare_id),
      pieces: -Number(used.pieces),
      why: 'counted',
      person,
      at,
      jobId,
      entryId,
    });
}

async function moveIn(
  db: Statements,
  { spareId, pieces, why, person, at, jobId, entryId }: Move,
): Promise<boolean> {
  const [[spare]] = await db.query<RowDataPacket[]>(
    'SELECT stock, minimum FROM spares WHERE id = ? FOR UPDATE',
    [spareId],
  );
  if (!spare) return false;
  if (entryId) {
    const [known] = await db.query<RowDataPacket[]>('SELECT id FROM spare_moves WHERE entry_id = ?', [
      entryId,
    ]);
    if (known.length > 0) return false;
  }
  await db.execute(
    'INSERT INTO spare_moves (id, spare_id, job_id, entry_id, pieces, why, person, moved_at) VALUES (?, ?, ?, ?, ?, ?, ?, ?)',
    [uuidv7(), spareId, jobId ?? null, entryId ?? null, pieces, why, person, at],
  );
  await db.execute('UPDATE spares SET stock = stock + ? WHERE id = ?', [pieces, spareId]);
  if (pieces >= 0) return true;
  const [[way]] = await db.query<RowDataPacket[]>(
    `SELECT COALESCE(SUM(pieces), 0) AS n FROM requisitions WHERE spare_id = ? AND state IN ${OPEN}`,
    [spareId],
  );
  const ask = piecesToAsk({
    stock: Number(spare.stock) + pieces,
    minimum: Number(spare.minimum),
    onTheWay: Number(way?.n ?? 0),
  });
  if (ask > 0) await askIn(db, { spareId, pieces: ask, person, at, ...(jobId ? { jobId } : {}) });
  return true;
}

export interface Ask {
  spareId: string;
  pieces: number;
  person: string;
  at: Date;
  jobId?: string;
}

/** Asks for pieces of a spare. Gives the requisition's number. */
export async function askForSpare(ask: Ask): Promise<number> {
  return withTransaction((db) => askIn(db, ask));
}

async function askIn(db: Statements, { spareId, pieces, person, at, jobId }: Ask): Promise<number> {
  const [[last]] = await db.query<RowDataPacket[]>(
    'SELECT number FROM requisitions ORDER BY number DESC LIMIT 1 FOR UPDATE',
  );
  const number = Number(last?.number ?? 0) + 1;
  const id = uuidv7();
  await db.execute(
    "INSERT INTO requisitions (id, number, spare_id, job_id, pieces, state, asked_at) VALUES (?, ?, ?, ?, ?, 'asked', ?)",
    [id, number, spareId, jobId ?? null, pieces, at],
  );
  await stepIn(db, { id, state: 'asked', person, at, note: '' });
  return number;
}

interface Step {
  id: string;
  state: RequisitionState;
  person: string;
  at: Date;
  note: string;
}

async function stepIn(db: Statements, { id, state, person, at, note }: Step): Promise<void> {
  await db.execute(
    'INSERT INTO requisition_steps (id, requisition_id, state, person, note, taken_at) VALUES (?, ?, ?, ?, ?, ?)',
    [uuidv7(), id, state, person, note, at],
  );
}

/**
 * Takes a requisition a step on; what is received goes on the shelf. Null where that is no step from where it stands.
 * @param today the site's day, 2026-12-03: what is ordered is due so many days after it
 */
export async function stepRequisition(
  number: number,
  { state, person, at, note }: Omit<Step, 'id'>,
  today: string,
): Promise<RequisitionState | null> {
  return withTransaction(async (db) => {
    const [[row]] = await db.query<RowDataPacket[]>(
      'SELECT id, spare_id, pieces, state FROM requisitions WHERE number = ? FOR UPDATE',
      [number],
    );
    const now = z.enum(REQUISITION_STATES).safeParse(row?.state);
    if (!row || !now.success || !mayFollow(now.data, state)) return null;
    await db.execute(
      `UPDATE requisitions SET state = ?, due_on = ${
        state === 'ordered'
          ? 'DATE_ADD(?, INTERVAL (SELECT lead_days FROM spares WHERE id = requisitions.spare_id) DAY)'
          : 'due_on'
      } WHERE id = ?`,
      [state, ...(state === 'ordered' ? [today] : []), row.id],
    );
    await stepIn(db, { id: String(row.id), state, person, at, note });
    if (state === 'received')
      await moveIn(db, {
        spareId: String(row.spare_id),
        pieces: Number(row.pieces),
        why: 'received',
        person,
        at,
      });
    return state;
  });
}

const requisitionRow = z.object({
  number: z.coerce.number(),
  pieces: z.coerce.number(),
  state: z.enum(REQUISITION_STATES),
  due: z.string().nullable(),
  asked_at: z.date(),
  spare_number: z.string(),
  spare_name: z.string(),
  supplier: z.string(),
  price: z.coerce.number().nullable(),
  job: z.coerce.number().nullable(),
  machine: z.string().nullable(),
  person: z.string().nullable(),
});
export type RequisitionRow = z.infer<typeof requisitionRow>;

/** What was asked for, what is open first and the longest waiting first. */
export async function listRequisitions(limit: number, open: boolean): Promise<RequisitionRow[]> {
  const [rows] = await pool().query<RowDataPacket[]>(
    `SELECT r.number, r.pieces, r.state, DATE_FORMAT(r.due_on, '%Y-%m-%d') AS due, r.asked_at, s.number AS spare_number,
       s.name AS spare_name, s.supplier, s.price, j.number AS job, m.code AS machine,
       (SELECT t.person FROM requisition_steps t WHERE t.requisition_id = r.id ORDER BY t.taken_at DESC, t.id DESC LIMIT 1) AS person
     FROM requisitions r JOIN spares s ON s.id = r.spare_id LEFT JOIN jobs j ON j.id = r.job_id
     LEFT JOIN functions f ON f.id = j.function_id LEFT JOIN machines m ON m.id = f.machine_id
     WHERE r.state ${open ? 'IN' : 'NOT IN'} ${OPEN} ORDER BY r.asked_at ${open ? '' : 'DESC'}, r.id LIMIT ?`,
    [limit],
  );
  return rows.map((row) => requisitionRow.parse(row));
}

const moveRow = z.object({
  pieces: z.coerce.number(),
  why: z.string(),
  person: z.string(),
  moved_at: z.date(),
  job: z.coerce.number().nullable(),
});

/** Moves of a spare, the latest first. */
export async function movesOf(spareId: string, limit: number): Promise<z.infer<typeof moveRow>[]> {
  const [rows] = await pool().query<RowDataPacket[]>(
    `SELECT v.pieces, v.why, v.person, v.moved_at, j.number AS job FROM spare_moves v LEFT JOIN jobs j ON j.id = v.job_id
     WHERE v.spare_id = ? ORDER BY v.moved_at DESC, v.id DESC LIMIT ?`,
    [spareId, limit],
  );
  return rows.map((row) => moveRow.parse(row));
}
