/**
 * A shed at work: so many people, each doing something every two seconds (70 % read a page or a list, 25 % write an entry,
 * 5 % send a picture), with event lines open, against a running application with the demo data. Prints waits by kind,
 * errors, what idle lines cost, what a long log costs, and what many reports do to a write. Changes the database.
 *
 *   npm run bench:load -- http://127.0.0.1:3000 50 200 [--crowds]   (crowds and idle lines alone)
 */
import { readFileSync } from 'node:fs';
import { Agent, request } from 'node:http';
import { performance } from 'node:perf_hooks';
import { parseArgs } from 'node:util';
import sharp from 'sharp';
import { v7 as uuidv7 } from 'uuid';
import { PIECE } from '@/features/desk/log/protocol';
import { signInCookie } from '../scripts/lib/signIn.mjs';

/** Who writes: everybody signs in on a device of their own. */
const PEOPLE = ['Tove', 'Ilse', 'Rasmus', 'Henrike', 'Maike'];

const { positionals, values } = parseArgs({
  allowPositionals: true,
  options: { crowds: { type: 'boolean', default: false } },
});
const [base = 'http://127.0.0.1:3000', ...crowds] = positionals;
const SECONDS = 30;
/** Of a few people before the first crowd: a shed's server has run for days, and what it does often is compiled. */
const WARM = { people: 20, seconds: 15 };
const ACT_MS = 2000;
const LINES = 300;
const { hostname, port } = new URL(base);

/** One answer: its status and how long it took, milliseconds. */
interface Taken {
  status: number;
  ms: number;
  text: string;
}

/** Tablets have addresses of their own: on loopback 127.0.1.x. */
const agents = Array.from(
  { length: 250 },
  (_one, at) => new Agent({ keepAlive: true, localAddress: `127.0.1.${1 + at}` }),
);

const nameOf = (agent: Agent) => PEOPLE[agents.indexOf(agent) % PEOPLE.length]!;
const cookies = new Map<Agent, string>();
for (const agent of agents) cookies.set(agent, await signInCookie(base, nameOf(agent)));

function call(agent: Agent, path: string, body?: { type: string; bytes: Buffer }): Promise<Taken> {
  const began = performance.now();
  return new Promise((resolve) => {
    const done = (status: number, text: string) => resolve({ status, ms: performance.now() - began, text });
    const asked = request(
      {
        hostname,
        port,
        path,
        agent,
        method: body ? 'POST' : 'GET',
        headers: {
          cookie: cookies.get(agent)!,
          ...(body ? { 'content-type': body.type, 'content-length': body.bytes.length } : {}),
        },
      },
      (response) => {
        const pieces: Buffer[] = [];
        response.on('data', (piece: Buffer) => pieces.push(piece));
        response.on('end', () => done(response.statusCode ?? 0, Buffer.concat(pieces).toString()));
        response.on('error', () => done(0, 'broken off'));
      },
    );
    asked.on('error', (error) => done(0, error.message));
    asked.end(body?.bytes);
  });
}

function entryBody(agent: Agent, count = 1): { type: string; bytes: Buffer } {
  const entries = Array.from({ length: count }, () => ({
    id: uuidv7(),
    at: new Date().toISOString(),
    person: nameOf(agent),
    type: 'looked',
    body: { check: `plug X${Math.floor(Math.random() * 90)} seated`, finding: 'good' },
  }));
  return { type: 'application/json', bytes: Buffer.from(JSON.stringify({ entries })) };
}

function share(sorted: readonly number[], part: number): number {
  return sorted[Math.min(sorted.length - 1, Math.floor(part * sorted.length))] ?? NaN;
}

function line(name: string, all: readonly Taken[]): string {
  const ms = all.map((one) => one.ms).sort((a, b) => a - b);
  const wrong = all.filter(({ status }) => status !== 200);
  const figures = [0.5, 0.95, 0.99, 1].map((part) => share(ms, part === 1 ? 0.9999 : part).toFixed(0));
  const why = [...new Set(wrong.map(({ status }) => status))].join(', ');
  return `  ${name.padEnd(16)} ${String(all.length).padStart(6)}   p50 ${figures[0]} ms, p95 ${figures[1]}, p99 ${figures[2]}, most ${figures[3]}; errors ${wrong.length}${why ? ` (${why})` : ''}`;
}

