import type { ResultSetHeader, RowDataPacket } from 'mysql2/promise';
import { z } from 'zod';
import { readingSchema, type Reading } from '@/core/circuit/schema';
import { codeKey } from '@/core/codes/codeBook';
import { entrySchema, type Entry } from '@/core/job/entries';
import { jsonColumn } from './jsonColumn';
import { pool, withTransaction } from './pool';

/** An entry with the order in which it reached the server. */
export interface StoredEntry {
  seq: number;
  entry: Entry;
}

/** An id that is already taken by an entry with another content. */
export class EntryConflict extends Error {
  readonly code = 'entry-conflict';
  constructor(readonly id: string) {
    super(`entry ${id} already exists with another content; give the new one an id of its own`);
  }
}

/** The log of a job from a position on, in order of arrival. */
export async function readEntries(jobId: string, afterSeq = 0): Promise<StoredEntry[]> {
  const [rows] = await pool().query<RowDataPacket[]>(
    'SELECT seq, id, type, person, written_at, supersedes, body FROM entries WHERE job_id = ? AND seq > ? ORDER BY seq',
    [jobId, afterSeq],
  );
  return rows.map((row) => ({ seq: Number(row.seq), entry: entryOf(row) }));
}

/** A reading that proved a line of the list when a job was closed: what this function reads when it is good. */
export interface StoredBaseline {
  reading: Reading;
  jobNumber: number;
  at: Date;
}

const MOST_ROWS = 600;
const provedReading = jsonColumn(z.object({ reading: readingSchema, check: z.string().optional() }));
const proofLine = jsonColumn(
  z.object({ proof: z.string(), done: z.boolean(), reason: z.string().optional() }),
);

/**
 * Readings that proved something in closed jobs of a function, the latest first; those of one job left out. One whose line
 * was found wrong or signed off with a reason proves nothing, whatever it read.
 */
export async function readBaselines(functionId: string, exceptJobId: string): Promise<StoredBaseline[]> {
  const [rows] = await pool().query<RowDataPacket[]>(
    `SELECT e.type, e.body, e.written_at, j.number FROM jobs j JOIN entries e ON e.job_id = j.id
     WHERE j.function_id = ? AND j.id <> ? AND j.closed_at IS NOT NULL
       AND (e.type = 'proof' OR (e.type = 'reading' AND JSON_VALUE(e.body, '$.phase') = 'fixed'))
       AND NOT EXISTS (SELECT 1 FROM entries s WHERE s.job_id = e.job_id AND s.supersedes = e.id)
     ORDER BY e.written_at DESC, e.seq DESC LIMIT ?`,
    [functionId, exceptJobId, MOST_ROWS],
  );
  const lineOf = (row: RowDataPacket, name: string) => `${row.number}|${name}`;
  const proved = new Map<string, boolean>();
  for (const row of rows) {
    if (row.type !== 'proof') continue;
    const { proof, done, reason } = proofLine.parse(row.body);
    const line = lineOf(row, proof);
    // The latest word on a line counts.
    if (!proved.has(line)) proved.set(line, done && !reason);
  }
  const taken = new Set<string>();
  return rows.flatMap((row): StoredBaseline[] => {
    if (row.type !== 'reading') return [];
    const { reading, check } = provedReading.parse(row.body);
    if (check === undefined) return [];
    const line = lineOf(row, check);
    if (taken.has(line) || !proved.get(line)) return [];
    taken.add(line);
    return [{ reading, jobNumber: Number(row.number), at: row.written_at as Date }];
  });
}

/** Adds entries. One that is there already changes nothing; one with the same id and another content is refused. */
export async function appendEntries(jobId: string, entries: readonly Entry[]): Promise<{ added: number }> {
  return withTransaction(async (db) => {
    let added = 0;
    for (const entry of entries) {
      const body = JSON.stringify(entry.body);
      const [result] = await db.execute<ResultSetHeader>(
        `INSERT IGNORE INTO entries (id, job_id, type, person, written_at, supersedes, body)
         VALUES (?, ?, ?, ?, ?, ?, ?)`,
        [entry.id, jobId, entry.type, entry.person, new Date(entry.at), entry.supersedes ?? null, body],
      );
      if (result.affectedRows === 1) {
        added++;
        if (entry.type === 'code') {
          // What later jobs look up: which jobs were about this code.
          await db.execute(
            `INSERT INTO job_codes (entry_id, job_id, machine_id, code_key)
             SELECT ?, j.id, f.machine_id, ? FROM jobs j JOIN functions f ON f.id = j.function_id WHERE j.id = ?`,
            [entry.id, codeKey(entry.body), jobId],
          );
        }
        if (entry.type === 'handOver') {
          await db.execute('UPDATE jobs SET closed_at = ? WHERE id = ?', [new Date(entry.at), jobId]);
        }
        if (entry.type === 'withdrawal') {
          await db.execute(
            `UPDATE jobs SET closed_at = NULL WHERE id = ?
             AND EXISTS (SELECT 1 FROM entries e WHERE e.id = ? AND e.type = 'handOver')`,
            [jobId, entry.supersedes],
          );
        }
        continue;
      }
      const [rows] = await db.query<RowDataPacket[]>(
        'SELECT job_id, seq, id, type, person, written_at, supersedes, body FROM entries WHERE id = ?',
        [entry.id],
      );
      const known = rows[0];
      if (!known || known.job_id !== jobId || canonical(entryOf(known)) !== canonical(entry)) {
        throw new EntryConflict(entry.id);
      }
    }
    return { added };
  });
}

function entryOf(row: RowDataPacket): Entry {
  return entrySchema.parse({
    id: row.id,
    type: row.type,
    person: row.person,
    at: (row.written_at as Date).toISOString(),
    ...(row.supersedes ? { supersedes: row.supersedes } : {}),
    body: typeof row.body === 'string' ? JSON.parse(row.body) : row.body,
  });
}

/** Text that is equal for equal entries, whatever order the database keeps object keys in. */
function canonical(entry: Entry): string {
  return JSON.stringify({ ...entry, at: new Date(entry.at).toISOString() }, (_key, value: unknown) =>
    value && typeof value === 'object' && !Array.isArray(value)
      ? Object.fromEntries(Object.entries(value).sort(([a], [b]) => (a < b ? -1 : 1)))
      : value,
  );
}
