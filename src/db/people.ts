import type { ResultSetHeader, RowDataPacket } from 'mysql2/promise';
import { v7 as uuidv7 } from 'uuid';
import { z } from 'zod';
import { LICENCES, ROLES, type Licence, type Role } from '@/core/people/roles';
import { jsonColumn } from './jsonColumn';
import { codeOf } from './databaseAway';
import { pool, withTransaction } from './pool';

const flag = z.coerce.number().transform((value) => value === 1);
const accountRow = z.object({
  id: z.string(),
  name: z.string(),
  role: z.enum(ROLES),
  licences: jsonColumn(z.array(z.enum(LICENCES))),
  pin_hash: z.string().nullable(),
  password_hash: z.string().nullable(),
  one_time: flag,
  one_time_until: z.date().nullable(),
  made_at: z.date(),
  closed_at: z.date().nullable(),
  /** Sealed; there while a code beside the password is made ready or asked for. */
  code_secret: z.string().nullable(),
  code_since: z.date().nullable(),
});
export type AccountRow = z.infer<typeof accountRow>;

const ACCOUNT =
  'a.id, a.name, a.role, a.licences, a.pin_hash, a.password_hash, a.one_time, a.one_time_until, a.made_at, a.closed_at, a.code_secret, a.code_since';

/** Everybody, by name; those whose account is closed at the end. */
export async function listAccounts(): Promise<AccountRow[]> {
  const [rows] = await pool().query<RowDataPacket[]>(
    `SELECT ${ACCOUNT} FROM accounts a ORDER BY a.closed_at IS NOT NULL, a.name`,
  );
  return rows.map((row) => accountRow.parse(row));
}

/** An account by its name, whatever its capitals; also a closed one. */
export async function findAccount(name: string): Promise<AccountRow | null> {
  const [rows] = await pool().query<RowDataPacket[]>(`SELECT ${ACCOUNT} FROM accounts a WHERE a.name = ?`, [
    name,
  ]);
  return rows[0] ? accountRow.parse(rows[0]) : null;
}

export interface NewAccount {
  name: string;
  role: Role;
  licences: readonly Licence[];
  pinHash?: string | null;
  passwordHash?: string | null;
  oneTimeUntil?: Date | null;
  at: Date;
}

/** Makes an account; null where the name is taken, also by somebody who has left. */
export async function insertAccount(fresh: NewAccount): Promise<string | null> {
  const { name, role, licences, pinHash = null, passwordHash = null, oneTimeUntil = null, at } = fresh;
  const id = uuidv7();
  try {
    await pool().execute(
      `INSERT INTO accounts (id, name, role, licences, pin_hash, password_hash, one_time, one_time_until, made_at)
       VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)`,
      [
        id,
        name,
        role,
        JSON.stringify(licences),
        pinHash,
        passwordHash,
        oneTimeUntil === null ? 0 : 1,
        oneTimeUntil,
        at,
      ],
    );
  } catch (error) {
    if (codeOf(error) === 'ER_DUP_ENTRY') return null;
    throw error;
  }
  return id;
}

/**
 * Changes what somebody is or closes the account, and ends their sessions. One lead always stays: false where this would
 * take the last one away.
 */
export async function changeAccount(
  id: string,
  change: { role: Role; licences: readonly Licence[]; closedAt: Date | null },
  at: Date,
): Promise<boolean> {
  return withTransaction(async (db) => {
    // All rows in one order: two leads that take each other's place at the same time wait for one another.
    const [leads] = await db.query<RowDataPacket[]>(
      "SELECT id FROM accounts WHERE role = 'lead' AND closed_at IS NULL ORDER BY id FOR UPDATE",
    );
    const staysLead = change.role === 'lead' && change.closedAt === null;
    if (!staysLead && leads.every((row) => row.id === id)) return false;
    await db.execute('UPDATE accounts SET role = ?, licences = ?, closed_at = ? WHERE id = ?', [
      change.role,
      JSON.stringify(change.licences),
      change.closedAt,
      id,
    ]);
    await db.execute('UPDATE sessions SET ended_at = ? WHERE account_id = ? AND ended_at IS NULL', [at, id]);
    return true;
  });
}

const NO_CODE = 'code_secret = NULL, code_since = NULL, code_step = NULL, code_words = NULL';

/** Gives somebody a new PIN or password, and ends their sessions but the one named. */
export async function putSecret(
  id: string,
  secret: { pinHash: string } | { passwordHash: string; oneTimeUntil: Date | null },
  { at, exceptKey = '' }: { at: Date; exceptKey?: string },
): Promise<void> {
  await withTransaction(async (db) => {
    if ('pinHash' in secret)
      await db.execute('UPDATE accounts SET pin_hash = ? WHERE id = ?', [secret.pinHash, id]);
    else
      await db.execute(
        `UPDATE accounts SET password_hash = ?, one_time = ?, one_time_until = ?
         ${secret.oneTimeUntil === null ? '' : `, pin_hash = NULL, ${NO_CODE}`} WHERE id = ?`,
        [secret.passwordHash, secret.oneTimeUntil === null ? 0 : 1, secret.oneTimeUntil, id],
      );
    await db.execute(
      'UPDATE sessions SET ended_at = ? WHERE account_id = ? AND key_hash <> ? AND ended_at IS NULL',
      [at, id, exceptKey],
    );
  });
}

