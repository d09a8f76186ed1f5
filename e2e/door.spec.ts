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
