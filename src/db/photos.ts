import type { RowDataPacket } from 'mysql2/promise';
import { pool, type Statements } from './pool';

export interface PhotoRow {
  hash: string;
  kind: string;
  width: number;
  height: number;
  bytes: Buffer;
}

/** Keeps a picture under its content; the same picture twice is one row. */
export async function putPhoto(photo: PhotoRow): Promise<void> {
  await putPhotoIn(pool(), photo);
}

/** The same within somebody else's transaction. */
export async function putPhotoIn(
  db: Pick<Statements, 'execute'>,
  { hash, kind, width, height, bytes }: PhotoRow,
): Promise<void> {
  await db.execute(
    'INSERT IGNORE INTO photos (hash, kind, width, height, bytes, kept_at) VALUES (?, ?, ?, ?, ?, ?)',
    [hash, kind, width, height, bytes, new Date()],
  );
}

export async function getPhoto(hash: string): Promise<Pick<PhotoRow, 'kind' | 'bytes'> | null> {
  const [rows] = await pool().query<RowDataPacket[]>('SELECT kind, bytes FROM photos WHERE hash = ?', [hash]);
  return rows[0] ? { kind: String(rows[0].kind), bytes: rows[0].bytes as Buffer } : null;
}
