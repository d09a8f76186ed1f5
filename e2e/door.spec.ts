import { readFileSync } from 'node:fs';
import { createServer, request as httpRequest } from 'node:http';
import type { AddressInfo } from 'node:net';
import { expect, test } from '@playwright/test';
import { keptEntries } from './keptEntries';

/** Asks for a page under another name, as a browser does whose name server was lied to. */
function underName(base: string, path: string, host: string): Promise<{ status: number; body: string }> {
  return new Promise((resolve, reject) => {
    const { hostname, port } = new URL(base);
    httpRequest({ hostname, port, path, headers: { host } }, (response) => {
      const pieces: Buffer[] = [];
      response.on('data', (piece: Buffer) => pieces.push(piece));
      response.on('end', () =>
        resolve({ status: response.statusCode ?? 0, body: Buffer.concat(pieces).toString() }),
      );
    })
      .on('error', reject)
      .end();
  });
}

test('another site in the same browser changes nothing here, and nobody reads it under a foreign name', async ({
  page,
  baseURL,
}) => {
  const logOf = () => keptEntries(page.request, 417);
  const before = await logOf();
  const target = `${baseURL}/api/jobs/417/entries`;
  const elsewhere = createServer((_request, response) => {
    response.setHeader('content-type', 'text/html');
    response.end(
      `<form method="post" action="${target}" enctype="text/plain"><input name='{"entries":[],"x":"' value='"}'><button>win a drill</button></form>`,
    );
  }).listen(0, '127.0.0.1');
  try {
    await new Promise((resolve) => elsewhere.once('listening', resolve));
    await page.goto(`http://127.0.0.1:${(elsewhere.address() as AddressInfo).port}/`);
    const tried = page.evaluate(
      (url) =>
        fetch(url, { method: 'POST', mode: 'no-cors', body: '{"entries":[]}' }).then(
          ({ type }) => type,
          () => 'refused',
        ),
      target,
    );
    expect(['opaque', 'refused']).toContain(await tried);
    const [answer] = await Promise.all([
      page.waitForResponse(target),
      page.getByRole('button', { name: 'win a drill' }).click(),
    ]);
    expect(answer.status()).toBe(403);
    expect(await answer.json()).toMatchObject({ code: 'cross-site' });
  } finally {
    elsewhere.close();
  }
  expect(await logOf()).toEqual(before);
  const foreign = await underName(baseURL!, '/api/jobs/417/job.json', 'evil.example');
  expect(foreign.status).toBe(421);
  expect(foreign.body).not.toContain('Tove');
  expect((await underName(baseURL!, '/sign-in', 'localhost:1')).status).toBe(200);
});

/** Keys of what the page of machines may wish, as the build numbers them. */
function wishesOfMachines(): string[] {
  const built = JSON.parse(readFileSync('.next/server/server-reference-manifest.json', 'utf8')) as {
    node: Record<string, { workers: Record<string, unknown> }>;
  };
  return Object.entries(built.node).flatMap(([key, { workers }]) =>
    Object.keys(workers).includes('app/machines/page') ? [key] : [],
  );
}

const plain = 'text/plain;charset=UTF-8';
const piece = (text: string) => `--q\r\nContent-Disposition: form-data; name="0"\r\n\r\n${text}\r\n`;
const unread: [string, string, string][] = [
  ['nothing', plain, ''],
  ['no JSON', plain, 'x'],
  ['a list that is none', plain, 'null'],
  ['what refers to nothing', plain, '["$1"]'],
  ['a map of nothing', plain, '["$Q1"]'],
  ['a number that is none', plain, '["$n9x"]'],
  ['the way to a prototype', plain, '["$1:__proto__:constructor"]'],
  ['lists in lists', plain, '['.repeat(60_000) + ']'.repeat(60_000)],
  ['pieces without a mark', 'multipart/form-data', 'x'],
  ['pieces cut off', 'multipart/form-data; boundary=q', piece('["$K1"]').slice(0, -4)],
  ['no pieces', 'multipart/form-data; boundary=q', '--q--\r\n'],
  ['a piece that is no JSON', 'multipart/form-data; boundary=q', `${piece('x')}--q--\r\n`],
];

test('what stands for no wish is no failure of the server’s', async ({ page, baseURL }) => {
  const keys = wishesOfMachines();
  expect(keys.length).toBeGreaterThan(0);
  const send = (key: string, type: string, data: string) =>
    page.request.post('/machines', {
      headers: {
        'next-action': key,
        'content-type': type,
        accept: 'text/x-component',
        origin: baseURL!,
        'sec-fetch-site': 'same-origin',
      },
      data,
    });
  for (const key of keys)
    for (const [what, type, body] of unread)
      expect([what, (await send(key, type, body)).status()]).toEqual([what, 400]);
  // What can be read and is refused is answered as data.
  const refused = await send(keys[0]!, plain, '[7]');
  expect(refused.status()).toBe(200);
  expect(await refused.text()).toContain('"trouble"');
});

test('a job that is none is not found, and so are its report and its tags', async ({ page }) => {
  for (const path of ['/jobs/99999', '/jobs/4e2', '/jobs/99999/report', '/jobs/99999/tags'])
    expect([path, (await page.request.get(path)).status()]).toEqual([path, 404]);
  await page.goto('/jobs/99999');
  await expect(page.getByText('There is nothing here')).toBeVisible();
  expect((await page.request.get('/jobs/417')).status()).toBe(200);
});

test('a machine is called as it is written, however its code was typed; one that is none is not found', async ({
  page,
}) => {
  for (const path of ['/machines/X-99', '/machines/X-99/codes', '/machines/X-99/history'])
    expect([path, (await page.request.get(path)).status()]).toEqual([path, 404]);
  await page.goto('/machines/g-2/codes?q=1');
  await expect(page).toHaveURL('/machines/G-2/codes?q=1');
  await expect(page).toHaveTitle(/G-2/);
});
