import { spawn } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { v7 as uuidv7 } from 'uuid';
import { keptEntries } from './keptEntries';

const OWN_PORT = 3190 + Number(process.env.TEST_PARALLEL_INDEX ?? 0);
const BASE = `http://127.0.0.1:${OWN_PORT}`;
const LONG = 1200;

const childrenOf = (pid: number) =>
  readFileSync(`/proc/${pid}/task/${pid}/children`, 'utf8').trim().split(' ').filter(Boolean).map(Number);

test('pages are made beside the server: where what makes them is killed they come all the same', async ({
  page,
  request,
}) => {
  const server = spawn(process.execPath, ['scripts/serve.mjs'], {
    env: {
      ...process.env,
      NODE_ENV: 'production',
      SPIRAXIS_LOG: 'silent',
      SPIRAXIS_PORT: String(OWN_PORT),
      SPIRAXIS_MAKERS: '1',
    },
    stdio: 'ignore',
  });
  const health = () =>
    fetch(`${BASE}/api/health`).then(
      ({ status }) => status,
      () => 0,
    );
  try {
    await expect.poll(health, { timeout: 30_000 }).toBe(200);
    const [maker] = childrenOf(server.pid!);
    await page.goto(`${BASE}/jobs/417`);
    await page.getByTestId('next-test').waitFor();
    process.kill(maker!, 'SIGKILL');
    // At once, whoever makes it.
    for (const path of ['/', '/machines', '/jobs/417', '/api/find?q=tilt'])
      expect((await request.get(`${BASE}${path}`)).status(), path).toBe(200);
    expect((await request.get(`${BASE}/jobs/417/report`)).status()).toBe(200);
    // The next one comes by itself, and ends with whoever started it.
    await expect.poll(() => childrenOf(server.pid!)).toHaveLength(1);
    const [next] = childrenOf(server.pid!);
    expect(next).not.toBe(maker);
    await expect.poll(() => request.get(`${BASE}/machines`).then((answer) => answer.status())).toBe(200);
    server.kill('SIGKILL');
    const runs = () => {
      try {
        // A process that ended and was not looked after yet is a process no more.
        return !/\) Z /.test(readFileSync(`/proc/${next!}/stat`, 'utf8'));
      } catch {
        return false;
      }
    };
    await expect.poll(runs).toBe(false);
  } finally {
    server.kill('SIGKILL');
  }
});

test('a job with a long log opens as any other, and without a network too', async ({
  page,
  request,
  context,
}) => {
  const job = 411;
  for (let sent = 0; sent < LONG; sent += 200) {
    const entries = Array.from({ length: 200 }, (_one, at) => ({
      id: uuidv7(),
      at: new Date().toISOString(),
      person: 'Tove',
      type: 'looked',
      body: { check: `plug X${sent + at} seated`, finding: 'good' },
    }));
    const answer = await request.post(`/api/jobs/${job}/entries`, { data: { entries } });
    expect(answer.status()).toBe(200);
  }
  const address = `/jobs/${job}?step=complaint`;
  const answer = await request.get(address);
  expect((await answer.text()).length).toBeLessThan(100_000);
  await page.goto(address);
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  // What somebody else writes meanwhile comes as to any other job.
  await expect(page.getByTestId('offline')).toHaveCount(0);
  const kept = (await keptEntries<{ type: string }>(request, job)).length;
  expect(kept).toBeGreaterThan(LONG);
  await expect
    .poll(() =>
      page.evaluate(async () => {
        const cache = await caches.open('spiraxis-logs');
        const pieces = await Promise.all(
          (await cache.keys()).map(async (one) => (await cache.match(one))!.json() as Promise<unknown[]>),
        );
        return pieces.flat().length;
      }),
    )
    .toBeGreaterThan(LONG);
  const main = page.locator('main').first();
  await expect(main).not.toHaveAttribute('aria-busy', 'true');
  const words = await main.innerText();
  expect(words).not.toContain('Reading the log');
  await expect
    .poll(() => page.evaluate(async () => (await caches.keys()).includes('spiraxis-pages')))
    .toBe(true);
  await expect
    .poll(() =>
      page.evaluate(
        async (path) => (await (await caches.open('spiraxis-pages')).match(path)) !== undefined,
        `/jobs/${job}`,
      ),
    )
    .toBe(true);
  await context.setOffline(true);
  await page.goto(address);
  await expect(main).not.toContainText('Reading the log');
  await expect.poll(() => main.innerText()).toBe(words);
});
