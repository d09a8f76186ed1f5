import type { ResultSetHeader, RowDataPacket } from 'mysql2/promise';
import { z } from 'zod';
import { testSchema } from '@/core/circuit/schema';
import { MEASURE_KINDS, type PastWinding } from '@/core/job/provedMeasures';
import { WEATHERS } from '@/core/job/weather';
import type { PlaceMeasure, Repair } from '@/core/shed/functionTrends';
import type { JobLeft } from '@/core/shed/outcome';
import { jsonColumn } from './jsonColumn';
import { pool, type Statements } from './pool';

/** Letters of a place that its column holds. */
const LONGEST_PLACE = 1000;

/** Puts what a job proved in place of what it had proved before. Says whether the shed's past is another one now. */
export async function putPast(
  db: Statements,
  jobId: string,
  { measures: all, outcome, type, place }: JobLeft,
): Promise<boolean> {
  // A set-up with dozens of wires off is read once and never again.
  const measures = all.filter((one) => one.place.length <= LONGEST_PLACE);
  const [[job]] = await db.query<RowDataPacket[]>('SELECT function_id, closed_at FROM jobs WHERE id = ?', [
    jobId,
  ]);
  const [measured] = await db.execute<ResultSetHeader>('DELETE FROM proved_measures WHERE job_id = ?', [
    jobId,
  ]);
  const [ended] = await db.execute<ResultSetHeader>('DELETE FROM outcomes WHERE job_id = ?', [jobId]);
  const hadSome = measured.affectedRows + ended.affectedRows > 0;
  if (!job?.closed_at) return hadSome;
  if (measures.length > 0) {
    const row = '(?, MD5(?), MD5(?), ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)';
    await db.query(
      `INSERT INTO proved_measures (job_id, place_key, type_key, function_id, kind, place, type, part, value, sigma, corrected, is_over,
         read_at, test) VALUES ${measures.map(() => row).join(', ')}`,
      measures.flatMap((one) => [
        jobId,
        one.place,
        one.type,
        job.function_id,
        one.kind,
        one.place,
        one.kind === 'winding' ? one.type : null,
        one.part,
        one.value,
        one.sigma,
        one.corrected,
        one.over,
        new Date(one.at),
        one.test ? JSON.stringify(one.test) : null,
      ]),
    );
  }
  if (outcome)
    await db.execute(
      `INSERT INTO outcomes (job_id, function_id, type_key, part, fault, named, place, weather, doubt, minutes, closed_at)
       VALUES (?, ?, MD5(?), ?, ?, ?, ?, ?, ?, ?, ?)`,
      [
        jobId,
        job.function_id,
        type,
        outcome.part,
        outcome.fault,
        outcome.named,
        place,
        outcome.weather,
        JSON.stringify(outcome.doubt),
        outcome.minutes,
        job.closed_at,
      ],
    );
  return hadSome || measures.length > 0 || outcome !== null;
}

/** Dots of one type that are enough of a picture. */
const MOST_WINDINGS = 240;

const windingRow = z.object({
  part: z.string(),
  type: z.string(),
  value: z.coerce.number(),
  corrected: z.coerce.boolean(),
  function_id: z.string(),
  machine: z.string(),
  number: z.coerce.number(),
  closed_at: z.date(),
});

/** What windings of these types read in jobs that were handed over, the latest first; those of one job left out. */
export async function readWindings(
  types: readonly string[],
  functionId: string,
  exceptJobId: string,
): Promise<PastWinding[]> {
  if (types.length === 0) return [];
  const [rows] = await pool().query<RowDataPacket[]>(
    `SELECT w.part, w.type, w.value, w.corrected, w.function_id, m.code AS machine, j.number, j.closed_at
     FROM proved_measures w JOIN jobs j ON j.id = w.job_id
     JOIN functions f ON f.id = j.function_id JOIN machines m ON m.id = f.machine_id
     WHERE w.type_key IN (${types.map(() => 'MD5(?)').join(', ')}) AND w.kind = 'winding'
       AND w.job_id <> ? AND j.closed_at IS NOT NULL
     ORDER BY (j.function_id = ?) DESC, j.closed_at DESC LIMIT ?`,
    [...types, exceptJobId, functionId, MOST_WINDINGS],
  );
  return rows.map((row) => {
    const { part, type, value, corrected, function_id, machine, number, closed_at } = windingRow.parse(row);
    return {
      part,
      type,
      ohms: value,
      atReference: corrected,
      own: function_id === functionId,
      machine,
      jobNumber: number,
      at: closed_at.toISOString(),
    };
  });
}

