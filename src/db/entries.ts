import stringify from 'fast-json-stable-stringify';
import type { ResultSetHeader, RowDataPacket } from 'mysql2/promise';
import { z } from 'zod';
import { readingSchema, type Reading } from '@/core/circuit/schema';
import { codeKey } from '@/core/codes/codeBook';
import { entrySchema, type Entry } from '@/core/job/entries';
import type { StorageRefusal } from '@/core/job/rules/storageRefusal';
import { upgradeEntry } from '@/core/job/upgradeEntry';
import { jsonColumn } from './jsonColumn';
import { overtakes } from '@/core/job/rules/overtakes';
import { settleRetest } from './retests';
import { pool, withTransaction, type Statements } from './pool';

/** An entry as the server keeps it. */
export interface StoredEntry {
  /** Its place in the job's log, from 1 on without a gap: the order in which entries reached the server. */
  number: number;
  entry: Entry;
  /** ISO time of its arrival, by the server's clock. */
  receivedAt: string;
  /** How far the writer's clock was ahead when it was sent, milliseconds; null where it was not said. */
  skewMs: number | null;
}

const COLUMNS = 'number, id, type, person, written_at, received_at, skew_ms, supersedes, body';

/** The log of a job after a number, in order of arrival. */
export async function readEntries(jobId: string, after = 0): Promise<StoredEntry[]> {
  return readLog(pool(), jobId, after);
}

async function readLog(db: Pick<Statements, 'query'>, jobId: string, after: number): Promise<StoredEntry[]> {
  const [rows] = await db.query<RowDataPacket[]>(
    `SELECT ${COLUMNS} FROM entries WHERE job_id = ? AND number > ? ORDER BY number`,
    [jobId, after],
  );
  return rows.map(storedOf);
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
    `SELECT e.type, e.body, e.received_at, j.number FROM jobs j JOIN entries e ON e.job_id = j.id
     WHERE j.function_id = ? AND j.id <> ? AND j.closed_at IS NOT NULL
       AND (e.type = 'proof' OR (e.type = 'reading' AND JSON_VALUE(e.body, '$.phase') = 'fixed'))
       AND NOT EXISTS (SELECT 1 FROM entries s WHERE s.job_id = e.job_id AND s.supersedes = e.id)
     ORDER BY j.closed_at DESC, e.number DESC LIMIT ?`,
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
    return [{ reading, jobNumber: Number(row.number), at: row.received_at as Date }];
  });
}

/** What became of one entry. */
export type Appended<R> =
  | { id: string; state: 'added' | 'known'; number: number }
  | { id: string; state: 'refused'; refusal: R | StorageRefusal };

/** Who was signed in as an entry came, on which device, and whose word stands beside it. */
export interface Provenance {
  accountId: string;
  deviceId: string;
  witnessId: string | null;
}

export interface AppendOptions<R> {
  receivedAt?: Date;
  /** Of each entry, where somebody was signed in. */
  from?: (entry: Entry) => Provenance | null;
  skewMs?: number | null;
  /** Says why an entry may not be added as the job stands, or null. The log is read only when it is asked for. */
  judge?: (entry: Entry, log: () => Promise<readonly StoredEntry[]>) => Promise<R | null>;
  /** A beginning of the log that is at hand; only what follows it is read. */
  known?: readonly StoredEntry[];
}

/** Errors of a value that does not fit its column: the entry's own fault, whatever else is in the batch. */
const VALUE_ERRORS = new Set([
  'ER_TRUNCATED_WRONG_VALUE_FOR_FIELD',
  'ER_DATA_TOO_LONG',
  'ER_TRUNCATED_WRONG_VALUE',
  'ER_CONSTRAINT_FAILED',
  'ER_WARN_DATA_OUT_OF_RANGE',
]);

/**
 * Adds entries to a job's log, each judged by itself: one that is refused holds no other back. One that is there already
 * changes nothing. Numbers are given under the job's row lock, so that they follow one another in the order of commits.
 */
