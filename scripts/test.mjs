/**
 * Everything CI checks, with its own set-up: formatting, lint, import boundaries, types, unit tests, database tests on
 * a real MariaDB, journeys in headless Chromium against the production build. The last line counts all suites.
 */
import { spawn, spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { removeMariaDb, startMariaDb } from './lib/mariadb.mjs';
import { run, say } from './lib/say.mjs';
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
const tally = { passed: 0, failed: 0 };

function check(name, program, args, env = {}) {
  say(name);
  const done = spawnSync(program, args, { cwd: ROOT, stdio: 'inherit', env: { ...process.env, ...env } });
  tally[done.status === 0 ? 'passed' : 'failed']++;
  if (done.status !== 0) say(`${name} failed.`);
}

function suite(name, program, args, env, report) {
  say(name);
  rmSync(report, { force: true });
  const done = spawnSync(program, args, { cwd: ROOT, stdio: 'inherit', env: { ...process.env, ...env } });
  const result = existsSync(report) ? JSON.parse(readFileSync(report, 'utf8')) : null;
  const passed = result?.numPassedTests ?? result?.stats?.expected ?? 0;
  const failed = result?.numFailedTests ?? (result ? result.stats.unexpected + result.stats.flaky : 0);
  tally.passed += passed;
  // A suite that could not even start counts as one failure.
  tally.failed += Math.max(failed, done.status === 0 && passed > 0 ? 0 : 1);
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

await run(async () => {
  checkNode();
  ensurePackages();
  ensureProgram('chromium', ['chromium', 'fonts-liberation']);
  ensureProgram('mariadb-install-db', ['mariadb-server-core', 'mariadb-client-core']);
  ensureProgram('ngspice', ['ngspice']);
  await checkPort(port, 'test application', 'SPIRAXIS_TEST_PORT');
  mkdirSync(folder, { recursive: true });
  ensureBuild();
  check('formatting', 'npx', ['prettier', '--check', '.', '--log-level', 'warn']);
  check('lint', 'npx', ['eslint', '.', '--max-warnings', '0']);
  check('import boundaries', 'npx', ['depcruise', 'src', '--config', '.dependency-cruiser.cjs']);
  check('types', 'npx', ['tsc', '--noEmit']);
  const jest = (projects, report, more = []) => [
    'jest',
    '--selectProjects',
    ...projects,
    '--json',
    `--outputFile=${report}`,
    ...more,
  ];
  const unit = join(folder, 'unit.json');
  suite('unit tests', 'npx', jest(['core', 'features', 'screens'], unit), {}, unit);

  removeMariaDb(join(folder, 'mariadb'));
  const database = await startMariaDb({ folder: join(folder, 'mariadb'), port: dbPort });
  const env = { SPIRAXIS_DATABASE_URL: database.url, SPIRAXIS_BUS_PORT: String(busPort) };
  let server = null;
  let bus = null;
  try {
    const db = join(folder, 'db.json');
    suite(
      'database tests',
      'npx',
      jest(['db'], db, ['--runInBand']),
      { ...env, SPIRAXIS_LOG: 'warn', SPIRAXIS_DIGEST_THREAD: 'off' },
      db,
    );
    const seeded = spawnSync('npx', ['tsx', 'scripts/seed.ts', '--fresh'], {
      cwd: ROOT,
      stdio: 'inherit',
      env: { ...process.env, ...env },
    });
    if (seeded.status !== 0) throw new Error('demo data could not be prepared');
    bus = spawn(process.execPath, ['--import', 'tsx', 'scripts/bus-simulator.ts'], {
      cwd: ROOT,
      stdio: ['ignore', 'ignore', 'inherit'],
      env: { ...process.env, ...env },
    });
    server = spawn(
      process.execPath,
      [
        join(ROOT, 'node_modules', 'next', 'dist', 'bin', 'next'),
        'start',
        '-H',
        '127.0.0.1',
        '-p',
        String(port),
      ],
      {
        cwd: ROOT,
        stdio: 'ignore',
        env: { ...process.env, ...env, NODE_ENV: 'production', SPIRAXIS_LOG: 'warn' },
      },
    );
    await answering(`http://127.0.0.1:${port}/api/health`, 30);
    const e2e = join(folder, 'e2e.json');
    suite(
      'journeys',
      'npx',
      ['playwright', 'test'],
      { ...env, SPIRAXIS_URL: `http://127.0.0.1:${port}` },
      e2e,
    );
  } finally {
    server?.kill('SIGTERM');
    bus?.kill('SIGTERM');
    await database.stop();
  }
}).finally(() => {
  if (tally.failed > 0 || tally.passed === 0) process.exitCode = 1;
  if (process.exitCode && tally.failed === 0) tally.failed = 1;
  process.stdout.write(`${tally.passed} passed, ${tally.failed} failed\n`);
});
