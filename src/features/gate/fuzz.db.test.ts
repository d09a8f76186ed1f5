import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import { NextRequest } from 'next/server';
import { z } from 'zod';
import { entrySchema } from '@/core/job/entries';
import { closePool } from '@/db/pool';
import { databaseSums } from '@/db/testing/databaseSums';
import { seedAfresh } from '@/db/testing/seedAfresh';
import { log } from '../serverLog';
import { actionFacts } from './action';
import { cookieHeader, signInAs } from '@/testing/browser';
import { JUNK, spoiled } from './testing/spoiled';

jest.mock('next/headers', () => jest.requireActual<{ nextHeaders: object }>('@/testing/browser').nextHeaders);
jest.mock('next/cache', () => ({ revalidatePath: jest.fn() }));
jest.mock('next/navigation', () => ({
  unstable_rethrow: (error: Error) => {
    if (error.message === 'left') throw error;
  },
  redirect: () => {
    throw new Error('left');
  },
}));
// Made of packages that this runner cannot load; the journeys make real ones.
jest.mock('../handover/ReportPdf', () => ({ reportPdf: () => Promise.resolve(Buffer.from('%PDF-')) }));
jest.mock('../serverLog', () => ({ log: { info: jest.fn(), warn: jest.fn(), error: jest.fn() } }));

const CALLS_A_ROUTE = 250;
const CALLS_AN_ACTION = 350;
const ROOT = process.cwd();

type Handler = (
  request: NextRequest,
  context: { params: Promise<Record<string, string>> },
) => Promise<Response>;
const under = (folder: string, file: string) =>
  readdirSync(join(ROOT, folder), { recursive: true, encoding: 'utf8' })
    .filter((path) => path.endsWith(`/${file}`))
    .sort()
    .map((path) => join(folder, path));
const routes = under('src/app/api', 'route.ts');
const actions = under('src/features', 'actions.ts');
const counted = { calls: 0 };
const TAKEN = [200, 400, 404, 409, 413, 429];

/** What the server would have had to write into its log as its own failure. */
const failures = () => (log.error as jest.Mock).mock.calls.map(([what]) => JSON.stringify(what));

beforeAll(async () => {
  process.env.SPIRAXIS_DEMO = '1';
  await seedAfresh();
});
afterAll(closePool);
beforeEach(async () => {
  (log.error as jest.Mock).mockClear();
  // A lead, who may do everything: what is refused is refused for what was sent.
  await signInAs('Henrike');
});

describe('every server action, called as no page calls it', () => {
  const all = actions.flatMap((file) =>
    Object.entries(
      jest.requireActual<Record<string, (...given: unknown[]) => Promise<unknown>>>(join(ROOT, file)),
    ).map(([name, run]) => [name, run] as const),
  );

  it('all of them are here', () => {
    expect(all.length).toBeGreaterThanOrEqual(17);
    expect(all.every(([, run]) => actionFacts(run) !== undefined)).toBe(true);
  });

  it.each(all)(
    '%s',
    async (_name, run) => {
      const { args } = actionFacts(run)!;
      let before = await databaseSums();
      await fc.assert(
        fc.asyncProperty(fc.oneof({ weight: 9, arbitrary: spoiled(args) }, JUNK), async (given) => {
          const list = Array.isArray(given) ? given : [given];
          counted.calls++;
          // What its schema takes may change something: then it was asked for. It may not fail.
          if (args.safeParse(list).success) {
            await run(...list).catch((error: Error) => expect(error.message).toBe('left'));
            before = await databaseSums();
            return;
          }
          const answer = await run(...list);
          expect(answer).toEqual({ trouble: expect.stringMatching(/\S/), ...fieldOf(answer) });
        }),
        { numRuns: CALLS_AN_ACTION },
      );
      expect(failures()).toEqual([]);
      expect(await databaseSums()).toBe(before);
    },
    60_000,
  );
});

const fieldOf = (answer: unknown) =>
  typeof answer === 'object' && answer !== null && 'field' in answer ? { field: answer.field } : {};

describe('every route, called as no page calls it', () => {
  const param = fc.oneof(
    fc.constantFrom(
      '417',
      '398',
      'G-1',
      'G-2',
      '0',
      '-1',
      '1e3',
      '99999999999',
      '..',
      '__proto__',
      '\ud800',
      '\u0000',
      '',
    ),
    fc.string({ unit: 'binary', maxLength: 40 }),
    fc.uuid(),
  );
  const body = fc.oneof(
    spoiled(z.object({ entries: z.array(entrySchema).max(3), sentAt: z.iso.datetime() })).map(
      (one) => JSON.stringify(one) ?? '',
    ),
    spoiled(
      z.object({ function: z.string(), setup: z.object({ controls: z.record(z.string(), z.string()) }) }),
    ).map((one) => JSON.stringify(one) ?? ''),
    fc.string({ unit: 'binary', maxLength: 200 }),
    fc.uint8Array({ maxLength: 300 }),
  );
  const all = routes.flatMap((file) =>
    Object.entries(jest.requireActual<Record<string, Handler>>(join(ROOT, file))).map(
      ([method, handle]) => [method, file.replace(/^src\/app|\/route\.ts$/g, ''), handle] as const,
    ),
  );

  it('all of them are here', () => expect(all.length).toBeGreaterThanOrEqual(16));

  it.each(all)(
    '%s %s',
    async (method, path, handle) => {
      const names = [...path.matchAll(/\[(\w+)\]/g)].map((found) => found[1]!);
      await fc.assert(
        fc.asyncProperty(fc.array(param, { minLength: 3, maxLength: 3 }), body, async (words, sent) => {
          const params = Object.fromEntries(names.map((name, at) => [name, words[at]!]));
          const query = new URLSearchParams({
            q: words[1]!,
            after: words[2]!,
            code: words[1]!,
            person: words[2]!,
            use: words[0]!,
          });
          const leave = new AbortController();
          const request = new NextRequest(
            `http://127.0.0.1${path.replace(/\[\w+\]/g, 'x')}?${query.toString()}`,
            {
              method,
              headers: { cookie: cookieHeader() },
              signal: leave.signal,
              ...(method === 'GET' ? {} : { body: typeof sent === 'string' ? sent : new Uint8Array(sent) }),
            },
          );
          counted.calls++;
          const answer = await handle(request, { params: Promise.resolve(params) });
          expect(failures()).toEqual([]);
          // Who signs out, or signs in as nobody, is signed out; nothing else ends in that.
          const ways = path.startsWith('/api/session') ? [200, 400, 401, 413, 429] : TAKEN;
          expect(ways).toContain(answer.status);
          if (answer.status !== 200)
            expect(((await answer.json()) as { message?: string; trouble?: string }).message).not.toBe('');
          leave.abort();
        }),
        { numRuns: CALLS_A_ROUTE },
      );
      expect(failures()).toEqual([]);
    },
    90_000,
  );

  it('ten thousand calls in all', () => expect(counted.calls).toBeGreaterThan(10_000));
});
