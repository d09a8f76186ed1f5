/** Brings the schema up to date and, into an empty database, puts the demonstration shed. Keeps what is there. */
import './lib/patient';
import { createHash } from 'node:crypto';
import { join } from 'node:path';
import sharp from 'sharp';
import { v7 as uuidv7 } from 'uuid';
import { CODE_BOOKS } from '../demo/codeBooks';
import { FLEET, REWIRED } from '../demo/fleet';
import { JOBS, loadDemoCircuit, MACHINES, PHOTOS } from '../demo/shed';
import { storyEntries } from '../demo/story';
import type { Circuit } from '../src/core/circuit/schema';
import type { Entry } from '../src/core/job/entries';
import { seededRandom } from '../src/core/random';
import { mergeBook } from '../src/db/codeBook';
import { digestMark, putDigest } from '../src/db/digests';
import { appendEntries } from '../src/db/entries';
import { alone, migrate } from '../src/db/migrate';
import { addDrawing, putPin } from '../src/db/drawings';
import { putPhoto } from '../src/db/photos';
import { putSetting } from '../src/db/settings';
import { closePool, pool, withTransaction } from '../src/db/pool';
import { USUAL_POLICY } from '../src/features/policy/policy';
import { preferencesOf } from '../src/features/policy/preferencesOf';
import { makeJobDigest } from '../src/workers/jobDigest';
import { CircuitModel } from '../src/core/circuit/model';
import { exposureOf, oddsFor, placeOfCircuit, seasonOfDay } from '../src/core/shed/learntOdds';
import { typeKey } from '../src/features/record/typeKey';
import { putAllTrends, putPastJobs } from './lib/pastJobs';
import { putDemoPeople, putFirstLead } from './lib/putPeople';
import { putShelf } from './lib/putShelf';
import type { RowDataPacket } from 'mysql2/promise';

const HOUR = 3_600_000;
const now = Date.now();
const random = seededRandom(20261124);
const makeId = (at: number) =>
  uuidv7({ msecs: at, random: Uint8Array.from({ length: 16 }, () => Math.floor(random.next() * 256)) });

/** Keeps the second version of a machine's function, as it was wired anew some weeks ago. */
async function putRewired(
  { part, is, person, note, daysAgo }: (typeof REWIRED)[number],
  drawn: { id: string; circuit: string },
): Promise<void> {
  const circuit = loadDemoCircuit(drawn.circuit);
  const text = JSON.stringify({
    ...circuit,
    parts: circuit.parts.map((own) => (own.ref === part ? { ...own, ...is } : own)),
  });
  await pool().execute('UPDATE functions SET circuit = ?, version = 2 WHERE id = ?', [text, drawn.id]);
  await pool().execute(
    'INSERT INTO function_versions (function_id, version, circuit, person, note, kept_at) VALUES (?, 2, ?, ?, ?, ?)',
    [drawn.id, text, person, note, new Date(now - 24 * daysAgo * HOUR)],
  );
}

/** Keeps a demonstration picture as an uploaded one is kept. */
async function keepPicture(file: string): Promise<string> {
  const picture = sharp(join(process.cwd(), 'demo', 'pictures', file));
  const { data: bytes, info } = await picture.webp({ quality: 80 }).toBuffer({ resolveWithObject: true });
  const hash = createHash('sha256').update(bytes).digest('hex');
  await putPhoto({ hash, kind: 'image/webp', width: info.width, height: info.height, bytes });
  return hash;
}

async function seed(): Promise<void> {
  const applied = await migrate();
  if (applied.length > 0) process.stdout.write(`spiraxis: schema brought up to ${applied.at(-1)}\n`);
  // One at a time: of several that start at once the first fills the shed, and the others find it full.
  await alone(fill);
}

