/**
 * A storm over a running database: two tabs and two devices write to one job through the real server, which is killed ten
 * times on the way; one device's clock is an hour fast, one runs backwards. At the end every entry that was acknowledged
 * stands once on every side. `SPIRAXIS_DATABASE_URL=… npm run bench:storm -- [entries] [kills]`; needs a build.
 */
import { spawn, type ChildProcess } from 'node:child_process';
import { v7 as uuidv7 } from 'uuid';
import type { Entry } from '../src/core/job/entries';
import { readEntries } from '../src/db/entries';
import { findJob } from '../src/db/jobs';
import { closePool } from '../src/db/pool';
import { JobLog, type LogTransport } from '../src/features/desk/log/JobLog';
import type { SendAnswer, SentEntry } from '../src/features/desk/log/protocol';
import type { Channel, WaitingEntry, WaitingStore } from '../src/features/desk/log/waitingStore';
import { randomBytes } from 'node:crypto';
import { signInCookie } from '../scripts/lib/signIn.mjs';

const PORT = 3188;
const JOB = 417;
const base = `http://127.0.0.1:${PORT}`;
const wanted = Number(process.argv[2] ?? 5000);
const kills = Number(process.argv[3] ?? 10);
const HOUR_MS = 3_600_000;
const sleep = (milliseconds: number) => new Promise((resolve) => setTimeout(resolve, milliseconds));

/** Rows of one browser, shared by its tabs, as its database keeps them. */
function browser() {
  const rows = new Map<string, WaitingEntry>();
  const listeners = new Set<(message: Channel) => void>();
  let busy = false;
  return {
    rows,
    store: (): WaitingStore => {
      let own: ((message: Channel) => void) | null = null;
      return {
        load: () => Promise.resolve([...rows.values()]),
        put: (row) => Promise.resolve(void rows.set(row.entry.id, row)),
        remove: (ids) => Promise.resolve(ids.forEach((id) => rows.delete(id))),
        tell: (message) => {
          for (const listener of listeners) if (listener !== own) setTimeout(() => listener(message), 1);
        },
        follow: (listener) => {
          own = listener;
          listeners.add(listener);
          return () => listeners.delete(listener);
        },
      };
    },
    alone: async (work: () => Promise<void>) => {
      if (busy) return;
      busy = true;
      await work().finally(() => (busy = false));
    },
  };
}

const acknowledged = new Set<string>();
function transport(skewMs: number, cookie: () => string): LogTransport {
  return {
    send: async (entries) => {
      const response = await fetch(`${base}/api/jobs/${JOB}/entries`, {
        method: 'POST',
        headers: { 'content-type': 'application/json', cookie: cookie() },
        body: JSON.stringify({ entries, sentAt: new Date(Date.now() + skewMs).toISOString() }),
      });
      if (!response.ok) return null;
      const answer = (await response.json()) as SendAnswer;
      for (const { id, state } of answer.results) if (state !== 'refused') acknowledged.add(id);
      return answer;
    },
    upload: () => Promise.reject(new Error('no pictures in a storm')),
    // Server-sent events by hand: a line that breaks is called again from the last number.
    follow: (after, on) => {
      const leave = new AbortController();
      void (async () => {
        while (!leave.signal.aborted) {
          try {
            const answer = await fetch(`${base}/api/jobs/${JOB}/events?after=${after()}`, {
              signal: leave.signal,
              headers: { cookie: cookie() },
            });
            const reader = answer.body!.pipeThrough(new TextDecoderStream()).getReader();
            let text = '';
            for (let chunk = await reader.read(); !chunk.done; chunk = await reader.read()) {
              text += chunk.value;
              const parts = text.split('\n\n');
              text = parts.pop()!;
              for (const part of parts)
                if (part.startsWith('data: ')) on.entries(JSON.parse(part.slice(6)) as SentEntry[]);
            }
          } catch {
            on.lost();
          }
          await sleep(300);
        }
      })();
      return () => leave.abort();
    },
  };
}

/** The same for every start: who is signed in stays so. */
const secret = randomBytes(48).toString('base64url');

