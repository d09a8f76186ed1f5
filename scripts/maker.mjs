/**
 * Makes what is read: pages, reports, files and pictures, in a process of its own, so that whoever writes an entry does not
 * wait behind them. `serve.mjs` starts it, hands it requests over a socket that nobody else can open, and has judged each of
 * them before; it ends with whoever started it.
 */
import { rmSync } from 'node:fs';
import { createServer } from 'node:http';
import { setPriority } from 'node:os';
import { dirname } from 'node:path';
import { held, openApplication, sayFailed } from './lib/application.mjs';
import { letGo } from './lib/letGo.mjs';
import { SHED_HEADER } from './lib/maker.mjs';

/** A little behind the process that takes entries: where a core is short, an entry goes first. */
const PRIORITY = 5;
/** What is under way at the end may come to its end. */
const LEAVE_MS = 4000;

if (!process.send || !process.env.SPIRAXIS_MAKER_SOCKET) {
  process.stderr.write('spiraxis: not started: scripts/serve.mjs starts this one.\n');
  process.exit(1);
}
process.on('disconnect', () => {
  // Whoever started it was killed, and could not clear up.
  rmSync(dirname(process.env.SPIRAXIS_MAKER_SOCKET), { recursive: true, force: true });
  process.exit(0);
});
setPriority(PRIORITY);

const answer = await openApplication({
  hostname: process.env.SPIRAXIS_ADDRESS ?? '127.0.0.1',
  port: Number(process.env.SPIRAXIS_PORT ?? 3000),
});
// How long a request may take is watched by who hands it over.
const server = createServer(
  { requestTimeout: 0, headersTimeout: 0, keepAliveTimeout: 0 },
  (request, response) => {
    letGo(request, response);
    const { [SHED_HEADER]: name, ...headers } = request.headers;
    request.headers = headers;
    answer(request, response, name ?? '').catch((error) => sayFailed(response, error));
  },
);
// Whoever started it asks for the figures, and for nothing else.
process.on('message', () => {
  Promise.resolve(held('metrics')?.registry.getMetricsAsJSON() ?? []).then(
    (figures) => process.send({ figures }),
    (error) => process.stderr.write(`spiraxis: no figures: ${error?.message}\n`),
  );
});
server.listen(process.env.SPIRAXIS_MAKER_SOCKET, () => process.send('ready'));

for (const signal of ['SIGINT', 'SIGTERM'])
  process.on(signal, () => {
    server.close(() => process.exit(0));
    server.closeIdleConnections();
    setTimeout(() => process.exit(0), LEAVE_MS).unref();
  });
