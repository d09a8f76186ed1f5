import type { RowDataPacket } from 'mysql2/promise';
import { v7 as uuidv7 } from 'uuid';
import { z } from 'zod';
import { TRAIL_EVENTS, type TrailEvent } from '@/core/people/trail';
import { pool } from './pool';

/** One thing that somebody did, or tried, beside the logs of jobs. */
export interface TrailRow {
  what: TrailEvent;
  person: string;
  accountId: string | null;
  deviceId: string | null;
  address: string;
  requestId: string;
  about: string;
  at: Date;
}

export async function insertTrail(row: TrailRow): Promise<void> {
  await pool().execute(
    `INSERT INTO trail (id, what, person, account_id, device_id, address, request_id, about, at)
     VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)`,
    [
      uuidv7({ msecs: row.at.getTime() }),
      row.what,
      row.person,
      row.accountId,
      row.deviceId,
      row.address,
      row.requestId,
      row.about,
      row.at,
    ],
  );
}

const listed = z.object({
  id: z.string(),
  what: z.enum(TRAIL_EVENTS),
  person: z.string(),
  device: z.string().nullable(),
  address: z.string(),
  about: z.string(),
  at: z.date(),
});
export type ListedTrail = z.infer<typeof listed>;

/** What of somebody's own account was changed since, by themselves or by a lead: they are told of it. The first at the top. */
export async function listNotices(
  { accountId, name, what }: { accountId: string; name: string; what: readonly TrailEvent[] },
  since: Date,
): Promise<ListedTrail[]> {
  const [rows] = await pool().query<RowDataPacket[]>(
    `SELECT t.id, t.what, t.person, d.name AS device, t.address, t.about, t.at
     FROM trail t LEFT JOIN devices d ON d.id = t.device_id
     WHERE t.at > ? AND ((t.account_id = ? AND t.what IN (?)) OR (t.what = 'secretReset' AND t.about = ?))
     ORDER BY t.at, t.id LIMIT 20`,
    [since, accountId, what, name],
  );
  return rows.map((row) => listed.parse(row));
}

/** The latest first, from before one on where one is named; of one person where one is asked for. */
export async function listTrail(
  most: number,
  { before, person }: { before?: { at: Date; id: string } | undefined; person?: string | undefined } = {},
): Promise<ListedTrail[]> {
  const where: string[] = [];
  const values: unknown[] = [];
  if (before) {
    where.push('(t.at < ? OR (t.at = ? AND t.id < ?))');
    values.push(before.at, before.at, before.id);
  }
  if (person) {
    where.push('t.person = ?');
    values.push(person);
  }
  const [rows] = await pool().query<RowDataPacket[]>(
    `SELECT t.id, t.what, t.person, d.name AS device, t.address, t.about, t.at
     FROM trail t LEFT JOIN devices d ON d.id = t.device_id
     ${where.length > 0 ? `WHERE ${where.join(' AND ')}` : ''} ORDER BY t.at DESC, t.id DESC LIMIT ?`,
    [...values, most],
  );
  return rows.map((row) => listed.parse(row));
}