const measureRow = z.object({
  kind: z.enum(MEASURE_KINDS),
  place: z.string(),
  part: z.string().nullable(),
  value: z.coerce.number(),
  sigma: z.coerce.number(),
  corrected: z.coerce.boolean(),
  is_over: z.coerce.boolean(),
  read_at: z.date(),
  test: jsonColumn(testSchema.nullable()),
  number: z.coerce.number(),
});

/** More readings of one function than that are of years that nobody draws. */
const MOST_MEASURES = 6000;

/** What a function's jobs left proved, the latest first. */
export async function measuresOf(functionId: string): Promise<PlaceMeasure[]> {
  const [rows] = await pool().query<RowDataPacket[]>(
    `SELECT w.kind, w.place, w.part, w.value, w.sigma, w.corrected, w.is_over, w.read_at, w.test, j.number
     FROM proved_measures w JOIN jobs j ON j.id = w.job_id
     WHERE w.function_id = ? ORDER BY w.read_at DESC LIMIT ?`,
    [functionId, MOST_MEASURES],
  );
  return rows.map((row) => {
    const { is_over, read_at, number, ...rest } = measureRow.parse(row);
    return { ...rest, over: is_over, at: read_at.toISOString(), job: number };
  });
}

/** Functions of which something was proved. */
export async function functionsWithPast(): Promise<string[]> {
  const [rows] = await pool().query<RowDataPacket[]>('SELECT DISTINCT function_id FROM proved_measures');
  return rows.map((row) => String(row.function_id));
}

/**
 * Parts of a function that were mended or changed in jobs that were handed over, and when, by the clock that its readings are by: what was
 * read behind it in the same job is the new part's.
 */
export async function repairsOf(functionId: string): Promise<Repair[]> {
  const [rows] = await pool().query<RowDataPacket[]>(
    `SELECT JSON_VALUE(e.body, '$.part') AS part, e.written_at FROM jobs j
     JOIN entries e ON e.job_id = j.id AND e.type = 'fix'
     WHERE j.function_id = ? AND j.closed_at IS NOT NULL
       AND NOT EXISTS (SELECT 1 FROM entries later WHERE later.job_id = e.job_id AND later.supersedes = e.id)
     ORDER BY e.written_at`,
    [functionId],
  );
  return rows.map((row) => ({ part: String(row.part), at: (row.written_at as Date).toISOString() }));
}

const outcomeRow = z.object({
  number: z.coerce.number(),
  title: z.string(),
  function_id: z.string(),
  function_name: z.string(),
  machine_code: z.string(),
  equipment: z.string().nullable(),
  type_key: z.string(),
  part: z.string(),
  fault: z.string().nullable(),
  named: z.string().nullable(),
  place: z.string(),
  weather: z.enum(WEATHERS).nullable(),
  machine_hours: z.coerce.number().nullable(),
  doubt: jsonColumn(z.array(z.array(z.tuple([z.string(), z.number()])))),
  minutes: z.coerce.number(),
  closed_at: z.date(),
  /** Somebody had to come back to the same function within thirty days: what was done is not known to have been it. */
  came_back: z.coerce.boolean(),
});
export type OutcomeRow = z.infer<typeof outcomeRow>;

/** So many days without another job say that it held. */
export const COMEBACK_DAYS = 30;

