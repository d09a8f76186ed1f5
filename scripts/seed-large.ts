/**
 * Puts the demonstration shed into the database many times over (100 by default), to see lists and pages at a size that a
 * big workshop has: `npm run seed:large -- 100`. Every copy has machines, functions, jobs and logs of its own; after a second
 * number every reading stands that many times in its log, as by somebody who reads everything again.
 */
import './lib/patient';
import type { RowDataPacket } from 'mysql2/promise';
import { v7 as uuidv7 } from 'uuid';
import { closePool, pool, withTransaction, type Statements } from '../src/db/pool';

const USUAL_TIMES = 100;
const ROWS_A_STATEMENT = 400;
/** Codes hold 20 characters; the copy's number takes some. */
const MARK = '~';

type Row = RowDataPacket;

async function rowsOf(table: string, where = 'TRUE'): Promise<Row[]> {
  const [rows] = await pool().query<Row[]>(`SELECT * FROM ${table} WHERE ${where}`);
  return rows;
}

async function insert(db: Statements, table: string, rows: readonly Row[]): Promise<void> {
  const [first] = rows;
  if (!first) return;
  const columns = Object.keys(first);
  for (let from = 0; from < rows.length; from += ROWS_A_STATEMENT) {
    const part = rows.slice(from, from + ROWS_A_STATEMENT);
    await db.query(`INSERT INTO ${table} (${columns.join(', ')}) VALUES ?`, [
      part.map((row) => columns.map((column) => plain(row[column]))),
    ]);
  }
}

/** JSON columns come as objects or as text, by the driver's mood; they go as text. */
function plain(value: unknown): unknown {
  const json =
    typeof value === 'object' && value !== null && !(value instanceof Date) && !Buffer.isBuffer(value);
  return json ? JSON.stringify(value) : value;
}

/** Logs in which every reading stands `often` times, numbered anew without a gap. */
function readOften(entries: readonly Row[], often: number): Row[] {
  const numbers = new Map<string, number>();
  return [...entries]
    .sort((a, b) => Number(a.number) - Number(b.number))
    .flatMap((row) =>
      Array.from({ length: row.type === 'reading' ? often : 1 }, (_, again) => ({ row, again })),
    )
    .map(({ row, again }) => {
      const job = String(row.job_id);
      const number = (numbers.get(job) ?? 0) + 1;
      numbers.set(job, number);
      // What it replaces it replaces once: said again it stands for itself.
      return {
        ...row,
        id: `${String(row.id)}${again > 0 ? ` ${again}` : ''}`,
        number,
        ...(again > 0 && { supersedes: null }),
      } as unknown as Row;
    });
}

async function seedLarge(times: number, often: number): Promise<void> {
  const own = `code NOT LIKE '%${MARK}%'`;
  const [machines, functions, versions, jobs, entries, codes, measures, outcomes, trends] = await Promise.all(
    [
      rowsOf('machines', own),
      rowsOf('functions', `machine_id IN (SELECT id FROM machines WHERE ${own})`),
      rowsOf('function_versions'),
      rowsOf('jobs'),
      rowsOf('entries'),
      rowsOf('job_codes'),
      rowsOf('proved_measures'),
      rowsOf('outcomes'),
      rowsOf('trends'),
    ],
  );
  const known = new Set(functions.map(({ id }) => String(id)));
  const mine = jobs.filter((job) => known.has(String(job.function_id)));
  const jobIds = new Set(mine.map(({ id }) => String(id)));
  const logs = readOften(
    entries.filter((row) => jobIds.has(String(row.job_id))),
    often,
  );
  const lasts = new Map(logs.map((row) => [String(row.job_id), Number(row.number)]));
  let number = Math.max(...jobs.map((job) => Number(job.number)));
  for (let copy = 1; copy <= times; copy++) {
    const ids = new Map<string, string>();
    const fresh = (id: unknown) => {
      const key = String(id);
      const made = ids.get(key) ?? uuidv7();
      ids.set(key, made);
      return made;
    };
    await withTransaction(async (db) => {
      await insert(
        db,
        'machines',
        machines.map((row) => ({
          ...row,
          id: fresh(row.id),
          code: `${String(row.code)}${MARK}${copy}`,
          name: `${String(row.name)}, ${copy}`,
        })),
      );
      await insert(
        db,
        'functions',
        functions.map((row) => ({ ...row, id: fresh(row.id), machine_id: fresh(row.machine_id) })),
      );
      await insert(
        db,
        'function_versions',
        versions
          .filter((row) => known.has(String(row.function_id)))
          .map((row) => ({ ...row, function_id: fresh(row.function_id) })),
      );
      await insert(
        db,
        'jobs',
        mine.map((row) => {
          const last = lasts.get(String(row.id)) ?? 0;
          return {
            ...row,
            id: fresh(row.id),
            number: ++number,
            function_id: fresh(row.function_id),
            last_number: last,
            // What was worked out of the whole log is what comes of it said again.
            digest_number: row.digest_number === row.last_number ? last : null,
          };
        }),
      );
      await insert(
        db,
        'entries',
        logs.map((row) => ({
          ...row,
          id: fresh(row.id),
          job_id: fresh(row.job_id),
          supersedes: row.supersedes ? fresh(row.supersedes) : null,
        })),
      );
      await insert(
        db,
        'job_codes',
        codes
          .filter((row) => jobIds.has(String(row.job_id)))
          .map((row) => ({
            ...row,
            entry_id: fresh(row.entry_id),
            job_id: fresh(row.job_id),
            machine_id: fresh(row.machine_id),
          })),
      );
      const ofJob = (rows: readonly Row[]) =>
        rows
          .filter((row) => jobIds.has(String(row.job_id)))
          .map(
            (row) =>
              ({ ...row, job_id: fresh(row.job_id), function_id: fresh(row.function_id) }) as unknown as Row,
          );
      await insert(db, 'proved_measures', ofJob(measures));
      await insert(db, 'outcomes', ofJob(outcomes));
      await insert(
        db,
        'trends',
        trends
          .filter((row) => known.has(String(row.function_id)))
          .map((row) => ({ ...row, function_id: fresh(row.function_id) })),
      );
    });
  }
  process.stdout.write(
    `spiraxis: ${times} copies: ${machines.length * times} machines, ${functions.length * times} functions, ${mine.length * times} jobs more\n`,
  );
}

const MOST = 10_000;
const asked = [process.argv[2] ?? String(USUAL_TIMES), process.argv[3] ?? '1'];
const [times, often] = asked.map(Number) as [number, number];
const wrong = [times, often].findIndex((count) => !Number.isInteger(count) || count < 1 || count > MOST);
if (wrong !== -1) {
  process.stderr.write(
    `seed-large: "${asked[wrong]}" is no number of ${wrong === 0 ? 'copies' : 'times'} from 1 to ${MOST}\n`,
  );
  process.exitCode = 2;
} else {
  seedLarge(times, often)
    .catch((error: unknown) => {
      process.stderr.write(`spiraxis: ${error instanceof Error ? error.message : String(error)}\n`);
      process.exitCode = 1;
    })
    .finally(closePool);
}
