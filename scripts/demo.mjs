/**
 * One command: packages, build, a database of its own on loopback, demo data, and the application on
 * http://127.0.0.1:3000. Started again it keeps what was entered; `--fresh` starts over. What ends by itself is started
 * again; Ctrl-C stops all of it.
 */
import { join } from 'node:path';
import { spawn } from 'node:child_process';
import { keepRunning, pauseMs, takeFolder } from './lib/keeper.mjs';
import { removeMariaDb, startMariaDb } from './lib/mariadb.mjs';
import { run, say, Stop } from './lib/say.mjs';
import {
  checkNode,
  checkPort,
  ensureBuild,
  ensurePackages,
  ROOT,
  sessionSecret,
  VAR,
} from './lib/system.mjs';

const port = Number(process.env.SPIRAXIS_PORT ?? 3000);
const dbPort = Number(process.env.SPIRAXIS_DB_PORT ?? 33060);
const busPort = Number(process.env.SPIRAXIS_BUS_PORT ?? 33070);
const meterPort = Number(process.env.SPIRAXIS_METER_PORT ?? 33080);
const home = process.env.SPIRAXIS_VAR ?? VAR;
const folder = join(home, 'mariadb');
/** Time that the whole may take to stop after Ctrl-C; then it ends all the same. */
const STOP_MS = 40_000;

/** What is to be stopped, the last one first. */
const stops = [];
let stopping = null;

function stop() {
  stopping ??= (async () => {
    setTimeout(() => process.exit(1), STOP_MS).unref();
    for (const one of stops.toReversed()) await one();
    say('stopped.');
  })();
  return stopping;
}

for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'])
  process.on(signal, () => {
    // Asked twice, whoever asks does not want to wait.
    if (stopping && signal === 'SIGINT') process.exit(1);
    void stop().then(() => process.exit());
  });

/** Runs the script that brings the schema up and fills an empty shed; can be stopped like everything else. */
function seed(env) {
  return new Promise((resolve, reject) => {
    const child = spawn(process.execPath, ['--import', 'tsx', 'scripts/seed.ts'], {
      cwd: ROOT,
      env,
      stdio: ['ignore', 'inherit', 'inherit'],
      detached: true,
    });
    stops.push(async () => void child.kill('SIGTERM'));
    child.once('error', reject);
    child.once('exit', (status, signal) =>
      status === 0 || stopping
        ? resolve()
        : reject(
            new Stop(`the demo data could not be prepared (${signal ?? `status ${status}`}); see above.`),
          ),
    );
  });
}

await run(async () => {
  const unknown = process.argv.slice(2).filter((word) => word !== '--fresh');
  if (unknown.length > 0) throw new Stop(`unknown option ${unknown[0]}; the only one is --fresh.`);
  checkNode();
  const held = await takeFolder(home);
  stops.push(async () => held.letGo());
  try {
    await checkPort(port, 'application', 'SPIRAXIS_PORT');
    await checkPort(dbPort, 'database', 'SPIRAXIS_DB_PORT');
    await checkPort(busPort, 'simulated bus', 'SPIRAXIS_BUS_PORT');
    await checkPort(meterPort, 'simulated meter', 'SPIRAXIS_METER_PORT');
    ensurePackages();
    ensureBuild();
    if (stopping) return;
    if (process.argv.includes('--fresh')) removeMariaDb(folder);
    let ends = 0;
    const noteDatabase = () => held.note('database', database.pid(), folder);
    const onLost = (why) => {
      const pause = pauseMs(++ends);
      say(`the database ended (${why}); it is started again in ${pause / 1000} s.`);
      setTimeout(() => {
        if (stopping) return;
        database.start().then(noteDatabase, (error) => onLost(error.message));
      }, pause);
    };
    const database = await startMariaDb({ folder, port: dbPort, onLost });
    stops.push(() => database.stop());
    noteDatabase();
    const env = {
      // What was freed goes back to the system, however many threads there were.
      MALLOC_ARENA_MAX: '2',
      ...process.env,
      NODE_ENV: 'production',
      SPIRAXIS_DATABASE_URL: database.url,
      // Everybody is invented here, and signs in with one press; on loopback alone.
      SPIRAXIS_DEMO: '1',
      SPIRAXIS_SECRET: process.env.SPIRAXIS_SECRET ?? sessionSecret(home),
      SPIRAXIS_PORT: String(port),
      SPIRAXIS_BUS_PORT: String(busPort),
      SPIRAXIS_METER_PORT: String(meterPort),
      SPIRAXIS_METER: process.env.SPIRAXIS_METER ?? `127.0.0.1:${meterPort}`,
      NEXT_TELEMETRY_DISABLED: '1',
    };
    await seed({ ...env, SPIRAXIS_DATABASE_URL: database.ownerUrl });
    if (stopping) return;
    const bus = keepRunning('the simulated bus', ['--import', 'tsx', 'scripts/bus-simulator.ts'], {
      env,
      onStart: (pid) => held.note('bus', pid, 'bus-simulator.ts'),
    });
    stops.push(bus.stop);
    const meter = keepRunning('the simulated meter', ['--import', 'tsx', 'scripts/meter-simulator.ts'], {
      env,
      onStart: (pid) => held.note('meter', pid, 'meter-simulator.ts'),
    });
    stops.push(meter.stop);
    const server = keepRunning('the application', ['--max-old-space-size=512', 'scripts/serve.mjs'], {
      env,
      onStart: (pid) => held.note('application', pid, 'serve.mjs'),
      onOutput: (text) => {
        process.stdout.write(text);
        if (text.includes('ready')) say(`open http://127.0.0.1:${port}  (Ctrl-C stops it)`);
      },
    });
    stops.push(server.stop);
    // What was started keeps this process alive; a signal ends it.
    await new Promise((resolve) => stops.unshift(async () => resolve()));
  } finally {
    await stop();
  }
});
