/**
 * The application itself, as each process that runs it asks it: `serve.mjs`, which hears everybody, and `maker.mjs`, which
 * makes what is read.
 */
import { AsyncLocalStorage } from 'node:async_hooks';
import next from 'next';
import { ROOT } from './system.mjs';

/** For whom something is done, as the code on the server asks for it; see `src/db/shed.ts`. */
const shed = (globalThis.spiraxisShed ??= new AsyncLocalStorage());

/** What the code on the server left in the process; see `src/db/shed.ts`. */
export const held = (name) => globalThis.spiraxisHeld?.get(name);

/** Leaves something in the process for the code on the server. */
export const hold = (name, thing) => (globalThis.spiraxisHeld ??= new Map()).set(name, thing);

/** What a page wishes is followed until the code on the server has it; see `src/features/gate/wish.ts`. */
const wishes = held('wishes') ?? new AsyncLocalStorage();
hold('wishes', wishes);

/** Pages are sent what their forms and keys wish; Next.js reads it, before any of our own code is asked. */
function isWish({ method, url }) {
  return method === 'POST' && !url.startsWith('/api/');
}

/**
 * Not all that fails is a failure of the server's: what was sent and stands for no wish is answered with 400, and while the database is
 * away it is asked to come again.
 */
function sayWhose(response, wish) {
  const write = response.writeHead.bind(response);
  response.writeHead = (status, ...rest) => {
    if (status !== 500) return write(status, ...rest);
    if (wish?.isRead === false) return write(400, ...rest);
    if (!held('away')?.isJustNow()) return write(500, ...rest);
    response.setHeader('retry-after', '2');
    return write(503, ...rest);
  };
}

/**
 * Loads the application.
 *
 * @returns how to have a request answered, for the shed of this name; '' where there is but one
 */
export async function openApplication({ hostname, port }) {
  const app = next({ dev: false, dir: ROOT, hostname, port });
  const handle = app.getRequestHandler();
  await app.prepare();
  return (request, response, name) => {
    const wish = isWish(request) ? { isRead: false } : null;
    sayWhose(response, wish);
    return wishes.run(wish, () => shed.run(name, () => handle(request, response)));
  };
}

/** Writes a refusal as every route does: a code for programs and a sentence for people. */
export function refuse(response, status, message) {
  const code = status === 503 ? 'busy' : status === 500 ? 'failed' : 'bad-input';
  response.writeHead(status, {
    'content-type': 'application/json',
    'cache-control': 'no-store',
    connection: 'close',
  });
  response.end(JSON.stringify({ code, message }));
}

/** Says in the log why the server failed, and in the answer that it did. */
export function sayFailed(response, error) {
  process.stderr.write(`spiraxis: ${error?.stack ?? error}\n`);
  if (!response.headersSent) refuse(response, 500, 'The server failed at this; its log says why.');
  else response.destroy();
}
