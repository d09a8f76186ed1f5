import type { ResultSetHeader, RowDataPacket } from 'mysql2/promise';
import { pool } from './pool';

export interface StoredSetting {
  value: unknown;
  person: string;
  keptAt: Date;
}

export async function getSetting(name: string): Promise<StoredSetting | null> {
  const [rows] = await pool().query<RowDataPacket[]>(
    'SELECT value, person, kept_at FROM settings WHERE name = ?',
    [name],
  );
  const row = rows[0];
  if (!row) return null;
  const value: unknown = typeof row.value === 'string' ? JSON.parse(row.value) : row.value;
  return { value, person: String(row.person), keptAt: row.kept_at as Date };
}

export async function putSetting(name: string, value: unknown, person: string): Promise<void> {
  await pool().execute(
    `INSERT INTO settings (name, value, person, kept_at) VALUES (?, ?, ?, ?)
     ON DUPLICATE KEY UPDATE value = VALUES(value), person = VALUES(person), kept_at = VALUES(kept_at)`,
    [name, JSON.stringify(value), person, new Date()],
  );
}

/** Keeps a value where nobody kept another since; says whether it was kept. `since` is when the one was kept that was seen, null where there was none. */
export async function putSettingSince(
  name: string,
  value: unknown,
  person: string,
  since: Date | null,
): Promise<boolean> {
  const kept = [JSON.stringify(value), person, new Date()] as const;
  if (since === null) {
    const [added] = await pool().execute<ResultSetHeader>(
      'INSERT IGNORE INTO settings (name, value, person, kept_at) VALUES (?, ?, ?, ?)',
      [name, ...kept],
    );
    return added.affectedRows === 1;
  }
  const [changed] = await pool().execute<ResultSetHeader>(
    'UPDATE settings SET value = ?, person = ?, kept_at = ? WHERE name = ? AND kept_at = ?',
    [...kept, name, since],
  );
  return changed.affectedRows === 1;
}
