import { spawn } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';

const OWN_PORT = 3190 + Number(process.env.TEST_PARALLEL_INDEX ?? 0);
const BASE = `http://127.0.0.1:${OWN_PORT}`;

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
      SPIRAXIS_METRICS_WORD: 'a word for figures',
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
    await page.getByTestId('path').waitFor();
    // What each counted of itself.
    const figures = async () =>
      (
        await request.get(`${BASE}/api/metrics`, { headers: { authorization: 'Bearer a word for figures' } })
      ).text();
    expect(await figures()).toMatch(/spiraxis_process_cpu_seconds_total\{process="server"\} [\d.]+\n/);
    // One that has its hands full says nothing this time.
    await expect.poll(figures).toMatch(/spiraxis_process_cpu_seconds_total\{process="maker1"\} [\d.]+\n/);
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
