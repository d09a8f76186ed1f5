import { v7 as uuidv7 } from 'uuid';
import { readPast, type PastJob } from '../../demo/pastFile';
import type { Entry } from '../../src/core/job/entries';
import type { LearntOdds } from '../../src/core/shed/learntOdds';
import { shopMarks } from '../../src/core/tables/marks';
import { findFunction } from '../../src/db/library';
import { functionsWithPast, measuresOf, putPast, repairsOf } from '../../src/db/past';
import { withTransaction } from '../../src/db/pool';
import { settleRetest } from '../../src/db/retests';
import { putTrends } from '../../src/db/trends';
import { learnFromPast } from '../../src/features/record/learn';
import { shedTask } from '../../src/workers/shedTask';

const DAY_MS = 86_400_000;
/** Jobs in one transaction. */
const BATCH = 60;

/**
 * Puts the two winters behind the demonstration into an empty shed, moved so that they end now, with what they left behind. Gives how many
 * jobs, and what the shed has learnt from them.
 *
 * @param idOf of a machine's function
 * @param learntBy moment, in milliseconds, by which the shed has learnt from them
 */
export async function putPastJobs(
  now: number,
  idOf: (machine: string, name: string) => string,
  learntBy: number,
): Promise<{ count: number; learnt: LearntOdds }> {
  const { now: then, jobs } = readPast();
  // Whole days, so that the hours of work stay what they are.
  const shift = Math.floor((now - Date.parse(then)) / DAY_MS) * DAY_MS;
  const moved = (iso: string) => new Date(Date.parse(iso) + shift);
  /** A job of each function. */
  const lastOf = new Map<string, string>();
  for (let from = 0; from < jobs.length; from += BATCH)
    await withTransaction(async (db) => {
      for (const job of jobs.slice(from, from + BATCH)) {
        const functionId = idOf(job.machine, job.function);
        lastOf.set(functionId, await putJob(db, job, functionId, moved));
      }
    });
  await withTransaction(async (db) => {
    for (const job of lastOf.values()) await settleRetest(db, job);
  });
  return { count: jobs.length, learnt: await learnFromPast(new Date(learntBy - 1000), shedTask) };
}

/** How the places of every function move, from all that its jobs left. */
export async function putAllTrends(): Promise<void> {
  for (const id of await functionsWithPast()) {
    const drawn = (await findFunction(id))!;
    const marks = shopMarks({}, { equipment: drawn.equipment });
    const measures = await measuresOf(id);
    const repairs = await repairsOf(id);
    const done = shedTask({ do: 'trends', circuit: drawn.circuit, measures, repairs, marks });
    if ('trends' in done) await putTrends(id, done.trends);
  }
}

type Statements = Parameters<typeof putPast>[0];

async function putJob(
  db: Statements,
  { number, title, person, opened, entries, digest, left }: PastJob,
  functionId: string,
  moved: (iso: string) => Date,
): Promise<string> {
  const openedAt = moved(opened);
  const id = uuidv7({ msecs: openedAt.getTime() });
  const last = entries.at(-1)!;
  const retest = last.type === 'handOver' && last.body.retest ? day(moved(last.body.retest)) : null;
  await db.execute(
    `INSERT INTO jobs (id, number, function_id, title, person, opened_at, closed_at, last_number, retest_on, digest, digest_number)
     VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
    [
      id,
      number,
      functionId,
      title,
      person,
      openedAt,
      moved(last.at),
      entries.length,
      retest,
      JSON.stringify(digest),
      entries.length,
    ],
  );
  await db.query(
    'INSERT INTO entries (id, job_id, number, type, person, written_at, received_at, skew_ms, supersedes, body) VALUES ?',
    [
      entries.map((entry, k) => {
        const at = moved(entry.at);
        return [
          entry.id,
          id,
          k + 1,
          entry.type,
          entry.person,
          at,
          at,
          0,
          entry.supersedes ?? null,
          bodyOf(entry, moved),
        ];
      }),
    ],
  );
  await putPast(db, id, {
    ...left,
    measures: left.measures.map((one) => ({ ...one, at: moved(one.at).toISOString() })),
  });
  return id;
}

/** What an entry says, its days moved with it. */
function bodyOf({ type, body }: Entry, moved: (iso: string) => Date): string {
  if (type === 'handOver' && body.retest) return JSON.stringify({ ...body, retest: day(moved(body.retest)) });
  if (type === 'fix' && body.dated) return JSON.stringify({ ...body, dated: day(moved(body.dated)) });
  return JSON.stringify(body);
}

function day(moment: Date): string {
  return moment.toISOString().slice(0, 10);
}
