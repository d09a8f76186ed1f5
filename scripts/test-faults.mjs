/**
 * What happens when something breaks: people write all the time while the application and the database are killed and
 * frozen, the line between them swallows what is sent, the clock jumps and the database's disk is full. Afterwards every
 * entry that was acknowledged stands in the log exactly once, every refusal was a sentence, and nobody had to help.
 *
 *   npm run test:faults
 */
import { randomBytes } from 'node:crypto';
import { spawn, spawnSync } from 'node:child_process';
import { createServer, connect } from 'node:net';
import { mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import {
  account,
  fault as faultAt,
  recovered as recoveredAt,
  sleep,
  tellRefusals,
  writers,
} from './lib/faults.mjs';
import { keepRunning, pauseMs } from './lib/keeper.mjs';
import { startMariaDb } from './lib/mariadb.mjs';
import { run, say, Stop } from './lib/say.mjs';
import { signInCookie } from './lib/signIn.mjs';
import {
  checkNode,
  checkPort,
  ensureBuild,
  ensurePackages,
  ensureProgram,
  has,
  must,
  read,
  ROOT,
  VAR,
} from './lib/system.mjs';

const port = Number(process.env.SPIRAXIS_TEST_PORT ?? 3140);
const dbPort = Number(process.env.SPIRAXIS_TEST_DB_PORT ?? 33140);
const linePort = dbPort + 1;
const folder = join(VAR, 'faults');
const WRITERS = 6;
const JOBS = [416, 417];
/** Room for the database's files when its disk is to fill up. */
const DISK = '300m';
const base = `http://127.0.0.1:${port}`;
const results = [];
const recovered = (what) => recoveredAt(base, what);
const fault = async (what, known, work) => void results.push(await faultAt(base, what, known, work));

/** A line to the database that can be told to swallow all that is sent on it. */
function lineTo(target) {
  let swallows = false;
  const pairs = new Set();
  const server = createServer((near) => {
    const far = connect(target, '127.0.0.1');
    for (const [from, to] of [
      [near, far],
      [far, near],
    ]) {
      from.on('data', (bytes) => void (swallows || to.write(bytes)));
      from.on('close', () => to.destroy());
      from.on('error', () => to.destroy());
    }
    pairs.add([near, far]);
  });
  server.listen(linePort, '127.0.0.1');
  return {
    swallow: (on) => {
      swallows = on;
    },
    close: () => {
      for (const pair of pairs) for (const socket of pair) socket.destroy();
      server.close();
    },
  };
}

/** Pages that are asked for while the database is silent. */
const PAGES = ['/jobs/416', '/machines', '/'];
/** A page says within three seconds that the database is silent; the rest is for a machine that is at its limit. */
const LONGEST_PAGE_MS = 4000;

/** Asks for pages of a database that is silent: each says so, and is not kept waiting for it twice. */
async function silentPages(cookie) {
  for (const path of PAGES) {
    const began = performance.now();
    const { status } = await fetch(`${base}${path}`, { headers: { cookie }, redirect: 'manual' });
    const took = performance.now() - began;
    if (status !== 503 || took > LONGEST_PAGE_MS)
      throw new Stop(
        `${path} was answered with ${status} after ${(took / 1000).toFixed(1)} s, the database being silent.`,
      );
  }
}

/** The start script: one a folder, a killed one known for dead, several at once, and Ctrl-C. */
async function startScript() {
  const home = join(folder, 'start');
  const env = {
    ...process.env,
    SPIRAXIS_VAR: home,
    SPIRAXIS_PORT: String(port),
    SPIRAXIS_DB_PORT: String(dbPort),
    SPIRAXIS_BUS_PORT: String(linePort),
  };
  const start = () => {
    const child = spawn(process.execPath, ['scripts/demo.mjs'], { cwd: ROOT, env });
    const words = [];
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (text) => words.push(String(text)));
    const ended = new Promise((resolve) => child.once('exit', (status, signal) => resolve(signal ?? status)));
    const until = async (pattern) => {
      for (let waited = 0; !pattern.test(words.join('')); waited += 0.1) {
        if (waited > 90) throw new Stop(`the start never said ${pattern}: ${words.join('').slice(-300)}`);
        await sleep(100);
      }
    };
    return { child, ended, until, words };
  };
  const check = (what, ok) => {
    if (!ok) throw new Stop(`start script: ${what} did not hold.`);
    results.push(`start script: ${what}`);
    say(results.at(-1));
  };
  const three = [start(), start(), start()];
  const outcomes = await Promise.all(
    three.map((one) => Promise.race([one.until(/open http/).then(() => 'runs'), one.ended])),
  );
  check(
    'of three at once one runs and two say why not',
    outcomes.filter((one) => one === 'runs').length === 1 &&
      three.filter(({ words }) => /something runs from this folder|is taken/.test(words.join(''))).length ===
        2,
  );
  const first = three[outcomes.indexOf('runs')];
  first.child.kill('SIGKILL');
  await first.ended;
  const second = start();
  await second.until(/open http/);
  await recovered('the second start');
  check(
    'after one that was killed the next ends what it left and runs',
    /is ended first/.test(second.words.join('')),
  );
  second.child.kill('SIGINT');
  const status = await Promise.race([second.ended, sleep(40_000).then(() => 'never')]);
  const free = await Promise.all(
    [port, dbPort, linePort].map((one) =>
      checkPort(one, 'port', '').then(
        () => true,
        () => false,
      ),
    ),
  );
  check('Ctrl-C stops all of it', status === 0 && free.every(Boolean));
}