/** What a process took so far, seconds of a core, and holds, MB. */
interface Process {
  cpuSeconds: number;
  megabytes: number;
}

function processOf(pid: string): Process {
  const stat = readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ')[1]!.split(' ');
  const status = readFileSync(`/proc/${pid}/status`, 'utf8');
  return {
    cpuSeconds: (Number(stat[11]) + Number(stat[12])) / 100,
    megabytes: Number(/VmRSS:\s+(\d+)/.exec(status)![1]) / 1024,
  };
}

/** The server's processes, the one that hears everybody first, by its number; none where that was not said. */
function serverProcesses(): Process[] {
  const pid = process.env.SPIRAXIS_SERVER_PID;
  if (!pid) return [];
  const makers = readFileSync(`/proc/${pid}/task/${pid}/children`, 'utf8').split(' ').filter(Boolean);
  return [pid, ...makers].map(processOf);
}

/** What the server took since then, of a core, and holds now. */
function serverWords(before: readonly Process[], seconds: number): string {
  return serverProcesses()
    .map(({ cpuSeconds, megabytes }, at) => {
      const share = (100 * (cpuSeconds - (before[at]?.cpuSeconds ?? 0))) / seconds;
      return `; ${at === 0 ? 'server' : `maker ${at}`} ${share.toFixed(1)} % of a core, ${megabytes.toFixed(0)} MB`;
    })
    .join('');
}

function openLines(count: number, jobs: readonly number[]): () => void {
  const open = Array.from({ length: count }, (_one, at) => {
    const asked = request({
      hostname,
      port,
      path: `/api/jobs/${jobs[at % jobs.length]}/events?after=100000000`,
      localAddress: `127.0.1.${1 + (at % 250)}`,
      headers: { cookie: cookies.get(agents[at % agents.length]!)! },
    });
    asked.on('response', (response) => response.resume());
    asked.on('error', () => undefined);
    asked.end();
    return asked;
  });
  return () => open.forEach((one) => one.destroy());
}

const sleep = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

/** So many people for so long; gives what each kind of request took. */
async function work(people: number, seconds: number, jobs: readonly number[], picture: Buffer) {
  const taken = { read: [] as Taken[], entry: [] as Taken[], picture: [] as Taken[] };
  const until = performance.now() + seconds * 1000;
  const reads = (job: number) => [
    '/',
    `/jobs/${job}`,
    '/machines',
    `/api/find?q=tilt`,
    '/api/functions?q=blade',
  ];
  await Promise.all(
    Array.from({ length: people }, async (_one, at) => {
      const agent = agents[at % agents.length]!;
      await sleep(Math.random() * ACT_MS);
      while (performance.now() < until) {
        const began = performance.now();
        const job = jobs[Math.floor(Math.random() * jobs.length)]!;
        const dice = Math.random();
        if (dice < 0.7) {
          const all = reads(job);
          taken.read.push(await call(agent, all[Math.floor(Math.random() * all.length)]!));
        } else if (dice < 0.95)
          taken.entry.push(await call(agent, `/api/jobs/${job}/entries`, entryBody(agent)));
        else taken.picture.push(await call(agent, '/api/photos', { type: 'image/jpeg', bytes: picture }));
        await sleep(Math.max(0, ACT_MS - (performance.now() - began)));
      }
    }),
  );
  return taken;
}

async function crowd(people: number, jobs: readonly number[], picture: Buffer): Promise<void> {
  const before = serverProcesses();
  const started = performance.now();
  const taken = await work(people, SECONDS, jobs, picture);
  const all = Object.values(taken).flat();
  const server = serverWords(before, (performance.now() - started) / 1000);
  process.stdout.write(`${people} people, ${(all.length / SECONDS).toFixed(1)} requests a second${server}\n`);
  for (const [name, some] of Object.entries(taken)) process.stdout.write(`${line(name, some)}\n`);
}