export async function appendEntries<R = never>(
  jobId: string,
  entries: readonly Entry[],
  {
    receivedAt = new Date(),
    skewMs = null,
    judge,
    known: begun = [],
    from = () => null,
  }: AppendOptions<R> = {},
): Promise<Appended<R>[]> {
  if (entries.length === 0) return [];
  return withTransaction(async (db) => {
    const [jobs] = await db.query<RowDataPacket[]>(
      'SELECT last_number, closed_at FROM jobs WHERE id = ? FOR UPDATE',
      [jobId],
    );
    if (!jobs[0]) throw new Error(`there is no job ${jobId}`);
    const first = Number(jobs[0].last_number);
    let last = first;
    const [rows] = await db.query<RowDataPacket[]>(`SELECT job_id, ${COLUMNS} FROM entries WHERE id IN (?)`, [
      entries.map(({ id }) => id),
    ]);
    const known = new Map(
      rows.map((row) => [row.id as string, { jobId: row.job_id as string, ...storedOf(row) }]),
    );
    let log: StoredEntry[] | null = null;
    const added: StoredEntry[] = [];
    const readAll = async () => {
      log ??= [...begun, ...(await readLog(db, jobId, begun.at(-1)?.number ?? 0))];
      return [...log.filter(({ number }) => number <= first), ...added];
    };
    const results: Appended<R>[] = [];
    for (const sent of entries) {
      const { against: _against, witness: _witness, ...entry } = sent;
      const { id } = entry;
      const there = known.get(id);
      if (there) {
        const same = there.jobId === jobId && stringify(plain(there.entry)) === stringify(plain(entry));
        results.push(
          same
            ? { id, state: 'known', number: there.number }
            : { id, state: 'refused', refusal: { code: 'conflict', id } },
        );
        continue;
      }
      const refusal = judge ? await judge(sent, readAll) : null;
      if (refusal !== null) {
        results.push({ id, state: 'refused', refusal });
        continue;
      }
      const number = last + 1;
      try {
        await insertEntry(
          db,
          jobId,
          { number, entry, receivedAt: receivedAt.toISOString(), skewMs },
          from(sent),
        );
      } catch (error) {
        if (!VALUE_ERRORS.has(codeOf(error))) throw error;
        results.push({ id, state: 'refused', refusal: { code: 'storage' } });
        continue;
      }
      last = number;
      const stored = { number, entry, receivedAt: receivedAt.toISOString(), skewMs };
      added.push(stored);
      known.set(id, { jobId, ...stored });
      results.push({ id, state: 'added', number });
    }
    if (last > first) await db.execute('UPDATE jobs SET last_number = ? WHERE id = ?', [last, jobId]);
    if (takenBack(jobs[0].closed_at !== null, added)) {
      await db.execute('UPDATE jobs SET closed_at = NULL, retest_on = NULL WHERE id = ?', [jobId]);
      await settleRetest(db, jobId);
    }
    return results;
  });
}

async function insertEntry(
  db: Statements,
  jobId: string,
  { number, entry, receivedAt, skewMs }: StoredEntry,
  from: Provenance | null,
): Promise<void> {
  await db.execute<ResultSetHeader>(
    `INSERT INTO entries (id, job_id, number, type, person, written_at, received_at, skew_ms, supersedes, body,
       account_id, device_id, witness_id) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
    [
      entry.id,
      jobId,
      number,
      entry.type,
      entry.person,
      new Date(entry.at),
      new Date(receivedAt),
      skewMs,
      entry.supersedes ?? null,
      JSON.stringify(entry.body),
      from?.accountId ?? null,
      from?.deviceId ?? null,
      from?.witnessId ?? null,
    ],
  );
  if (entry.type === 'code') {
    // What later jobs look up: which jobs were about this code.
    await db.execute(
      `INSERT INTO job_codes (entry_id, job_id, machine_id, code_key)
       SELECT ?, j.id, f.machine_id, ? FROM jobs j JOIN functions f ON f.id = j.function_id WHERE j.id = ?`,
      [entry.id, codeKey(entry.body), jobId],
    );
  }
  if (entry.type === 'handOver') {
    await db.execute('UPDATE jobs SET closed_at = ?, retest_on = ? WHERE id = ?', [
      new Date(receivedAt),
      entry.body.retest,
      jobId,
    ]);
    await settleRetest(db, jobId);
  }
}

/** Whether a job is in hand again after these entries, closed as it was before them or by one of them. */
function takenBack(wasClosed: boolean, added: readonly StoredEntry[]): boolean {
  const closing = added.findLastIndex(({ entry }) => entry.type === 'handOver');
  if (closing < 0 && !wasClosed) return false;
  return added.slice(closing + 1).some(({ entry }) => overtakes(entry));
}

function storedOf(row: RowDataPacket): StoredEntry {
  return {
    number: Number(row.number),
    entry: entryOf(row),
    receivedAt: (row.received_at as Date).toISOString(),
    skewMs: row.skew_ms === null ? null : Number(row.skew_ms),
  };
}

function entryOf(row: RowDataPacket): Entry {
  return entrySchema.parse(
    upgradeEntry({
      id: row.id,
      type: row.type,
      person: row.person,
      at: (row.written_at as Date).toISOString(),
      ...(row.supersedes ? { supersedes: row.supersedes } : {}),
      body: typeof row.body === 'string' ? JSON.parse(row.body) : row.body,
    }),
  );
}

/** An entry as it is compared: by what it says, with its time in one notation. */
function plain(entry: Entry): object {
  return { ...entry, at: new Date(entry.at).toISOString() };
}

function codeOf(error: unknown): string {
  return error instanceof Error && 'code' in error ? String(error.code) : '';
}
