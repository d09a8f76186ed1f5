import type { RowDataPacket } from 'mysql2/promise';
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
