/**
 * Times the pages of a running application: first byte and size of the HTML, medians over rounds. With a large seed
 * (`npm run seed:large`) it shows whether lists grow. `npm run bench:pages -- http://127.0.0.1:3000`. Asserts nothing.
 */
import { signInCookie } from '../scripts/lib/signIn.mjs';

const base = process.argv[2] ?? 'http://127.0.0.1:3000';
// Somebody who sees every page; the server runs as the demonstration.
const headers = { cookie: await signInCookie(base, 'Henrike') };
const ROUNDS = 15;
/** A month that is over: the one that runs may have a day in it. */
const lastMonth = new Date();
lastMonth.setUTCDate(0);
const PAGES = [
  '/',
  '/?q=blade',
  '/?show=closed',
  '/machines',
  '/machines?q=groomer',
  '/machines?after=G-4',
  '/machines/G-2',
  '/new',
  '/api/functions?q=tilt',
  '/api/find?q=G-2',
  '/jobs/417',
  '/jobs/417?step=make-safe',
  '/codes',
  '/policy',
  '/people',
  '/trail',
  '/tables',
  '/drift',
  '/drift?all=yes',
  '/drift?machine=W-3',
  '/retests',
  '/retests/round?days=7',
  '/record',
  `/month?m=${lastMonth.toISOString().slice(0, 7)}`,
  '/parts',
  '/machines/G-2/history',
  '/classes/Groomer',
  '/machines?class=Groomer',
  '/drift?class=Groomer',
  '/api/find?q=zzz',
  '/?show=closed&q=blade',
];
const median = (list: number[]) => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)]!;

for (const page of PAGES) {
  const firstByte: number[] = [];
  let bytes = 0;
  let status = 0;
  for (let round = 0; round < ROUNDS + 1; round++) {
    const started = performance.now();
    const answer = await fetch(base + page, { headers });
    const reader = answer.body!.getReader();
    let size = 0;
    let first = 0;
    for (let chunk = await reader.read(); !chunk.done; chunk = await reader.read()) {
      if (first === 0) first = performance.now() - started;
      size += chunk.value.length;
    }
    status = answer.status;
    bytes = size;
    // The first one warms the server.
    if (round > 0) firstByte.push(first);
  }
  process.stdout.write(
    `${page.padEnd(26)} ${status}  first byte ${median(firstByte).toFixed(0).padStart(4)} ms (${Math.max(...firstByte).toFixed(0)} most)  ${(bytes / 1000).toFixed(1).padStart(7)} kB\n`,
  );
}
