/**
 * The application over HTTP: Next.js behind Node's own server, so that what no route ever sees is answered here with a
 * sentence, and nobody but the socket says where a request comes from. What is written is taken here, and who follows a job
 * is told from here; what is read is made by a process beside this one (`maker.mjs`), so that no entry waits behind a page.
 *
 * `SPIRAXIS_PORT`, `SPIRAXIS_ADDRESS` (127.0.0.1); `SPIRAXIS_CERT` and `SPIRAXIS_KEY` for TLS of its own; `SPIRAXIS_PROXY=1` behind a proxy
 * of one's own, `SPIRAXIS_TLS=1` where that speaks TLS; `SPIRAXIS_SHEDS=sheds.example` for many sheds, each under its own
 * name, as north.sheds.example; `SPIRAXIS_MAKERS=0` where memory is short and one process is to do all, a larger number for a machine of many cores.
 */
import { readFileSync } from 'node:fs';
import { createServer, get } from 'node:http';
import { createServer as createSecureServer, get as getSecure } from 'node:https';
import { once } from 'node:events';
import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import pLimit from 'p-limit';
import sirv from 'sirv';
import { ANSWER_HEADERS } from './lib/answerHeaders.mjs';
import { held, hold, openApplication, refuse, sayFailed } from './lib/application.mjs';
import { letGo } from './lib/letGo.mjs';
import { startMakers } from './lib/maker.mjs';
import { ROOT } from './lib/system.mjs';

const port = Number(process.env.SPIRAXIS_PORT ?? 3000);
const hostname = process.env.SPIRAXIS_ADDRESS ?? '127.0.0.1';
const behindProxy = process.env.SPIRAXIS_PROXY === '1';
const LONGEST_ADDRESS = 8000;
/** A request that is not here by then is cut off; a picture over a slow radio link takes minutes. */
const REQUEST_MS = 300_000;
const HEADERS_MS = 15_000;
/**
 * A line that is kept open is not closed before whoever keeps it does so, be it a browser or a proxy (a minute with common ones): what is
 * asked over it in that very moment would be lost.
 */
const KEPT_OPEN_MS = 75_000;
const MOST_CONNECTIONS = 2000;
/** Processes that make what is read, beside this one: all cores but one, which is for what is written and for the database. */
const MAKERS = Number(process.env.SPIRAXIS_MAKERS ?? Math.min(4, Math.max(1, availableParallelism() - 1)));
/** What is under way at the end may come to its end. */
const LEAVE_MS = 4000;

/**
 * Pages that are made at a time: enough that one is made while another waits for the database. An entry never waits behind all the pages of
 * a full shed: those wait for each other, and each step of an entry behind two at most.
 */
const PAGES_AT_ONCE = 2 * Math.max(1, MAKERS);
const MOST_PAGES_WAITING = 300;

/** A certificate of its own: then cookies go over nothing but TLS. */
const secure = Boolean(process.env.SPIRAXIS_CERT && process.env.SPIRAXIS_KEY);
if (secure) process.env.SPIRAXIS_TLS = '1';
const scheme = secure ? 'https' : 'http';

const LOOPBACK = ['127.0.0.1', 'localhost', '::1'];
const LEAST_SECRET = 32;

/** Why it would not be safe to begin; null where it is. */
function unsafe() {
  if ((process.env.SPIRAXIS_SECRET ?? '').length < LEAST_SECRET)
    return `SPIRAXIS_SECRET has under ${LEAST_SECRET} characters: nobody could sign in. Give it a long random one, and keep it.`;
  if (LOOPBACK.includes(hostname)) return null;
  if (process.env.SPIRAXIS_DEMO === '1')
    return `the demonstration lets anybody in, and would be heard on ${hostname}; it is for this machine alone.`;
  if (!secure && !(behindProxy && process.env.SPIRAXIS_TLS === '1'))
    return `it would be heard on ${hostname} without TLS. Put a proxy with a certificate before it (docs/serving.md), and say so with SPIRAXIS_PROXY=1 and SPIRAXIS_TLS=1.`;
  return null;
}

