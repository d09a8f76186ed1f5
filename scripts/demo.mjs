/**
 * One command: packages, build, a database of its own on loopback, demo data, and the application on
 * http://127.0.0.1:3000. Started again it keeps what was entered; `--fresh` starts over. Ctrl-C stops both.
 */
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { removeMariaDb, startMariaDb } from './lib/mariadb.mjs';
import { run, say, Stop } from './lib/say.mjs';
import { checkNode, checkPort, ensureBuild, ensurePackages, must, ROOT, VAR } from './lib/system.mjs';

const port = Number(process.env.SPIRAXIS_PORT ?? 3000);
const dbPort = Number(process.env.SPIRAXIS_DB_PORT ?? 33060);
const busPort = Number(process.env.SPIRAXIS_BUS_PORT ?? 33070);
const folder = join(process.env.SPIRAXIS_VAR ?? VAR, 'mariadb');

await run(async () => {
  const unknown = process.argv.slice(2).filter((word) => word !== '--fresh');
  if (unknown.length > 0) throw new Stop(`unknown option ${unknown[0]}; the only one is --fresh.`);
  checkNode();
  await checkPort(port, 'application', 'SPIRAXIS_PORT');
  await checkPort(dbPort, 'database', 'SPIRAXIS_DB_PORT');
  await checkPort(busPort, 'simulated bus', 'SPIRAXIS_BUS_PORT');
  ensurePackages();
  ensureBuild();
  if (process.argv.includes('--fresh')) removeMariaDb(folder);
  const database = await startMariaDb({ folder, port: dbPort });
  const env = {
    ...process.env,
    NODE_ENV: 'production',
    SPIRAXIS_DATABASE_URL: database.url,
    SPIRAXIS_BUS_PORT: String(busPort),
    NEXT_TELEMETRY_DISABLED: '1',
  };
  let server = null;
  let bus = null;
  let stopping = false;
  const stop = async () => {
    if (stopping) return;
    stopping = true;
    server?.kill('SIGTERM');
    bus?.kill('SIGTERM');
    if (server)
      await new Promise((resolve) => (server.exitCode === null ? server.once('exit', resolve) : resolve()));
    await database.stop();
    say('stopped.');
  };
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => void stop());
  try {
    must('npx', ['tsx', 'scripts/seed.ts'], { env });
    if (stopping) return;
    bus = spawn(process.execPath, ['--import', 'tsx', 'scripts/bus-simulator.ts'], {
      cwd: ROOT,
      env,
      stdio: ['ignore', 'ignore', 'inherit'],
    });
    const next = join(ROOT, 'node_modules', 'next', 'dist', 'bin', 'next');
    server = spawn(process.execPath, [next, 'start', '-H', '127.0.0.1', '-p', String(port)], {
      cwd: ROOT,
      env,
      stdio: ['ignore', 'pipe', 'inherit'],
      detached: true,
    });
    server.stdout.on('data', (text) => {
      process.stdout.write(text);
      if (String(text).includes('Ready')) say(`open http://127.0.0.1:${port}  (Ctrl-C stops it)`);
    });
    await Promise.race([new Promise((resolve) => server.once('exit', resolve)), database.closed]);
    if (!stopping) say('one of the two servers ended by itself; stopping the other.');
  } finally {
    await stop();
  }
});
