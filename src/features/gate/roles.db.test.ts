import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { NextRequest } from 'next/server';
import { DEEDS, may, ROLES, type Role } from '@/core/people/roles';
import { closePool, pool } from '@/db/pool';
import { databaseSums } from '@/db/testing/databaseSums';
import { seedAfresh } from '@/db/testing/seedAfresh';
import { cookieHeader, forgetCookies, signInAs } from '@/testing/browser';
import { actionFacts } from './action';
import { deedOfRoute } from './route';

jest.mock('next/headers', () => jest.requireActual<{ nextHeaders: object }>('@/testing/browser').nextHeaders);
jest.mock('next/cache', () => ({ revalidatePath: jest.fn() }));
jest.mock('next/navigation', () => ({
  unstable_rethrow: () => undefined,
  redirect: () => {
    throw new Error('left');
  },
}));
jest.mock('../handover/ReportPdf', () => ({ reportPdf: () => Promise.resolve(Buffer.from('%PDF-')) }));
jest.mock('../serverLog', () => ({ log: { info: jest.fn(), warn: jest.fn(), error: jest.fn() } }));

const ROOT = process.cwd();
const under = (folder: string, file: string) =>
  readdirSync(join(ROOT, folder), { recursive: true, encoding: 'utf8' })
    .filter((path) => path === file || path.endsWith(`/${file}`))
    .sort()
    .map((path) => join(folder, path));

type Handler = (
  request: NextRequest,
  context: { params: Promise<Record<string, string>> },
) => Promise<Response>;
const routes = under('src/app/api', 'route.ts').flatMap((file) =>
  Object.entries(jest.requireActual<Record<string, Handler>>(join(ROOT, file))).map(([method, handle]) => ({
    name: `${method} ${file.replace(/^src\/app|\/route\.ts$/g, '')}`,
    method,
    handle,
  })),
);
const actions = under('src/features', 'actions.ts').flatMap((file) =>
  Object.entries(jest.requireActual<Record<string, () => Promise<unknown>>>(join(ROOT, file))).map(
    ([name, run]) => ({ name, run }),
  ),
);
const WHO: Readonly<Record<Role, string>> = {
  reader: 'Ansgar',
  learner: 'Jorin',
  technician: 'Rasmus',
  lead: 'Henrike',
};

/** Asked with what is nothing to it: who may is told what is wrong with that, who may not is told that they may not. */
async function ask({ method, handle, name }: (typeof routes)[number]): Promise<number> {
  const leave = new AbortController();
  const request = new NextRequest(`http://127.0.0.1${name.split(' ')[1]!.replace(/\[\w+\]/g, '0')}`, {
    method,
    signal: leave.signal,
    headers: { cookie: cookieHeader() },
    ...(method === 'GET' ? {} : { body: 'nothing to it' }),
  });
  const params = { number: '0', code: '-', id: '0', hash: '0' };
  const { status } = await handle(request, { params: Promise.resolve(params) });
  leave.abort();
  return status;
}

beforeAll(async () => {
  process.env.SPIRAXIS_DEMO = '1';
  await seedAfresh();
});
afterAll(closePool);

it('every page, route and action says what one has to be for it', () => {
  expect(routes.length).toBeGreaterThanOrEqual(25);
  for (const { name, handle } of routes)
    expect([name, deedOfRoute(handle)]).toEqual([name, expect.any(String)]);
  for (const { name, run } of actions)
    expect([name, actionFacts(run)?.deed]).toEqual([name, expect.any(String)]);
  const open = routes.filter(({ handle }) => deedOfRoute(handle) === 'open').map(({ name }) => name);
  // Whether the server is there, signing in, and what comes with a key of its own: figures and a calendar.
  expect(open).toEqual([
    'GET /api/health',
    'GET /api/live',
    'GET /api/metrics',
    'GET /api/retests.ics',
    'POST /api/session',
  ]);
  const pages = under('src/app', 'page.tsx').map((file) => [
    file,
    /^export default page(?:<[^]*?>)?\(\s*'(\w+)'/m.exec(readFileSync(join(ROOT, file), 'utf8'))?.[1] ??
      'open',
  ]);
  expect(pages.length).toBeGreaterThanOrEqual(30);
  expect(pages.filter(([, deed]) => deed === 'open').map(([file]) => file)).toEqual([
    'src/app/begun/page.tsx',
    'src/app/offline/page.tsx',
    'src/app/sign-in/page.tsx',
  ]);
  for (const [, deed] of pages) expect([...DEEDS, 'open']).toContain(deed);
});

it('nobody is let through anything that is not open, and nothing is kept', async () => {
  forgetCookies();
  const before = await databaseSums();
  for (const route of routes)
    if (deedOfRoute(route.handle) !== 'open')
      expect([route.name, await ask(route)]).toEqual([route.name, 401]);
  for (const { name, run } of actions)
    expect([name, await run()]).toEqual([name, { trouble: expect.any(String), signedOut: true }]);
  expect(await databaseSums()).toBe(before);
});

it.each(ROLES)('a %s is let through what the table says, and through nothing else', async (role) => {
  forgetCookies();
  await signInAs(WHO[role]);
  for (const route of routes) {
    const deed = deedOfRoute(route.handle)!;
    if (deed === 'open' || route.name === 'DELETE /api/session') continue;
    const status = await ask(route);
    expect([route.name, status === 403]).toEqual([route.name, !may(role, deed)]);
    expect([route.name, status]).not.toEqual([route.name, 401]);
    expect(status).toBeLessThan(500);
  }
  for (const { name, run } of actions) {
    const { args, deed } = actionFacts(run)!;
    // Those that take nothing would be done.
    if (may(role, deed) && args.safeParse([]).success) continue;
    const answer = (await run()) as { trouble?: string };
    expect([name, / does not do this: /.test(answer.trouble ?? '')]).toEqual([name, !may(role, deed)]);
  }
});

it('what was tried against the table stands in the trail', async () => {
  const [rows] = await pool().query(
    "SELECT DISTINCT person FROM trail WHERE what = 'mayNot' ORDER BY person",
  );
  expect(JSON.stringify(rows)).toContain('Ansgar');
  expect(JSON.stringify(rows)).not.toContain('Henrike');
});