async function idleLines(jobs: readonly number[]): Promise<() => void> {
  const close = openLines(LINES, jobs);
  await sleep(3000);
  const before = serverProcesses();
  await sleep(10_000);
  process.stdout.write(`${LINES} idle event lines${serverWords(before, 10)}\n`);
  return close;
}

/** What one write and one page cost on a job with a short log and on one with a long one. */
async function longLog(short: number, long: number): Promise<void> {
  const agent = agents[0]!;
  const body = entryBody(agent, 100);
  const all = 20_000;
  for (let at = 0; at < all / 100; at++) {
    const { status, text } = await call(
      agent,
      `/api/jobs/${long}/entries`,
      at === 0 ? body : entryBody(agent, 100),
    );
    if (status !== 200) throw new Error(`the long log could not be filled: ${status} ${text.slice(0, 200)}`);
  }
  await sleep(3000);
  for (const [name, job] of [
    ['short log', short],
    [`${all} entries`, long],
  ] as const) {
    const writes: Taken[] = [];
    const pages: Taken[] = [];
    for (let round = 0; round < 20; round++) {
      writes.push(await call(agent, `/api/jobs/${job}/entries`, entryBody(agent)));
      await sleep(50);
    }
    for (let round = 0; round < 8; round++) pages.push(await call(agent, `/jobs/${job}`));
    const pieces: Taken[] = [];
    for (let after = 0; after < writes.length + (job === long ? all : 0); after += PIECE)
      pieces.push(await call(agent, `/api/jobs/${job}/entries?after=${after}`));
    process.stdout.write(
      `${name}\n${line('write', writes)}\n${line('page', pages)}  ${(pages[0]!.text.length / 1000).toFixed(0)} kB\n${line('piece of the log', pieces)}\n`,
    );
  }
}

/** Writes beside twenty reports asked for at once. */
async function manyReports(job: number): Promise<void> {
  let done = false;
  const writes: Taken[] = [];
  const reports = Promise.all(
    agents.slice(0, 20).map((agent) => call(agent, `/api/jobs/${job}/report.pdf`)),
  ).then((all) => {
    done = true;
    return all;
  });
  while (!done) {
    writes.push(await call(agents[30]!, `/api/jobs/${job}/entries`, entryBody(agents[30]!)));
    await sleep(30);
  }
  process.stdout.write(
    `20 reports at once\n${line('report', await reports)}\n${line('write beside', writes)}\n`,
  );
}

const found = JSON.parse((await call(agents[0]!, '/api/find?q=')).text) as { jobs: { number: number }[] };
const jobs = found.jobs.map(({ number }) => number).slice(0, 8);
if (jobs.length < 3) throw new Error(`${base} has no demo jobs; seed it first`);
// As a camera's: light that changes slowly, edges, and a little grain.
const scene = Buffer.alloc(2400 * 1800 * 3);
for (let at = 0; at < scene.length; at++) {
  const [x, y] = [Math.floor(at / 3) % 2400, Math.floor(at / 7200)];
  const edge = (x >> 7) % 3 === 0 && (y >> 6) % 4 === 0 ? 60 : 0;
  scene[at] = 90 + 50 * Math.sin(x / 400) * Math.cos(y / 300) + edge + 8 * Math.random();
}
const picture = await sharp(scene, { raw: { width: 2400, height: 1800, channels: 3 } })
  .jpeg({ quality: 60 })
  .toBuffer();
process.stdout.write(`pictures of ${(picture.length / 1e6).toFixed(1)} MB, ${jobs.length} jobs\n`);
if (!values.crowds) await manyReports(jobs[0]!);
const close = await idleLines(jobs);
await work(WARM.people, WARM.seconds, jobs, picture);
for (const people of crowds.length > 0 ? crowds.map(Number) : [50, 200]) await crowd(people, jobs, picture);
close();
if (!values.crowds) await longLog(jobs[1]!, jobs[2]!);
process.exit(0);
