/**
 * Everything CI checks, with its own set-up: formatting, lint, import boundaries, types, unit tests, database tests on
 * a real MariaDB, journeys in headless Chromium against the production build. What does not wait for another runs beside
 * it; journeys run in lanes, each with a database, a server and a bus of its own. The last line counts all suites.
 *
 * `--journeys N` runs the journeys alone, N times on fresh databases, with one core kept busy by something else: a journey
 * that passes by luck does not pass that.
 */
import { spawn } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { cpSync, existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { removeMariaDb, startMariaDb } from './lib/mariadb.mjs';
import { run, say, Stop } from './lib/say.mjs';
import {
  checkNode,
  checkPort,
  ensureBuild,
  ensurePackages,
  ensureProgram,
  ROOT,
  VAR,
} from './lib/system.mjs';

const folder = join(VAR, 'test');
const dbPort = Number(process.env.SPIRAXIS_TEST_DB_PORT ?? 33061);
const port = Number(process.env.SPIRAXIS_TEST_PORT ?? 3100);
const busPort = Number(process.env.SPIRAXIS_TEST_BUS_PORT ?? 33071);
const meterPort = Number(process.env.SPIRAXIS_TEST_METER_PORT ?? 33081);
/**
 * A machine that others use too stalls for longer than a person would wait. How the application bears a database that
 * says nothing is tried by `npm run test:faults`.
 */
process.env.SPIRAXIS_DB_PATIENCE_MS ??= '30000';
/** Journeys run in this many lanes: one more than there are cores, for each waits at times. */
const LANES = Math.min(availableParallelism() + 1, 4);
const { values } = parseArgs({ options: { journeys: { type: 'string' } } });
const rounds = values.journeys === undefined ? null : Number(values.journeys);
const tally = { passed: 0, failed: 0 };
const took = [];

/** Runs a program to its end; gives its exit status. What it says comes out in one piece. */
function ended(program, args, env = {}) {
  return new Promise((resolve) => {
    const child = spawn(program, args, { cwd: ROOT, env: { ...process.env, ...env } });
    const words = [];
    child.stdout.on('data', (piece) => words.push(piece));
    child.stderr.on('data', (piece) => words.push(piece));
    child.on('error', () => resolve({ status: 1, words: `${program} could not be started\n` }));
    child.on('close', (status) => resolve({ status, words: Buffer.concat(words).toString() }));
  });
}

async function timed(name, work) {
  const started = Date.now();
  const result = await work();
  took.push(`${name} ${Math.round((Date.now() - started) / 1000)} s`);
  return result;
}

async function check(name, program, args) {
  const { status, words } = await timed(name, () => ended(program, args));
  say(name);
  process.stdout.write(words);
  tally[status === 0 ? 'passed' : 'failed']++;
  if (status !== 0) say(`${name} failed.`);
}

async function suite(name, program, args, env, report) {
  rmSync(report, { force: true });
  const { status, words } = await timed(name, () => ended(program, args, env));
  say(name);
  process.stdout.write(words);
  const result = existsSync(report) ? JSON.parse(readFileSync(report, 'utf8')) : null;
  const passed = result?.numPassedTests ?? result?.stats?.expected ?? 0;
  const failed = result?.numFailedTests ?? (result ? result.stats.unexpected + result.stats.flaky : 0);
  tally.passed += passed;
  // A suite that could not even start counts as one failure.
  tally.failed += Math.max(failed, status === 0 && passed > 0 ? 0 : 1);
}

async function answering(url, seconds) {
  for (let waited = 0; waited < seconds; waited += 0.25) {
    const ok = await fetch(url).then(
      (response) => response.ok,
      () => false,
    );
    if (ok) return;
    await new Promise((resolve) => setTimeout(resolve, 250));
  }
  throw new Error(`${url} did not answer within ${seconds} s`);
}

const jest = (projects, report, more = []) => [
  'jest',
  '--selectProjects',
  ...projects,
  '--json',
  `--outputFile=${report}`,
  ...more,
];

/** A database that nobody has used, on a copy of what another one left where one is named. */
async function freshDatabase(name, at, copyOf) {
  const place = join(folder, name);
  removeMariaDb(place);
  if (copyOf) cpSync(join(folder, copyOf), place, { recursive: true });
  return startMariaDb({ folder: place, port: dbPort + at, lasting: false });
}

/** Queries and use cases on a database of their own. */
async function databaseTests() {
  const database = await freshDatabase('mariadb', 0);
  try {
    const report = join(folder, 'db.json');
    const env = {
      SPIRAXIS_DATABASE_URL: database.ownerUrl,
      SPIRAXIS_APP_DATABASE_URL: database.url,
      SPIRAXIS_LOG: 'warn',
      SPIRAXIS_THREADS: 'off',
      // The tests that call everything wrongly are faster than hands.
      SPIRAXIS_CALLS_A_MINUTE: '1000000',
      SPIRAXIS_SECRET: randomBytes(48).toString('base64url'),
    };
    await suite('database tests', 'npx', jest(['db'], report, ['--runInBand']), env, report);
  } finally {
    await database.stop();
  }
}

const FILLED = 'filled';

/** Puts the demo data into a database that no lane uses: each begins on a copy of it. */
async function fillDatabase() {
  const database = await freshDatabase(FILLED, 1);
  try {
    const env = { SPIRAXIS_DATABASE_URL: database.ownerUrl, SPIRAXIS_LOG: 'warn' };
    const seeded = await ended('npx', ['tsx', 'scripts/seed.ts', '--fresh', '--rules-of-thumb'], env);
    if (seeded.status !== 0) throw new Error(`demo data could not be prepared: ${seeded.words}`);
  } finally {
    await database.stop();
  }
}

/** A database with the demo data, the application over it, the machines' bus and the bench's meter. */
async function openLane(at) {
  const database = await freshDatabase(`lane${at}`, 1 + at, FILLED);
  const env = {
    ...process.env,
    SPIRAXIS_DATABASE_URL: database.ownerUrl,
    SPIRAXIS_BUS_PORT: String(busPort + at),
    SPIRAXIS_METER_PORT: String(meterPort + at),
    SPIRAXIS_METER: `127.0.0.1:${meterPort + at}`,
    SPIRAXIS_LOG: 'warn',
    SPIRAXIS_DEMO: '1',
    SPIRAXIS_SECRET: randomBytes(48).toString('base64url'),
  };
  const devices = ['bus-simulator', 'meter-simulator'].map((name) =>
    spawn(process.execPath, ['--import', 'tsx', `scripts/${name}.ts`], {
      cwd: ROOT,
      stdio: ['ignore', 'ignore', 'inherit'],
      env,
    }),
  );
  const server = spawn(process.execPath, ['scripts/serve.mjs'], {
    cwd: ROOT,
    stdio: ['ignore', 'ignore', 'inherit'],
    // As the demo does: the application has no more rights than it needs.
    env: {
      ...env,
      NODE_ENV: 'production',
      SPIRAXIS_DATABASE_URL: database.url,
      SPIRAXIS_PORT: String(port + at),
    },
  });
  const close = async () => {
    server.kill('SIGTERM');
    for (const device of devices) device.kill('SIGTERM');
    await database.stop();
  };
  try {
    await answering(`http://127.0.0.1:${port + at}/api/health`, 60);
  } catch (error) {
    await close();
    throw error;
  }
  return {
    url: `http://127.0.0.1:${port + at}`,
    databaseUrl: database.url,
    ownerUrl: database.ownerUrl,
    bus: busPort + at,
    secret: env.SPIRAXIS_SECRET,
    close,
  };
}

async function journeys() {
  await timed('demo data', fillDatabase);
  const lanes = await Promise.all(Array.from({ length: LANES }, (_one, at) => openLane(at)));
  try {
    const report = join(folder, 'e2e.json');
    const env = {
      SPIRAXIS_LANES: JSON.stringify(
        lanes.map(({ url, databaseUrl, ownerUrl, bus, secret }) => ({
          url,
          databaseUrl,
          ownerUrl,
          bus,
          secret,
        })),
      ),
    };
    await suite('journeys', 'npx', ['playwright', 'test'], env, report);
  } finally {
    await Promise.all(lanes.map(({ close }) => close()));
  }
}

/** The journeys again and again beside something that never rests. */
async function journeysAgain() {
  // It ends with whoever started it, also where that one is killed.
  const rests = 'const { ppid } = process; while (process.ppid === ppid);';
  const busy = spawn(process.execPath, ['-e', rests], { stdio: 'ignore' });
  try {
    for (let round = 0; round < rounds; round++) {
      await journeys();
      say(`round ${round + 1} of ${rounds}: ${tally.passed} passed, ${tally.failed} failed so far`);
    }
  } finally {
    busy.kill('SIGKILL');
  }
}

await run(async () => {
  if (rounds !== null && !(Number.isInteger(rounds) && rounds > 0))
    throw new Stop(`--journeys ${values.journeys} is no number of rounds; give a whole number from 1.`);
  checkNode();
  ensurePackages();
  ensureProgram('chromium-headless-shell', ['chromium-headless-shell', 'fonts-liberation']);
  ensureProgram('mariadb-install-db', ['mariadb-server-core', 'mariadb-client-core']);
  ensureProgram('ngspice', ['ngspice']);
  for (let at = 0; at < LANES; at++) {
    await checkPort(port + at, 'test application', 'SPIRAXIS_TEST_PORT');
    await checkPort(busPort + at, 'simulated bus of the tests', 'SPIRAXIS_TEST_BUS_PORT');
    await checkPort(meterPort + at, 'simulated meter of the tests', 'SPIRAXIS_TEST_METER_PORT');
  }
  mkdirSync(folder, { recursive: true });
  ensureBuild();
  if (rounds !== null) return journeysAgain();
  const unit = join(folder, 'unit.json');
  await Promise.all([
    (async () => {
      await check('formatting', 'npx', ['prettier', '--check', '.', '--log-level', 'warn']);
      await check('lint', 'npx', ['eslint', '.', '--max-warnings', '0']);
      await check('import boundaries', 'npx', ['depcruise', 'src', '--config', '.dependency-cruiser.cjs']);
      await check('licences', 'node', ['scripts/notices.mjs', '--check']);
      // The compiler's native build: a fifth of the time. The other one is what lint reads with.
      await check('types', 'node', ['node_modules/typescript-7/bin/tsc', '--noEmit']);
      await databaseTests();
    })(),
    suite('unit tests', 'npx', jest(['core', 'features', 'screens'], unit, ['--maxWorkers=2']), {}, unit),
  ]);
  await journeys();
}).finally(() => {
  if (tally.failed > 0 || tally.passed === 0) process.exitCode = 1;
  if (process.exitCode && tally.failed === 0) tally.failed = 1;
  say(took.join(', '));
  process.stdout.write(`${tally.passed} passed, ${tally.failed} failed\n`);
});