const danger = unsafe();
if (danger) {
  process.stderr.write(`spiraxis: not started: ${danger}\n`);
  process.exit(1);
}

const under = process.env.SPIRAXIS_SHEDS ?? '';
/** What is about the server and no shed. */
const OF_THE_SERVER = ['/api/live', '/api/health', '/api/metrics'];

/** The shed that a request is for, by the name that it calls; null where that is none. */
function shedOf({ headers }) {
  const name = (headers.host ?? '').toLowerCase().replace(/:\d+$/, '');
  return name.endsWith(`.${under}`) ? name.slice(0, -under.length - 1) : null;
}

let leaving = false;
const pages = pLimit(PAGES_AT_ONCE);
const makers = MAKERS > 0 ? startMakers(MAKERS) : null;
hold('figures beside', { ask: () => (makers ? makers.figures() : Promise.resolve([])) });
const handle = await openApplication({ hostname, port });

const BUILT = '/_next/static';
/** Files of the build, each with its compressed copies beside it (`scripts/compress.mjs`); their names change with what is in them. */
const built = sirv(join(ROOT, '.next', 'static'), {
  brotli: true,
  gzip: true,
  etag: true,
  immutable: true,
  maxAge: 365 * 24 * 3600,
  setHeaders: (response) => ANSWER_HEADERS.forEach(({ key, value }) => response.setHeader(key, value)),
});

/** What is made from the whole of a page's data; neither a file nor an answer to a program. */
function isPage({ method, url }) {
  return method === 'GET' && !url.startsWith('/api/') && !url.startsWith('/_next/');
}

/** Lines that stay open, what is said of this very process, and devices that it holds. */
const STAYS_HERE =
  /^\/api\/(?:live|health|metrics|meter|session|jobs\/[^/]+\/events|machines\/[^/]+\/bus)(?:[/?]|$)/;
/** A picture is read and made smaller before it is kept. */
const MADE_THERE = /^\/api\/photos(?:\?|$)/;

/** What takes time to make, or to read in: that is done by the process beside this one. */
function isMade({ method, url }) {
  return method === 'GET' || method === 'HEAD' ? !STAYS_HERE.test(url) : MADE_THERE.test(url);
}

/** An address that is one: short enough, and its percent signs stand for whole characters. */
function isAddress(url) {
  try {
    decodeURIComponent(url);
    return true;
  } catch {
    return false;
  }
}

const times = { requestTimeout: REQUEST_MS, headersTimeout: HEADERS_MS, keepAliveTimeout: KEPT_OPEN_MS };
const serverOf = (answer) =>
  secure
    ? createSecureServer(
        {
          ...times,
          cert: readFileSync(process.env.SPIRAXIS_CERT),
          key: readFileSync(process.env.SPIRAXIS_KEY),
          minVersion: 'TLSv1.2',
        },
        answer,
      )
    : createServer(times, answer);
const server = serverOf((request, response) => {
  letGo(request, response);
  const url = request.url ?? '/';
  if (url.length > LONGEST_ADDRESS) return refuse(response, 400, 'The address is too long.');
  if (!url.startsWith('/') || !isAddress(url))
    return refuse(response, 400, 'The address is none: a percent sign in it stands for no character.');
  if (!behindProxy) {
    for (const name of Object.keys(request.headers))
      if (name.startsWith('x-forwarded-')) Reflect.deleteProperty(request.headers, name);
    request.headers['x-forwarded-for'] = request.socket.remoteAddress ?? '';
  }
  const answered = under === '' ? answer(request, response, '') : answerShed(request, response);
  answered.catch((error) => sayFailed(response, error));
});

