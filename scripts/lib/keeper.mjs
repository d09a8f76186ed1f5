import { spawn } from 'node:child_process';
import { closeSync, mkdirSync, openSync, readFileSync, rmSync, writeSync } from 'node:fs';
import { join } from 'node:path';
import { keep, read, ROOT, within } from './system.mjs';
import { say, Stop } from './say.mjs';

const FIRST_PAUSE_MS = 500;
const LONGEST_PAUSE_MS = 20_000;
/** Who ran for so long is well again: its next end is the first one. */
export const WELL_MS = 60_000;
const STOP_SECONDS = 10;

/** Scripts that take a folder for themselves: only a process of theirs is a holder, whatever number it has. */
const HOLDERS = ['demo.mjs', 'shop.mjs', 'restore.mjs', 'cluster-demo.mjs'];

/** Time to wait before a start, by how often it ended shortly before. */
export function pauseMs(ends) {
  return Math.min(LONGEST_PAUSE_MS, FIRST_PAUSE_MS * 2 ** Math.max(0, ends - 1));
}

/**
 * Keeps a program running: when it ends without being asked to, by a signal or by itself, it is started again, each time
 * a little later. `stop` asks it to end, and ends it after a while.
 */
export function keepRunning(name, args, { env, onOutput = () => undefined, onStart = () => undefined }) {
  let child = null;
  let ends = 0;
  let timer = null;
  let stopping = false;
  let gone = Promise.resolve();
  const start = () => {
    const began = Date.now();
    child = spawn(process.execPath, args, {
      cwd: ROOT,
      env,
      stdio: ['ignore', 'pipe', 'inherit'],
      detached: true,
    });
    onStart(child.pid);
    child.stdout.on('data', (text) => onOutput(String(text)));
    gone = new Promise((resolve) => {
      const over = (why) => {
        resolve();
        if (stopping) return;
        ends = Date.now() - began > WELL_MS ? 1 : ends + 1;
        const pause = pauseMs(ends);
        say(`${name} ended (${why}); it is started again in ${pause / 1000} s.`);
        timer = setTimeout(start, pause);
      };
      child.once('error', (error) => over(error.message));
      child.once('exit', (status, signal) => over(signal ?? `status ${status}`));
    });
  };
  start();
  return {
    stop: async () => {
      stopping = true;
      clearTimeout(timer);
      child?.kill('SIGTERM');
      await within(gone, STOP_SECONDS, () => child?.kill('SIGKILL'));
    },
  };
}

/** Whether a process runs that was started with these words on its command line. */
function runs(pid, words) {
  try {
    process.kill(pid, 0);
  } catch {
    return false;
  }
  try {
    return readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes(words);
  } catch {
    // No such place on this system: the number alone has to do.
    return true;
  }
}

/**
 * Takes the folder for this start alone. A lock whose start was killed is known for dead by its process; what that start
 * left running is ended first.
 *
 * @returns how to write down what was started, and how to let go
 */
export async function takeFolder(folder) {
  mkdirSync(folder, { recursive: true });
  const lock = join(folder, 'start.lock');
  for (;;) {
    try {
      const file = openSync(lock, 'wx', 0o600);
      writeSync(file, String(process.pid));
      closeSync(file);
      break;
    } catch (error) {
      if (error.code !== 'EEXIST') throw error;
      const pid = Number(read(lock));
      // Made a moment ago and not written yet.
      if (read(lock) === '') await new Promise((resolve) => setTimeout(resolve, 100));
      else if (pid > 0 && pid !== process.pid && HOLDERS.some((script) => runs(pid, script)))
        throw new Stop(
          `something runs from this folder already (process ${pid}); stop it first, or use that one.`,
        );
      else rmSync(lock, { force: true });
    }
  }
  const left = join(folder, 'started.json');
  const started = JSON.parse(read(left) || '[]');
  for (const { pid, words } of started) {
    if (!runs(pid, words)) continue;
    say(`a start that was killed left process ${pid} running; it is ended first.`);
    process.kill(pid, 'SIGTERM');
    for (let waited = 0; runs(pid, words); waited += 0.1) {
      if (waited > STOP_SECONDS) process.kill(pid, 'SIGKILL');
      await new Promise((resolve) => setTimeout(resolve, 100));
    }
  }
  const known = new Map();
  keep(left, '[]');
  return {
    /** Writes down what now runs under a name, so that it is found should this start be killed. */
    note: (name, pid, words) => {
      known.set(name, { pid, words });
      keep(left, JSON.stringify([...known.values()]));
    },
    letGo: () => {
      rmSync(left, { force: true });
      rmSync(lock, { force: true });
    },
  };
}