/** A disk of its own for the database, small enough to fill; null where this user may not make one. */
function smallDisk() {
  const at = join(folder, 'disk');
  mkdirSync(at, { recursive: true });
  const made = spawnSync('mount', ['-t', 'tmpfs', '-o', `size=${DISK}`, 'spiraxis-faults', at]);
  return made.status === 0 ? at : null;
}

await run(async () => {
  checkNode();
  ensurePackages();
  ensureBuild();
  if (!has('faketime')) ensureProgram('faketime', ['faketime']);
  spawnSync('umount', [join(folder, 'disk')]);
  rmSync(folder, { recursive: true, force: true });
  mkdirSync(folder, { recursive: true });
  const disk = smallDisk();
  if (!disk) say('this user may not mount a disk: a full disk is not tried.');
  const stops = [];
  try {
    let ends = 0;
    let stopping = false;
    const onLost = () => {
      if (!stopping) setTimeout(() => database.start().catch(onLost), pauseMs(++ends));
    };
    const database = await startMariaDb({ folder: join(disk ?? folder, 'mariadb'), port: dbPort, onLost });
    stops.push(async () => {
      stopping = true;
      await database.stop();
    });
    const line = lineTo(dbPort);
    stops.push(async () => line.close());
    must('npx', ['tsx', 'scripts/seed.ts'], {
      env: { ...process.env, SPIRAXIS_DATABASE_URL: database.ownerUrl },
    });
    const clock = join(folder, 'clock');
    writeFileSync(clock, '+0\n');
    const library = spawnSync('sh', ['-c', 'ls /usr/lib/*/faketime/libfaketime.so.1'], {
      encoding: 'utf8',
    }).stdout.trim();
    let pid = 0;
    const server = keepRunning('the application', ['scripts/serve.mjs'], {
      env: {
        ...process.env,
        NODE_ENV: 'production',
        SPIRAXIS_DATABASE_URL: database.url.replace(String(dbPort), String(linePort)),
        SPIRAXIS_PORT: String(port),
        SPIRAXIS_LOG: 'silent',
        SPIRAXIS_DEMO: '1',
        SPIRAXIS_SECRET: randomBytes(48).toString('base64url'),
        LD_PRELOAD: library,
        FAKETIME_TIMESTAMP_FILE: clock,
        FAKETIME_NO_CACHE: '1',
        // Timers go by the clock that nobody sets.
        FAKETIME_DONT_FAKE_MONOTONIC: '1',
      },
      onStart: (started) => {
        pid = started;
      },
    });
    stops.push(server.stop);
    await recovered('the start');
    const { known, stop } = writers(base, JOBS, WRITERS);
    stops.push(stop);
    await sleep(2000);
    for (let round = 1; round <= 4; round++)
      await fault(`application killed, ${round}`, known, async () => {
        process.kill(pid, 'SIGKILL');
        await sleep(500);
      });
    await fault('maker of pages killed', known, async () => {
      const [maker] = read(`/proc/${pid}/task/${pid}/children`).split(' ');
      process.kill(Number(maker), 'SIGKILL');
      await sleep(500);
    });
    for (let round = 1; round <= 3; round++)
      await fault(`database killed, ${round}`, known, async () => {
        process.kill(database.pid(), 'SIGKILL');
        await sleep(500);
      });
    await fault('both killed at once', known, async () => {
      process.kill(database.pid(), 'SIGKILL');
      process.kill(pid, 'SIGKILL');
      await sleep(500);
    });
    const cookie = await signInCookie(base, 'Tove');
    await fault('database frozen, pages asked for', known, async () => {
      process.kill(database.pid(), 'SIGSTOP');
      await silentPages(cookie).finally(() => process.kill(database.pid(), 'SIGCONT'));
    });
    await fault('database frozen for 6 s', known, async () => {
      process.kill(database.pid(), 'SIGSTOP');
      await sleep(6000);
      process.kill(database.pid(), 'SIGCONT');
    });
    await fault('line to the database swallows for 6 s', known, async () => {
      line.swallow(true);
      await sleep(6000);
      line.swallow(false);
    });
    await fault('application frozen for 6 s', known, async () => {
      process.kill(pid, 'SIGSTOP');
      await sleep(6000);
      process.kill(pid, 'SIGCONT');
    });
    for (const jump of ['+3h', '-2h', '+0'])
      await fault(`clock of the server at ${jump}`, known, async () => {
        writeFileSync(clock, `${jump}\n`);
        await sleep(2500);
      });
    if (disk)
      await fault('disk of the database full for 6 s', known, async () => {
        const filler = join(disk, 'filler');
        spawnSync('dd', ['if=/dev/zero', `of=${filler}`, 'bs=1M']);
        // What is free in its own files is soon used up: large entries see to that.
        await sleep(6000);
        rmSync(filler);
      });
    await stop();
    // Counted by the owner, past the broken line.
    await account(known, database.ownerUrl);
    tellRefusals(known);
  } finally {
    for (const stop of stops.toReversed()) await stop();
    if (disk) spawnSync('umount', [disk]);
  }
  await startScript();
  process.stdout.write(`${results.length} passed, 0 failed\n`);
});
