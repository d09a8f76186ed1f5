/**
 * Many sheds on a cluster: three database nodes, two processes of the application and a proxy are started, with so many
 * sheds in them, each a copy of the small demonstration. Measured are what an entry, a page and an open event line cost, in
 * processor time of each part, and how people in all the sheds fare at growing load.
 *
 *   npm run bench:sheds -- [sheds 1000] [people at work …]
 */
import { spawnSync } from 'node:child_process';
import { readFileSync, rmSync } from 'node:fs';
import { Agent, request } from 'node:http';
import { join } from 'node:path';
import { performance } from 'node:perf_hooks';
import { v7 as uuidv7 } from 'uuid';
import { seeding, startCluster } from '../scripts/lib/cluster.mjs';
import { ensureBuild, VAR } from '../scripts/lib/system.mjs';
import { copySheds } from './lib/copySheds';

const UNDER = 'sheds.test';
const PORT = 3280;
const DB_PORT = 33_280;
const PEOPLE = ['Tove', 'Ilse', 'Rasmus', 'Maike'];
const JOBS = [403, 411, 416, 417];
const SECONDS = 30;
/** Somebody at work looks or writes this often; see docs/scale.md. */
const ACT_MS = 20_000;

const [sheds = 1000, ...crowds] = process.argv.slice(2).map(Number);
const sleep = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
const say = (text: string) => process.stdout.write(`${text}\n`);
const agent = new Agent({ keepAlive: true, maxSockets: 400 });

interface Taken {
  status: number;
  ms: number;
  cookies: string[];
  text: string;
}

function call(
  shed: string,
  path: string,
  { cookie = '', json }: { cookie?: string; json?: unknown } = {},
): Promise<Taken> {
  const began = performance.now();
  const body = json === undefined ? null : Buffer.from(JSON.stringify(json));
  return new Promise((resolve) => {
    const done = (status: number, text: string, cookies: string[] = []) =>
      resolve({ status, ms: performance.now() - began, cookies, text });
    const asked = request(
      {
        host: '127.0.0.1',
        port: PORT,
        path,
        agent,
        method: body ? 'POST' : 'GET',
        headers: {
          host: `${shed}.${UNDER}:${PORT}`,
          cookie,
          ...(body ? { 'content-type': 'application/json', 'content-length': body.length } : {}),
        },
      },
      (response) => {
        const pieces: Buffer[] = [];
        response.on('data', (piece: Buffer) => pieces.push(piece));
        response.on('end', () =>
          done(
            response.statusCode ?? 0,
            Buffer.concat(pieces).toString(),
            response.headers['set-cookie'] ?? [],
          ),
        );
        response.on('error', () => done(0, 'broken off'));
      },
    );
    asked.on('error', (error) => done(0, error.message));
    asked.end(body);
  });
}

/** Somebody signed in at a shed. */
interface Person {
  shed: string;
  name: string;
  cookie: string;
}

async function signIn(shed: string, name: string): Promise<Person> {
  const { status, cookies, text } = await call(shed, '/api/session', { json: { name, demo: true } });
  if (status !== 200) throw new Error(`${name} could not sign in at ${shed}: ${status} ${text}`);
  return { shed, name, cookie: cookies.map((line) => line.split(';')[0]).join('; ') };
}

const shedOf = (at: number) => `s${1 + (at % sheds)}`;

/** Does something so many times, eight at once; gives what came of each. */
async function atOnce<T>(count: number, work: (at: number) => Promise<T>): Promise<T[]> {
  const all: T[] = [];
  let next = 0;
  await Promise.all(
    Array.from({ length: 8 }, async () => {
      while (next < count) all.push(await work(next++));
    }),
  );
  return all;
}

const people = (count: number) => atOnce(count, (at) => signIn(shedOf(at), PEOPLE[at % PEOPLE.length]!));

const jobOf = (at: number) => JOBS[at % JOBS.length]!;