/** Keeps the sealed secret of a code that nobody has typed yet; false where one stands already. */
export async function putCode(id: string, sealed: string): Promise<boolean> {
  const [done] = await pool().execute<ResultSetHeader>(
    'UPDATE accounts SET code_secret = ? WHERE id = ? AND code_since IS NULL',
    [sealed, id],
  );
  return done.affectedRows === 1;
}

/** The first code was typed: one is asked for from now on. This session counts as begun with it, the others end. */
export async function confirmCode(
  id: string,
  { at, step, words, exceptKey }: { at: Date; step: number; words: readonly string[]; exceptKey: string },
): Promise<boolean> {
  return withTransaction(async (db) => {
    const [done] = await db.execute<ResultSetHeader>(
      `UPDATE accounts SET code_since = ?, code_step = ?, code_words = ?
       WHERE id = ? AND code_since IS NULL AND code_secret IS NOT NULL`,
      [at, step, JSON.stringify(words), id],
    );
    if (done.affectedRows !== 1) return false;
    await db.execute('UPDATE sessions SET twice = 1 WHERE key_hash = ?', [exceptKey]);
    await db.execute(
      'UPDATE sessions SET ended_at = ? WHERE account_id = ? AND key_hash <> ? AND ended_at IS NULL',
      [at, id, exceptKey],
    );
    return true;
  });
}

/** Uses up the interval of a code: false where it, or a later one, was used before. */
export async function spendCodeStep(id: string, step: number): Promise<boolean> {
  const [done] = await pool().execute<ResultSetHeader>(
    'UPDATE accounts SET code_step = ? WHERE id = ? AND code_since IS NOT NULL AND code_step < ?',
    [step, id, step],
  );
  return done.affectedRows === 1;
}

const wordHashes = jsonColumn(z.array(z.string()));

/** Uses up a spare word, by its hash: false where it is none of those that are left. */
export async function spendCodeWord(id: string, hash: string): Promise<boolean> {
  return withTransaction(async (db) => {
    const [rows] = await db.query<RowDataPacket[]>(
      'SELECT code_words FROM accounts WHERE id = ? AND code_since IS NOT NULL FOR UPDATE',
      [id],
    );
    const left = rows[0] ? wordHashes.parse(rows[0].code_words) : [];
    if (!left.includes(hash)) return false;
    await db.execute('UPDATE accounts SET code_words = ? WHERE id = ?', [
      JSON.stringify(left.filter((one) => one !== hash)),
      id,
    ]);
    return true;
  });
}

/** No code is asked for any more; sessions but the one named end, and that one is none with a code. */
export async function dropCode(
  id: string,
  { at, exceptKey }: { at: Date; exceptKey: string },
): Promise<void> {
  await withTransaction(async (db) => {
    await db.execute(`UPDATE accounts SET ${NO_CODE} WHERE id = ?`, [id]);
    await db.execute('UPDATE sessions SET twice = 0 WHERE key_hash = ?', [exceptKey]);
    await db.execute(
      'UPDATE sessions SET ended_at = ? WHERE account_id = ? AND key_hash <> ? AND ended_at IS NULL',
      [at, id, exceptKey],
    );
  });
}

/** When somebody's last session was begun; null for their first. */
export async function lastBegun(accountId: string): Promise<Date | null> {
  const [rows] = await pool().query<RowDataPacket[]>(
    'SELECT MAX(begun_at) AS at FROM sessions WHERE account_id = ?',
    [accountId],
  );
  return (rows[0]?.at as Date | null) ?? null;
}

const deviceRow = z.object({ id: z.string(), name: z.string(), trusted: flag });
export type DeviceRow = z.infer<typeof deviceRow>;

export async function findDevice(keyHash: string): Promise<DeviceRow | null> {
  const [rows] = await pool().query<RowDataPacket[]>(
    'SELECT id, name, trusted FROM devices WHERE key_hash = ?',
    [keyHash],
  );
  return rows[0] ? deviceRow.parse(rows[0]) : null;
}

export async function insertDevice(keyHash: string, at: Date): Promise<DeviceRow> {
  const id = uuidv7();
  await pool().execute('INSERT INTO devices (id, key_hash, seen_at) VALUES (?, ?, ?)', [id, keyHash, at]);
  return { id, name: '', trusted: false };
}

/** Calls a device by a name, and lets a PIN count on it or not. */
export async function putDevice(id: string, { name, trusted }: Omit<DeviceRow, 'id'>): Promise<void> {
  await pool().execute('UPDATE devices SET name = ?, trusted = ? WHERE id = ?', [name, trusted ? 1 : 0, id]);
}

