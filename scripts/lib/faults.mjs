import { createConnection } from 'mysql2/promise';
import { v7 as uuidv7 } from 'uuid';
import { say, Stop } from './say.mjs';
import { signInCookie } from './signIn.mjs';

const PEOPLE = ['Tove', 'Ilse', 'Rasmus', 'Maike'];
const RECOVERY_SECONDS = 40;
export const sleep = (ms) => new Promise((resolve) => setTimeout(resolve, ms));

/**
 * People who write to jobs all the time, each entry again and again until the server has it.
 *
 * @param {string} base where the application is
 * @param {number[]} jobs
 * @param {number} count how many people
 */
export function writers(base, jobs, count) {
  const known = {
    acknowledged: new Set(),
    refusals: new Map(),
    /** Answers that were no sentence, and requests that got no answer at all. */
    speechless: [],
    silent: 0,
    lastSilence: '',
    /** The longest that an entry took from its first try until it was acknowledged, milliseconds. */
    longestMs: 0,
  };
  let over = false;
  const one = async (at) => {
    const name = PEOPLE[at % PEOPLE.length];
    let cookie = await signInCookie(base, name);
    while (!over) {
      const id = uuidv7();
      const entry = {
        id,
        at: new Date().toISOString(),
        person: name,
        type: 'looked',
        body: { check: `plug X${at}`, finding: 'good' },
      };
      const began = performance.now();
      for (let done = false; !done && !over;) {
        const answer = await fetch(`${base}/api/jobs/${jobs[at % jobs.length]}/entries`, {
          method: 'POST',
          headers: { 'content-type': 'application/json', cookie },
          body: JSON.stringify({ entries: [entry] }),
          signal: AbortSignal.timeout(8000),
        }).catch((error) => {
          known.lastSilence = `${error?.name} ${error?.cause?.code ?? ''}`;
          return null;
        });
        const text = (await answer?.text().catch(() => '')) ?? '';
        const body = jsonOrNull(text);
        done = body?.results?.[0]?.state === 'added' || body?.results?.[0]?.state === 'known';
        if (done) {
          known.acknowledged.add(id);
          known.longestMs = Math.max(known.longestMs, performance.now() - began);
        } else if (!answer || text === '') known.silent++;
        else if (typeof body?.message === 'string' && /[.]$/.test(body.message))
          known.refusals.set(body.message, (known.refusals.get(body.message) ?? 0) + 1);
        else known.speechless.push(`${answer.status} ${text.slice(0, 120)}`);
        // A clock that jumped has signed everybody out.
        if (answer?.status === 401) cookie = await signInCookie(base, name).catch(() => cookie);
        if (!done) await sleep(200);
      }
      await sleep(30);
    }
  };
  const all = Promise.all(Array.from({ length: count }, (_one, at) => one(at)));
  return {
    known,
    stop: async () => {
      over = true;
      await all;
    },
  };
}

function jsonOrNull(text) {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}

/** Waits until the application and its database answer; gives the seconds. */
export async function recovered(base, what) {
  const began = Date.now();
  for (;;) {
    const ok = await fetch(`${base}/api/health`, { signal: AbortSignal.timeout(4000) }).then(
      (answer) => answer.ok,
      () => false,
    );
    const seconds = (Date.now() - began) / 1000;
    if (ok) return seconds;
    if (seconds > RECOVERY_SECONDS) throw new Stop(`${what}: not well again after ${RECOVERY_SECONDS} s.`);
    await sleep(200);
  }
}

/**
 * Does something bad while people write, and waits until they write again.
 *
 * @param {ReturnType<typeof writers>['known']} known
 * @param {() => Promise<string[]>} [look] what to say where nobody writes any more
 * @returns {Promise<string>} what was seen
 */
export async function fault(base, what, known, work, look = async () => []) {
  const before = known.acknowledged.size;
  known.longestMs = 0;
  await work();
  const seconds = await recovered(base, what);
  const over = Date.now();
  const then = known.acknowledged.size;
  while (known.acknowledged.size === then && Date.now() - over < RECOVERY_SECONDS * 1000) await sleep(50);
  const first = (Date.now() - over) / 1000;
  await sleep(1500);
  const after = known.acknowledged.size;
  if (after === then) {
    sayRefusals(known);
    for (const line of await look()) say(line);
    throw new Stop(`${what}: nothing was written within ${RECOVERY_SECONDS} s afterwards.`);
  }
  const words = `${what}: well again ${seconds.toFixed(1)} s after it was over, the next entry ${first.toFixed(1)} s later, ${after - before} entries acknowledged meanwhile, the slowest after ${(known.longestMs / 1000).toFixed(1)} s`;
  say(words);
  return words;
}

/**
 * Counts what stands in a database against what was acknowledged, and says so.
 *
 * @throws Stop where anything was lost, stands twice, or was refused without a sentence
 */
export async function account(known, ownerUrl, where = 'in the log') {
  const db = await createConnection(ownerUrl);
  const [rows] = await db.query("SELECT id, COUNT(*) AS n FROM entries WHERE type = 'looked' GROUP BY id");
  const [gaps] = await db.query(
    'SELECT job_id, COUNT(*) AS n, MAX(number) AS last FROM entries GROUP BY job_id HAVING n <> last',
  );
  await db.end();
  const kept = new Map(rows.map(({ id, n }) => [id, n]));
  const lost = [...known.acknowledged].filter((id) => kept.get(id) !== 1);
  say(
    `${known.acknowledged.size} entries acknowledged, ${lost.length} of them lost or twice ${where}, ${gaps.length} logs with a gap.`,
  );
  if (known.acknowledged.size === 0 || lost.length > 0 || gaps.length > 0)
    throw new Stop('something was lost; see above.');
}

/** Says how people were put off. */
function sayRefusals(known) {
  say(
    `${known.silent} requests without an answer (the last: ${known.lastSilence || 'none'}), ${known.speechless.length} refusals without a sentence. Sentences:`,
  );
  for (const [message, n] of known.refusals) say(`  ${n} times: ${message}`);
  for (const words of new Set(known.speechless)) say(`  no sentence: ${words}`);
}

/** The same; throws where anybody was put off without a sentence. */
export function tellRefusals(known) {
  sayRefusals(known);
  if (known.speechless.length > 0) throw new Stop('somebody was put off without a sentence; see above.');
}