function write({ shed, name, cookie }: Person, at: number): Promise<Taken> {
  const entry = {
    id: uuidv7(),
    at: new Date().toISOString(),
    person: name,
    type: 'looked',
    body: { check: `plug X${at % 90} seated`, finding: 'good' },
  };
  return call(shed, `/api/jobs/${jobOf(at)}/entries`, { cookie, json: { entries: [entry] } });
}

const read = ({ shed, cookie }: Person, at: number) =>
  call(shed, at % 3 === 0 ? '/' : `/jobs/${jobOf(at)}`, { cookie });

/** Processor time that a process has used, seconds, and its memory, MB. */
function used(pid: number): { cpu: number; megabytes: number } {
  const stat = readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ')[1]!.split(' ');
  const status = readFileSync(`/proc/${pid}/status`, 'utf8');
  return {
    cpu: (Number(stat[11]) + Number(stat[12])) / 100,
    megabytes: Number(/VmRSS:\s+(\d+)/.exec(status)![1]) / 1024,
  };
}

function share(sorted: readonly number[], part: number): string {
  return (sorted[Math.min(sorted.length - 1, Math.floor(part * sorted.length))] ?? NaN).toFixed(0);
}

function waits(name: string, all: readonly Taken[]): string {
  const ms = all.map((one) => one.ms).sort((a, b) => a - b);
  const wrong = all.filter(({ status }) => status !== 200);
  const why = [...new Set(wrong.map(({ status }) => status))].join(', ');
  return `${name} ${all.length}: p50 ${share(ms, 0.5)} ms, p99 ${share(ms, 0.99)}, most ${share(ms, 0.9999)}, errors ${wrong.length}${why ? ` (${why})` : ''}`;
}

