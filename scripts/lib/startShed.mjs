import { join } from 'node:path';
import { spawn } from 'node:child_process';
import { keepRunning, pauseMs, takeFolder } from './keeper.mjs';
import { removeMariaDb, startMariaDb } from './mariadb.mjs';
import { run, say, Stop } from './say.mjs';
import { checkNode, checkPort, ensureBuild, ensurePackages, ROOT, sessionSecret } from './system.mjs';

/** Time that the whole may take to stop after Ctrl-C; then it ends all the same. */
const STOP_MS = 40_000;

/**
 * A shed and all that it needs, kept running until Ctrl-C: packages, build, a database of its own on loopback, what is put
 * into it, devices, and the application. What ends by itself is started again.
 *
 * @param {object} shed
 * @param {string} shed.home folder that is this shed's alone
 * @param {number} shed.port where the application listens
 * @param {number} shed.dbPort
 * @param {string} shed.address what to open
 * @param {string[]} shed.seed the script that fills the database, and what it is told
 * @param {boolean} [shed.fresh] begins anew
 * @param {{ name: string, script: string, port: number, setting: string }[]} shed.devices simulators beside it
 * @param {Record<string, string>} shed.env
 */
export async function startShed({
  home,
  port,
  dbPort,
  address,
  seed: seedArgs,
  fresh = false,
  devices,
  env: own,
}) {
  const folder = join(home, 'mariadb');
  /** What is to be stopped, the last one first. */
  const stops = [];
  let stopping = null;
  const stop = () => {
    stopping ??= (async () => {
      setTimeout(() => process.exit(1), STOP_MS).unref();
      for (const one of stops.toReversed()) await one();
      say('stopped.');
    })();
    return stopping;
  };
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'])
    process.on(signal, () => {
      // Asked twice, whoever asks does not want to wait.
      if (stopping && signal === 'SIGINT') process.exit(1);
      void stop().then(() => process.exit());
    });

  /** Runs the script that brings the schema up and fills an empty shed; can be stopped like everything else. */
  const seed = (env) =>
    new Promise((resolve, reject) => {
      const child = spawn(process.execPath, ['--import', 'tsx', ...seedArgs], {
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
          : reject(new Stop(`the data could not be prepared (${signal ?? `status ${status}`}); see above.`)),
      );
    });

  await run(async () => {
    checkNode();
    const held = await takeFolder(home);
    stops.push(async () => held.letGo());
    try {
      await checkPort(port, 'application', 'SPIRAXIS_PORT');
      await checkPort(dbPort, 'database', 'SPIRAXIS_DB_PORT');
      for (const device of devices) await checkPort(device.port, device.name, device.setting);
      ensurePackages();
      ensureBuild();
      if (stopping) return;
      if (fresh) removeMariaDb(folder);
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
        SPIRAXIS_SECRET: sessionSecret(home),
        ...process.env,
        NODE_ENV: 'production',
        SPIRAXIS_DATABASE_URL: database.url,
        SPIRAXIS_PORT: String(port),
        NEXT_TELEMETRY_DISABLED: '1',
        ...own,
      };
      await seed({ ...env, SPIRAXIS_DATABASE_URL: database.ownerUrl });
      if (stopping) return;
      for (const { name, script } of devices) {
        const device = keepRunning(`the ${name}`, ['--import', 'tsx', `scripts/${script}.ts`], {
          env,
          onStart: (pid) => held.note(script, pid, `${script}.ts`),
        });
        stops.push(device.stop);
      }
      const server = keepRunning('the application', ['--max-old-space-size=512', 'scripts/serve.mjs'], {
        env,
        onStart: (pid) => held.note('application', pid, 'serve.mjs'),
        onOutput: (text) => {
          process.stdout.write(text);
          if (text.includes('ready')) say(`open ${address}  (Ctrl-C stops it)`);
        },
      });
      stops.push(server.stop);
      // What was started keeps this process alive; a signal ends it.
      await new Promise((resolve) => stops.unshift(async () => resolve()));
    } finally {
      await stop();
    }
  });
}
