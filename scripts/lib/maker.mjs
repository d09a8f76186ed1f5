import { fork } from 'node:child_process';
import { once } from 'node:events';
import { chmodSync, mkdtempSync, rmSync } from 'node:fs';
import { Agent } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createProxyServer } from 'httpxy';
import { refuse } from './application.mjs';
import { pauseMs, WELL_MS } from './keeper.mjs';
import { ROOT } from './system.mjs';

/** For which shed the process that hears everybody found a request to be; it says so itself, whatever a client sent. */
export const SHED_HEADER = 'x-spiraxis-shed';
/** A first start that takes longer is not waited for. */
const READY_MS = 30_000;
/** Figures that come later are left out. */
const FIGURES_MS = 2000;
/** As long as a request may take. */
const PATIENCE_MS = 300_000;

/**
 * Keeps the processes running that make what is read (`maker.mjs`), and hands requests over to whichever has least to do.
 *
 * @param {number} count of them
 * @returns `hand(request, response, shed, scheme)`, which waits for the first start and gives false where none is there and
 *   nothing was said yet; `figures`, what each counted of itself; `stop`
 */
export function startMakers(count) {
  // Nobody but who started them may ask them: they take what they are told for judged.
  const folder = mkdtempSync(join(tmpdir(), 'spiraxis-maker-'));
  chmodSync(folder, 0o700);
  process.on('exit', () => rmSync(folder, { recursive: true, force: true }));
  const makers = Array.from({ length: count }, (_one, at) => startMaker(join(folder, `${at}.sock`)));
  const begun = Promise.all(makers.map(({ ready }) => ready));
  return {
    hand: async (request, response, shed, scheme) => {
      await begun;
      // Whoever asked has gone meanwhile.
      if (response.destroyed) return true;
      const [least] = makers.filter(({ there }) => there()).sort((a, b) => a.busy() - b.busy());
      if (!least) return false;
      request.headers[SHED_HEADER] = shed;
      request.headers['x-forwarded-proto'] ??= scheme;
      return least.hand(request, response);
    },
    figures: () => Promise.all(makers.map(({ figures }) => figures())),
    stop: () => makers.forEach(({ stop }) => stop()),
  };
}

function startMaker(socketPath) {
  const proxy = createProxyServer({
    target: { socketPath },
    agent: new Agent({ keepAlive: true }),
    proxyTimeout: PATIENCE_MS,
  });
  let child = null;
  let there = false;
  let busy = 0;
  let stopping = false;
  let ends = 0;
  let timer = null;
  let sayReady;
  const ready = new Promise((resolve) => {
    sayReady = resolve;
    setTimeout(resolve, READY_MS).unref();
  });
  const start = () => {
    const began = Date.now();
    rmSync(socketPath, { force: true });
    child = fork(join(ROOT, 'scripts', 'maker.mjs'), [], {
      cwd: ROOT,
      env: { ...process.env, SPIRAXIS_MAKER_SOCKET: socketPath },
      // A figure may be no number, which JSON has no word for.
      serialization: 'advanced',
    });
    child.on('message', (message) => {
      if (message !== 'ready') return;
      there = true;
      sayReady();
    });
    const over = (why) => {
      there = false;
      if (stopping) return;
      ends = Date.now() - began > WELL_MS ? 1 : ends + 1;
      const pause = pauseMs(ends);
      process.stderr.write(
        `spiraxis: a process that makes pages ended (${why}); it is started again in ${pause / 1000} s, and pages are made without it meanwhile.\n`,
      );
      timer = setTimeout(start, pause);
    };
    child.once('error', (error) => over(error.message));
    child.once('exit', (status, signal) => over(signal ?? `status ${status}`));
  };
  start();
  return {
    ready,
    there: () => there,
    busy: () => busy,
    hand: async (request, response) => {
      busy++;
      try {
        await proxy.web(request, response);
        return true;
      } catch (error) {
        // It ended in the middle: what was not begun can be done again, where nothing was read off the request.
        if (response.headersSent || response.destroyed) {
          response.destroy();
          return true;
        }
        if (request.method === 'GET' || request.method === 'HEAD') return false;
        process.stderr.write(
          `spiraxis: ${request.method} ${request.url} was lost on its way: ${error.message}\n`,
        );
        refuse(response, 503, 'The server lost this in the middle. Nothing was kept; send it again.');
        return true;
      } finally {
        busy--;
      }
    },
    figures: async () => {
      if (!there || !child.connected) return [];
      const answer = once(child, 'message', { signal: AbortSignal.timeout(FIGURES_MS) });
      child.send('figures', () => undefined);
      // One that ends or has its hands full says nothing this time.
      return answer.then(
        ([{ figures }]) => figures,
        () => [],
      );
    },
    stop: () => {
      stopping = true;
      clearTimeout(timer);
      child?.kill('SIGTERM');
    },
  };
}