const stops: (() => Promise<void>)[] = [];
const home = join(VAR, 'bench-sheds');
try {
  ensureBuild();
  rmSync(home, { recursive: true, force: true });
  process.env.SPIRAXIS_SHEDS = UNDER;
  const { galera, applications } = await startCluster({
    home,
    port: PORT,
    dbPort: DB_PORT,
    fill: async (ownerUrl: string) => {
      await seeding('scripts/sheds.ts', 'add', 'model')(ownerUrl);
      process.env.SPIRAXIS_SHEDS = '';
      await seeding('scripts/seed.ts', '--small', '--fresh')(ownerUrl.replace(/spiraxis$/, 'spiraxis_model'));
      process.env.SPIRAXIS_SHEDS = UNDER;
      const began = performance.now();
      await copySheds(ownerUrl, 'model', sheds);
      const seconds = (performance.now() - began) / 1000;
      say(`${sheds} sheds made in ${seconds.toFixed(0)} s, ${((1000 * seconds) / sheds).toFixed(0)} ms each`);
    },
    onStop: (one: () => Promise<void>) => stops.push(one),
    database: {
      memory: '512M',
      lasting: false,
      // A thousand sheds have thirty-six thousand tables.
      more: ['--table-open-cache=20000', '--table-definition-cache=20000', '--open-files-limit=100000'],
    },
    env: {
      SPIRAXIS_DEMO: '1',
      SPIRAXIS_ADDRESS: '127.0.0.1',
      SPIRAXIS_BUS_PORT: '0',
      SPIRAXIS_LOG: 'silent',
      SPIRAXIS_SHEDS: UNDER,
      SPIRAXIS_CALLS_A_MINUTE: '1000000',
    },
  });
  const parts = () => ({
    application: applications.map(({ pid }) => used(pid)),
    database: galera.nodes.map((node) => used(node.pid()!)),
  });
  const sum = (all: readonly { cpu: number }[]) => all.reduce((total, { cpu }) => total + cpu, 0);
  /** Until nothing follows any more from what was done: jobs are weighed anew behind an entry. */
  const settled = async () => {
    for (let last = sum(parts().application); ;) {
      await sleep(2000);
      const now = sum(parts().application);
      if (now - last < 0.1) return;
      last = now;
    }
  };
  const cost = async (what: string, count: number, work: () => Promise<unknown>, { goesOn = false } = {}) => {
    const before = parts();
    const started = performance.now();
    await work();
    const after = parts();
    const seconds = (performance.now() - started) / 1000;
    const per = (part: 'application' | 'database') =>
      ((1000 * (sum(after[part]) - sum(before[part]))) / count).toFixed(2);
    say(
      `${what}: ${per('application')} ms of the application’s processor and ${per('database')} ms of the three nodes’ together, ${(count / seconds).toFixed(0)} a second`,
    );
    if (goesOn) return;
    const answered = sum(after.application);
    await settled();
    const followed = (1000 * (sum(parts().application) - answered)) / count;
    if (followed > 1) say(`  and ${followed.toFixed(1)} ms of what follows from it, behind it`);
  };
  /** So many at once, over all sheds. */
  const many = (all: readonly Person[], count: number, work: (one: Person, at: number) => Promise<Taken>) =>
    atOnce(count, (at) => work(all[at % all.length]!, at));
  const first = await people(Math.min(200, sheds));
  // What is loaded and compiled at its first use is no part of what it costs.
  await many(first, 200, read);
  await many(first, 200, write);
  await settled();
  await cost('a signing in', first.length, () => people(first.length));
  await cost('an entry', 2000, async () => say(`  ${waits('entries', await many(first, 2000, write))}`));
  await cost('a page', 600, async () => say(`  ${waits('pages', await many(first, 600, read))}`));
  const memory = () => parts().application.reduce((total, { megabytes }) => total + megabytes, 0);
  const before = memory();
  const lines = first.flatMap((one, at) =>
    Array.from({ length: 3 }, (_one, line) => {
      const asked = request({
        host: '127.0.0.1',
        port: PORT,
        path: `/api/jobs/${jobOf(at + line)}/events?after=1000000`,
        headers: { host: `${one.shed}.${UNDER}:${PORT}`, cookie: one.cookie },
      });
      asked.on('response', (response) => response.resume());
      asked.on('error', () => undefined);
      asked.end();
      return asked;
    }),
  );
  await sleep(5000);
  const idle = 20;
  await cost(
    `a second of ${lines.length} event lines in ${first.length} sheds`,
    idle,
    () => sleep(idle * 1000),
    { goesOn: true },
  );
  say(`  ${((1000 * (memory() - before)) / lines.length).toFixed(0)} kB of memory a line`);
  lines.forEach((line) => line.destroy());

  for (const count of crowds.length > 0 ? crowds : [sheds, 2 * sheds]) {
    const crowd = await people(count);
    const taken = { pages: [] as Taken[], entries: [] as Taken[] };
    const cpu = parts();
    const until = performance.now() + SECONDS * 1000;
    await Promise.all(
      crowd.map(async (one, at) => {
        await sleep(Math.random() * ACT_MS);
        for (let turn = at; performance.now() < until; turn++) {
          const began = performance.now();
          if (turn % 3 === 0) taken.entries.push(await write(one, turn));
          else taken.pages.push(await read(one, turn));
          await sleep(Math.max(0, ACT_MS - (performance.now() - began)));
        }
      }),
    );
    const now = parts();
    const busy = (part: 'application' | 'database') =>
      ((100 * (sum(now[part]) - sum(cpu[part]))) / SECONDS).toFixed(0);
    say(
      `${count} people at work in ${Math.min(sheds, count)} of ${sheds} sheds, ${((taken.pages.length + taken.entries.length) / SECONDS).toFixed(0)} calls a second; application ${busy('application')} % of a processor, database ${busy('database')} %`,
    );
    say(`  ${waits('entries', taken.entries)}`);
    say(`  ${waits('pages', taken.pages)}`);
  }
  const { application, database } = parts();
  say(
    `memory: applications ${application.map(({ megabytes }) => megabytes.toFixed(0)).join(', ')} MB, nodes ${database.map(({ megabytes }) => megabytes.toFixed(0)).join(', ')} MB`,
  );
  say(
    `data of one node: ${spawnSync('du', ['-sh', galera.nodes[0]!.data], { encoding: 'utf8' }).stdout.split('\t')[0]}`,
  );
} finally {
  for (const one of stops.toReversed()) await one();
}
process.exit();