async function startServer(): Promise<ChildProcess> {
  const server = spawn(process.execPath, ['scripts/serve.mjs'], {
    env: {
      ...process.env,
      SPIRAXIS_DEMO: '1',
      SPIRAXIS_SECRET: secret,
      NODE_ENV: 'production',
      SPIRAXIS_LOG: 'silent',
      SPIRAXIS_PORT: String(PORT),
    },
    // Why it does not come up is said by itself.
    stdio: ['ignore', 'ignore', 'inherit'],
  });
  for (let round = 0; round < 200; round++) {
    const up = await fetch(`${base}/api/health`).then(
      (answer) => answer.ok,
      () => false,
    );
    if (up) return server;
    await sleep(100);
  }
  server.kill('SIGKILL');
  throw new Error(
    'the server did not come up: is there a build, and does the database answer with the demonstration in it?',
  );
}

const [laptop, tablet, phone] = [browser(), browser(), browser()];
const open = (of: ReturnType<typeof browser>, person: string, clock: () => number) => {
  const log = new JobLog(
    [],
    person,
    of.store(),
    transport(clock() - Date.now(), () => cookies.get(of)!),
    {
      now: () => new Date(clock()),
      newId: () => uuidv7(),
      random: Math.random,
      setTimer: (work, milliseconds) => {
        // A storm has no patience: what waits seconds waits tenths.
        const timer = setTimeout(work, milliseconds / 10);
        return () => clearTimeout(timer);
      },
      alone: of.alone,
    },
  );
  return { log, stop: log.start() };
};
const cookies = new Map<object, string>();
let server = await startServer();
for (const [device, name] of [
  [laptop, 'Tove'],
  [tablet, 'Ilse'],
  [phone, 'Rasmus'],
] as const)
  cookies.set(device, await signInCookie(base, name));
const started = Date.now();
const sides = [
  open(laptop, 'Tove', () => Date.now()),
  open(laptop, 'Tove', () => Date.now()),
  open(tablet, 'Ilse', () => Date.now() + HOUR_MS),
  open(phone, 'Rasmus', () => 2 * started - Date.now()),
];

const job = (await findJob(JOB))!;
const before = (await readEntries(job.id)).length;
const written = new Set<string>();
let killed = 0;
const write = (side: number): Entry => {
  const { log } = sides[side]!;
  const n = written.size;
  return n % 3 === 0
    ? log.write({ type: 'looked', body: { check: `storm ${n % 40}`, finding: 'good' } })
    : log.write({
        type: 'reading',
        body: {
          reading: { kind: 'ohms', from: 'X8:1', to: 'GND', setup: { pulled: ['F7'] }, value: 30 + (n % 7) },
          typed: String(30 + (n % 7)),
        },
      });
};
while (written.size < wanted) {
  for (let k = 0; k < 8 && written.size < wanted; k++) written.add(write(written.size % sides.length).id);
  await sleep(4);
  if (killed < kills && written.size >= ((killed + 1) * wanted) / (kills + 1)) {
    killed++;
    server.kill('SIGKILL');
    await sleep(200);
    server = await startServer();
  }
}
const idle = () => sides.every(({ log }) => log.view().waiting.length === 0);
for (let round = 0; round < 1200 && !idle(); round++) await sleep(100);
await sleep(2500);
const stored = (await readEntries(job.id)).slice(before);
const ids = stored.map(({ entry }) => entry.id);
const numbers = stored.map(({ number }) => number);
const missing = [...acknowledged].filter((id) => !ids.includes(id));
const order = ids.join();
const seen = sides.map(({ log }) =>
  log
    .view()
    .entries.slice(before)
    .map(({ id }) => id)
    .join(),
);
process.stdout.write(
  `${JSON.stringify({
    seconds: Math.round((Date.now() - started) / 1000),
    written: written.size,
    killed,
    acknowledged: acknowledged.size,
    stored: ids.length,
    twice: ids.length - new Set(ids).size,
    acknowledgedButMissing: missing.length,
    numbersWithoutGap: numbers.every((number, at) => number === numbers[0]! + at),
    sidesInTheServersOrder: seen.filter((one) => one === order).length,
    stillWaiting: [laptop, tablet, phone].map(({ rows }) => rows.size),
    aside: sides.map(({ log }) => log.view().aside.length),
  })}\n`,
);
for (const { stop } of sides) stop();
server.kill('SIGTERM');
await closePool();
process.exit(missing.length === 0 && ids.length === written.size ? 0 : 1);