async function fill(): Promise<void> {
  // For the tests: start from the demo data whatever stood there.
  if (process.argv.includes('--fresh')) {
    for (const table of [
      'feed_keys',
      'witnesses',
      'sessions',
      'devices',
      'accounts',
      'tries',
      'trail',
      'requisition_steps',
      'requisitions',
      'spare_moves',
      'spares',
      'learnt_odds',
      'trends',
      'outcomes',
      'proved_measures',
      'drawing_pins',
      'drawings',
      'job_codes',
      'entries',
      'jobs',
      'function_versions',
      'functions',
      'code_book',
      'machines',
      'photos',
      'settings',
    ])
      await pool().query(`DELETE FROM ${table}`);
  }
  const empty = process.argv.includes('--empty');
  if (!empty) await putDemoPeople(now);
  const lead = empty ? await putFirstLead(now) : null;
  if (lead)
    process.stdout.write(
      `spiraxis: nobody works here yet. Sign in within three days as "${lead.name}" with the word ${lead.word}, which is shown this once.\n`,
    );
  const [rows] = await pool().query<RowDataPacket[]>('SELECT COUNT(*) AS n FROM machines');
  if (Number(rows[0]?.n) > 0 || empty) return;
  /** Without the fleet's two winters, for tests that count. */
  const small = process.argv.includes('--small');
  const functionIds = new Map<string, { id: string; circuit: string }>();
  const books: { machineId: string; code: string }[] = [];
  const logs: { jobId: string; circuit: Circuit; entries: Entry[]; equipment: string }[] = [];
  const preferences = preferencesOf(USUAL_POLICY);
  await withTransaction(async (db) => {
    for (const machine of small ? MACHINES : [...MACHINES, ...FLEET]) {
      const machineId = makeId(now - 500 * HOUR);
      await db.execute('INSERT INTO machines (id, code, name, equipment) VALUES (?, ?, ?, ?)', [
        machineId,
        machine.code,
        machine.name,
        machine.equipment,
      ]);
      books.push({ machineId, code: machine.code });
      for (const { name, circuit } of machine.functions) {
        const id = makeId(now - 500 * HOUR);
        functionIds.set(`${machine.code}|${name}`, { id, circuit });
        const text = JSON.stringify(loadDemoCircuit(circuit));
        await db.execute('INSERT INTO functions (id, machine_id, name, circuit) VALUES (?, ?, ?, ?)', [
          id,
          machineId,
          name,
          text,
        ]);
        await db.execute(
          'INSERT INTO function_versions (function_id, version, circuit, person, note, kept_at) VALUES (?, 1, ?, ?, ?, ?)',
          [id, text, 'Henrike', 'First drawing', new Date(now - 500 * HOUR)],
        );
      }
    }
    for (const job of JOBS) {
      const known = functionIds.get(`${job.machine}|${job.function}`)!;
      const opened = now - job.hoursAgo * HOUR;
      const jobId = makeId(opened);
      await db.execute(
        'INSERT INTO jobs (id, number, function_id, title, person, opened_at) VALUES (?, ?, ?, ?, ?, ?)',
        [jobId, job.number, known.id, job.title, job.person, new Date(opened)],
      );
      const picture = job.picture ? await keepPicture(job.picture.file) : undefined;
      const circuit = loadDemoCircuit(known.circuit);
      logs.push({
        jobId,
        circuit,
        entries: storyEntries(circuit, job, opened, makeId, picture),
        equipment: MACHINES.find(({ code }) => code === job.machine)!.equipment,
      });
    }
  });
  await putSetting('policy', { shedName: 'Ostrel Ridge shed', machinesOut: '16:30' }, 'Henrike');
  // Journeys close jobs beside each other: what one learnt would move the next test of another.
  if (process.argv.includes('--rules-of-thumb'))
    await putSetting('odds', { learn: false, own: {} }, 'Henrike');
  for (const { machineId, code } of books) await mergeBook(machineId, CODE_BOOKS[code] ?? []);
  for (const { machine, name, file, pins } of PHOTOS) {
    const { machineId } = books.find(({ code }) => code === machine)!;
    const drawing = await addDrawing(machineId, name, await keepPicture(file));
    for (const [part, x, y] of pins) await putPin(machineId, drawing, { part, x, y });
  }
  // Each arrived when its last entry was written: a job of last week was not handed over today.
  for (const { jobId, entries } of logs)
    await appendEntries(jobId, entries, { receivedAt: new Date(entries.at(-1)!.at) });
  const past = small
    ? null
    : await putPastJobs(
        now,
        (machine, name) => functionIds.get(`${machine}|${name}`)!.id,
        Math.min(...JOBS.map(({ hoursAgo }) => now - hoursAgo * HOUR)),
      );
  const learnt = process.argv.includes('--rules-of-thumb') ? null : (past?.learnt ?? null);
  for (const { jobId, circuit, entries, equipment } of logs) {
    const mark = await digestMark(jobId);
    if (!mark) continue;
    // As its own page weighs it, but for what single windings have read.
    const model = new CircuitModel(circuit);
    const context = {
      type: typeKey(circuit),
      equipment,
      season: seasonOfDay(entries[0]!.at),
      place: placeOfCircuit(model),
      weather: null,
      age: null,
    };
    const odds = learnt ? oddsFor(exposureOf(model), learnt, context) : {};
    const made = makeJobDigest({
      circuit,
      entries,
      preferences,
      gaugeUnit: USUAL_POLICY.gaugeUnit,
      experience: { odds, windings: {} },
    });
    await putDigest(jobId, mark, made);
  }
  if (!small) {
    for (const change of REWIRED)
      await putRewired(change, functionIds.get(`${change.machine}|${change.function}`)!);
    await putAllTrends();
    await putShelf(now);
  }
  const machines = MACHINES.length + (small ? 0 : FLEET.length);
  process.stdout.write(
    `spiraxis: demo data in place: ${machines} machines, ${JOBS.length + (past?.count ?? 0)} jobs\n`,
  );
}

seed()
  .catch((error: unknown) => {
    process.stderr.write(
      `spiraxis: demo data could not be prepared: ${error instanceof Error ? error.message : String(error)}\n`,
    );
    process.exitCode = 1;
  })
  .finally(closePool);