/** Nothing is handed on before it is known which shed it is for. */
async function answerShed(request, response) {
  const { pathname } = new URL(request.url, 'http://server');
  if (OF_THE_SERVER.includes(pathname) || pathname.startsWith('/_next/'))
    return answer(request, response, '');
  const name = shedOf(request);
  let there;
  try {
    there = name !== null && (await held('shed is there')(name));
  } catch (error) {
    process.stderr.write(`spiraxis: ${name}: ${error?.message}\n`);
    response.setHeader('retry-after', '2');
    return refuse(response, 503, 'The database does not answer. Try again in a moment.');
  }
  if (!there)
    return refuse(
      response,
      421,
      `There is no shed under this name. A shed’s address goes NAME.${under}; ask whoever keeps the server.`,
    );
  return answer(request, response, name);
}

/** Hands a file of the build out; what is none, the application answers. */
async function handOut(request, response, name) {
  const { url, method } = request;
  if (method !== 'GET' && method !== 'HEAD') {
    response.setHeader('allow', 'GET, HEAD');
    return refuse(response, 405, 'The application’s own files are read, and nothing else is done with them.');
  }
  request.url = url.slice(BUILT.length);
  return new Promise((resolve, reject) => {
    response.once('close', resolve);
    built(request, response, () => {
      request.url = url;
      handle(request, response, name).then(resolve, reject);
    });
  });
}

async function answer(request, response, name) {
  if (request.url.startsWith(`${BUILT}/`)) return handOut(request, response, name);
  if (!isPage(request)) return make(request, response, name);
  if (pages.pendingCount > MOST_PAGES_WAITING)
    return refuse(
      response,
      503,
      'The server has its hands full. Nothing was lost; ask again in a few seconds.',
    );
  return pages(() =>
    response.destroyed ? undefined : Promise.race([make(request, response, name), once(response, 'close')]),
  );
}

/** Has a request answered by the process that makes what is read, or, where that is away or this is none for it, here. */
async function make(request, response, name) {
  if (makers && isMade(request) && (await makers.hand(request, response, name, scheme))) return;
  await handle(request, response, name);
}
server.maxConnections = MOST_CONNECTIONS;
// A request that is no HTTP never comes to a handler.
server.on('clientError', (_error, socket) => {
  if (socket.writable)
    socket.end('HTTP/1.1 400 Bad Request\r\nConnection: close\r\nContent-Length: 0\r\n\r\n');
});
server.on('error', (error) => {
  process.stderr.write(`spiraxis: the application cannot listen on ${hostname}:${port} (${error.code}).\n`);
  process.exit(1);
});
server.listen(port, hostname, () => {
  process.stdout.write(`spiraxis: ready on ${scheme}://${hostname}:${port}\n`);
  void warmUp();
});

/** Asks this server for something, whoever its certificate was made out to: it is itself. */
function ask(path) {
  const address = `${scheme}://${hostname}:${port}${path}`;
  return new Promise((resolve, reject) => {
    (secure ? getSecure : get)(address, { rejectUnauthorized: false }, (answer) =>
      answer.resume().on('end', resolve),
    ).on('error', reject);
  });
}

/** Loads what is loaded at its first use, so that nobody waits for it: one request each, one after the other. */
async function warmUp() {
  const job = '/api/jobs/0';
  const pages = [
    '/sign-in',
    '/',
    '/machines',
    '/new',
    '/jobs/0',
    '/jobs/0/report',
    '/machines/-',
    '/policy',
    '/tables',
    '/codes',
  ];
  const routes = [
    `${job}/entries`,
    `${job}/events`,
    `${job}/report.pdf`,
    '/api/photos',
    '/api/find',
    '/api/functions',
    '/api/functions/0',
  ];
  // Whose pages would it ask for?
  for (const path of under === '' ? [...pages, ...routes] : OF_THE_SERVER) {
    if (leaving) return;
    await ask(path)
      // A database that is away now is told of by whoever asks next.
      .catch(() => undefined);
  }
}

for (const signal of ['SIGINT', 'SIGTERM'])
  process.on(signal, () => {
    if (leaving) process.exit(1);
    leaving = true;
    makers?.stop();
    server.close(() => process.exit(0));
    server.closeIdleConnections();
    // Event lines never end by themselves.
    setTimeout(() => server.closeAllConnections(), LEAVE_MS / 4).unref();
    setTimeout(() => process.exit(0), LEAVE_MS).unref();
  });