/** How jobs ended, the latest first: of the whole shed, or of one type of function. */
export async function listOutcomes(most: number, typeKey?: string): Promise<OutcomeRow[]> {
  const [rows] = await pool().query<RowDataPacket[]>(
    `SELECT j.number, j.title, o.function_id, f.name AS function_name, m.code AS machine_code, m.equipment, o.type_key, o.part, o.fault,
       o.named, o.place, o.weather, j.machine_hours, o.doubt, o.minutes, o.closed_at,
       EXISTS (SELECT 1 FROM jobs again WHERE again.function_id = o.function_id AND again.opened_at > o.closed_at
         AND again.opened_at < o.closed_at + INTERVAL ${COMEBACK_DAYS} DAY
         AND NOT EXISTS (SELECT 1 FROM entries looked WHERE looked.job_id = again.id AND looked.type = 'retest')) AS came_back
     FROM outcomes o JOIN jobs j ON j.id = o.job_id JOIN functions f ON f.id = o.function_id
     JOIN machines m ON m.id = f.machine_id
     ${typeKey ? 'WHERE o.type_key = ?' : ''} ORDER BY o.closed_at DESC, o.job_id DESC LIMIT ?`,
    [...(typeKey ? [typeKey] : []), most],
  );
  return rows.map((row) => outcomeRow.parse(row));
}

/** Jobs that were handed over and have not been looked at for what they proved. */
export async function closedWithoutDigest(most: number): Promise<string[]> {
  const [rows] = await pool().query<RowDataPacket[]>(
    'SELECT id FROM jobs WHERE closed_at IS NOT NULL AND digest_number IS NULL LIMIT ?',
    [most],
  );
  return rows.map((row) => String(row.id));
}

/** Which odds stood at a moment; null where nothing was learnt by then. */
export async function findLearntOdds(before: Date): Promise<string | null> {
  const [rows] = await pool().query<RowDataPacket[]>(
    'SELECT id FROM learnt_odds WHERE kept_at <= ? ORDER BY kept_at DESC, id DESC LIMIT 1',
    [before],
  );
  return rows[0] ? String(rows[0].id) : null;
}

const oddsRow = z.object({ jobs: z.coerce.number(), body: jsonColumn(z.unknown()) });

/** Odds that were kept; they are never changed. Null where they are gone. */
export async function readLearntOdds(id: string): Promise<z.infer<typeof oddsRow> | null> {
  const [rows] = await pool().query<RowDataPacket[]>('SELECT jobs, body FROM learnt_odds WHERE id = ?', [id]);
  return rows[0] ? oddsRow.parse(rows[0]) : null;
}

/** Tells one state of the shed's outcomes from another. */
export async function outcomesMark(): Promise<string> {
  const [[row]] = await pool().query<RowDataPacket[]>(
    'SELECT COUNT(*) AS n, MAX(closed_at) AS last, (SELECT MAX(opened_at) FROM jobs) AS opened FROM outcomes',
  );
  return JSON.stringify([row?.n, row?.last, row?.opened]);
}

/** Keeps what was learnt; of older ones as many stay as jobs in hand may stand on. */
export async function putLearntOdds(id: string, at: Date, jobs: number, body: unknown): Promise<void> {
  await pool().execute('INSERT INTO learnt_odds (id, kept_at, jobs, body) VALUES (?, ?, ?, ?)', [
    id,
    at,
    jobs,
    JSON.stringify(body),
  ]);
  await pool().execute<ResultSetHeader>(
    `DELETE FROM learnt_odds WHERE kept_at < COALESCE((SELECT MIN(opened_at) FROM jobs WHERE closed_at IS NULL), ?)
       AND kept_at < (SELECT kept FROM (SELECT MAX(kept_at) AS kept FROM learnt_odds
         WHERE kept_at <= COALESCE((SELECT MIN(opened_at) FROM jobs WHERE closed_at IS NULL), ?)) AS last)`,
    [at, at],
  );
}