/** A session with the account and the device that it is of. */
export interface SessionRow {
  account: AccountRow;
  device: DeviceRow;
  begunAt: Date;
  seenAt: Date;
  endedAt: Date | null;
  /** Begun with password and code. */
  twice: boolean;
}

export async function findSession(keyHash: string): Promise<SessionRow | null> {
  const [rows] = await pool().query<RowDataPacket[]>(
    `SELECT ${ACCOUNT}, d.id AS device_id, d.name AS device_name, d.trusted, s.begun_at, s.seen_at, s.ended_at, s.twice
     FROM sessions s JOIN accounts a ON a.id = s.account_id JOIN devices d ON d.id = s.device_id
     WHERE s.key_hash = ?`,
    [keyHash],
  );
  const row = rows[0];
  if (!row) return null;
  return {
    account: accountRow.parse(row),
    device: deviceRow.parse({ id: row.device_id, name: row.device_name, trusted: row.trusted }),
    begunAt: row.begun_at as Date,
    seenAt: row.seen_at as Date,
    endedAt: row.ended_at as Date | null,
    twice: flag.parse(row.twice),
  };
}

/** Begins a session. Whoever was signed in on the device before is signed out: one device, one person. */
export async function beginSession(
  keyHash: string,
  accountId: string,
  deviceId: string,
  at: Date,
  twice: boolean,
): Promise<void> {
  await withTransaction(async (db) => {
    await db.execute('UPDATE sessions SET ended_at = ? WHERE device_id = ? AND ended_at IS NULL', [
      at,
      deviceId,
    ]);
    await db.execute(
      'INSERT INTO sessions (key_hash, account_id, device_id, begun_at, seen_at, twice) VALUES (?, ?, ?, ?, ?, ?)',
      [keyHash, accountId, deviceId, at, at, twice ? 1 : 0],
    );
    await db.execute('UPDATE devices SET seen_at = ? WHERE id = ?', [at, deviceId]);
  });
}

export async function touchSession(keyHash: string, at: Date): Promise<void> {
  await pool().execute('UPDATE sessions SET seen_at = ? WHERE key_hash = ? AND seen_at < ?', [
    at,
    keyHash,
    at,
  ]);
}

export async function endSession(keyHash: string, at: Date): Promise<void> {
  await pool().execute('UPDATE sessions SET ended_at = ? WHERE key_hash = ? AND ended_at IS NULL', [
    at,
    keyHash,
  ]);
}

/** Sessions that have ended long ago say nothing any more. */
export async function dropOldSessions(before: Date): Promise<void> {
  await pool().execute('DELETE FROM sessions WHERE begun_at < ?', [before]);
}

/** Keeps that a second person gave their PIN for something that the writer writes now; gives what it is asked for by. */
export async function insertWitness(accountId: string, writerId: string, at: Date): Promise<string> {
  const id = uuidv7();
  await pool().execute('INSERT INTO witnesses (id, account_id, writer_id, made_at) VALUES (?, ?, ?, ?)', [
    id,
    accountId,
    writerId,
    at,
  ]);
  return id;
}

export interface WitnessRow {
  account: AccountRow;
  writerId: string;
  madeAt: Date;
  /** The entry that it went into. */
  entryId: string | null;
}

export async function findWitness(id: string): Promise<WitnessRow | null> {
  const [rows] = await pool().query<RowDataPacket[]>(
    `SELECT ${ACCOUNT}, w.writer_id, w.made_at AS given_at, w.entry_id
     FROM witnesses w JOIN accounts a ON a.id = w.account_id WHERE w.id = ?`,
    [id],
  );
  const row = rows[0];
  if (!row) return null;
  return {
    account: accountRow.parse(row),
    writerId: String(row.writer_id),
    madeAt: row.given_at as Date,
    entryId: row.entry_id === null ? null : String(row.entry_id),
  };
}

/** Uses a second person's word for one entry: true the first time, and for the same entry sent again. */
export async function spendWitness(id: string, entryId: string): Promise<boolean> {
  await pool().execute('UPDATE witnesses SET entry_id = ? WHERE id = ? AND entry_id IS NULL', [entryId, id]);
  const [rows] = await pool().query<RowDataPacket[]>('SELECT entry_id FROM witnesses WHERE id = ?', [id]);
  return rows[0]?.entry_id === entryId;
}

/** A key for somebody's calendar; the one before it is good no longer. */
export async function putFeedKey(accountId: string, keyHash: string, at: Date): Promise<void> {
  await pool().execute(
    `INSERT INTO feed_keys (account_id, key_hash, made_at) VALUES (?, ?, ?)
     ON DUPLICATE KEY UPDATE key_hash = VALUES(key_hash), made_at = VALUES(made_at)`,
    [accountId, keyHash, at],
  );
}

export async function accountOfFeed(keyHash: string): Promise<AccountRow | null> {
  const [rows] = await pool().query<RowDataPacket[]>(
    `SELECT ${ACCOUNT} FROM feed_keys f JOIN accounts a ON a.id = f.account_id WHERE f.key_hash = ?`,
    [keyHash],
  );
  return rows[0] ? accountRow.parse(rows[0]) : null;
}
