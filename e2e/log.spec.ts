import { spawn, type ChildProcess } from 'node:child_process';
import { expect, test, type APIRequestContext, type Page } from '@playwright/test';
import { v7 as uuidv7 } from 'uuid';
import { answerByKeyboard, askedTest, MachineUnderTest } from './bench';
import { as, USUAL } from './signIn';
import { keptEntries, pollKept } from './keptEntries';

const JOB = 412;
const OWN_PORT = 3177;

async function openTest(page: Page, job = JOB, base = ''): Promise<void> {
  await page.goto(`${base}/jobs/${job}`);
  await page.getByTestId('next-test').waitFor();
}

async function storedReadings(request: APIRequestContext, job: number): Promise<number> {
  const entries = await keptEntries<{ type: string }>(request, job);
  return entries.filter(({ type }) => type === 'reading').length;
}

async function ready(url: string): Promise<void> {
  await expect
    .poll(() =>
      fetch(`${url}/api/health`).then(
        (answer) => answer.status,
        () => 0,
      ),
    )
    .toBe(200);
}

function startServer(): ChildProcess {
  return spawn(process.execPath, ['scripts/serve.mjs'], {
    env: { ...process.env, NODE_ENV: 'production', SPIRAXIS_LOG: 'silent', SPIRAXIS_PORT: String(OWN_PORT) },
    stdio: 'ignore',
  });
}

test('a reload and a second browser show the same state; others’ readings arrive by themselves', async ({
  page,
  browser,
  request,
}) => {
  const machine = new MachineUnderTest('tractor-blower-stop', 'S6', 'stuckOpen');
  await openTest(page);
  const second = await browser.newPage();
  await openTest(second);
  const first = JSON.stringify(await askedTest(page));
  expect(await second.getByTestId('next-test').getAttribute('data-test')).toBe(first);
  const before = await storedReadings(request, JOB);
  await answerByKeyboard(page, machine);
  await pollKept(() => storedReadings(request, JOB)).toBe(before + 1);
  await expect(page.locator('main[data-working=false]')).toBeVisible();
  const wanted = await page.getByTestId('path').locator('text').allTextContents();
  await page.reload();
  await expect.poll(() => page.getByTestId('path').locator('text').allTextContents()).toEqual(wanted);
  await expect.poll(() => second.getByTestId('path').locator('text').allTextContents()).toEqual(wanted);
  await second.close();
});

test('unpinning takes the last reading back and keeps it in the record, struck through', async ({
  page,
  request,
}) => {
  const machine = new MachineUnderTest('tractor-blower-stop', 'S6', 'stuckOpen');
  await openTest(page);
  const before = JSON.stringify(await askedTest(page));
  await answerByKeyboard(page, machine);
  await expect.poll(async () => JSON.stringify(await askedTest(page))).not.toBe(before);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => JSON.stringify(await askedTest(page))).toBe(before);
  await expect(page.getByTestId('offline')).toHaveCount(0);
  const kept = await storedReadings(request, JOB);
  await page.goto(`/jobs/${JOB}?step=complaint`);
  await expect(page.locator('.line-through')).toHaveCount(1);
  await expect(page.locator('main ol > li')).toHaveCount(kept);
});

test('killing the server between two entries loses nothing', async ({ page, request }) => {
  const base = `http://127.0.0.1:${OWN_PORT}`;
  const machine = new MachineUnderTest('groomer-tiller-float', 'R2', 'highResistance', 46);
  let server = startServer();
  try {
    await ready(base);
    await openTest(page, 416, base);
    const before = await storedReadings(request, 416);
    await answerByKeyboard(page, machine);
    await pollKept(() => storedReadings(request, 416)).toBe(before + 1);

    server.kill('SIGKILL');
    await new Promise((resolve) => server.once('exit', resolve));
    await page.getByTestId('next-test').or(page.getByTestId('verdict')).first().waitFor();
    // The person goes on; the page says that the entry waits here.
    if ((await page.getByTestId('verdict').count()) > 0)
      await page.getByRole('button', { name: /One more test/ }).click();
    await answerByKeyboard(page, machine);
    await expect(page.getByTestId('offline')).toContainText(/entr(y|ies) will send/);
    expect(await storedReadings(request, 416)).toBe(before + 1);

    server = startServer();
    await ready(base);
    await pollKept(() => storedReadings(request, 416)).toBe(before + 2);
    await expect(page.getByTestId('offline')).toHaveCount(0);
    await page.reload();
    await expect(page.getByTestId('path')).toBeVisible();
  } finally {
    server.kill('SIGKILL');
  }
});

test('an entry that could not be sent survives a reload and is sent later', async ({
  page,
  request,
  context,
}) => {
  const machine = new MachineUnderTest('winch-reversing', 'G1', 'lowVoltage');
  // Her locks are on.
  await as(page, 'Ilse');
  await openTest(page, 414);
  const before = await storedReadings(request, 414);
  await page.route('**/api/jobs/**', (route) => route.abort());
  await answerByKeyboard(page, machine);
  await expect(page.getByTestId('offline')).toContainText(/entr(y|ies) will send/);
  await page.reload();
  await expect(page.getByTestId('offline')).toContainText(/entr(y|ies) will send/);
  await page.unroute('**/api/jobs/**');
  await pollKept(() => storedReadings(request, 414)).toBe(before + 1);
  await context.close();
});

test('the same entry sent twice changes nothing, another content under its id is refused', async ({
  request,
}) => {
  const reading = { kind: 'ohms', from: 'X5:P', to: 'GND', setup: { pulled: ['F3'] }, value: 0.4 };
  const entry = {
    id: uuidv7(),
    at: new Date().toISOString(),
    person: USUAL,
    type: 'reading',
    body: { reading, typed: '.4' },
  };
  const send = (data: unknown) => request.post(`/api/jobs/${JOB}/entries`, { data: { entries: [data] } });
  expect(await (await send(entry)).json()).toMatchObject({ added: 1 });
  expect(await (await send(entry)).json()).toMatchObject({ added: 0, results: [{ state: 'known' }] });
  const other = await send({ ...entry, body: { reading: { ...reading, value: 40 }, typed: '40' } });
  expect(other.status()).toBe(409);
  const taken = await request.post(`/api/jobs/${JOB}/entries`, {
    data: {
      entries: [
        { id: uuidv7(), at: entry.at, person: USUAL, type: 'withdrawal', supersedes: entry.id, body: {} },
      ],
    },
  });
  expect(taken.ok()).toBe(true);
});

test('bad entries get one clear sentence and are not kept', async ({ request }) => {
  const before = await storedReadings(request, JOB);
  const reading = { kind: 'ohms', from: 'B+', to: 'GND', setup: {}, value: 12 };
  const head = { at: new Date().toISOString(), person: USUAL, type: 'reading' };
  const send = async (data: unknown, job: number | string = JOB) => {
    const answer = await request.post(`/api/jobs/${job}/entries`, {
      data: data as object,
      headers: { 'content-type': 'application/json' },
    });
    return { status: answer.status(), ...((await answer.json()) as { message: string }) };
  };
  const powered = await send({ entries: [{ ...head, id: uuidv7(), body: { reading, typed: '12' } }] });
  expect(powered.status).toBe(400);
  expect(powered.message).toContain('powered');
  const unknown = await send({
    entries: [{ ...head, id: uuidv7(), body: { reading: { ...reading, from: 'Z' }, typed: '1' } }],
  });
  expect(unknown.message).toContain('unknown node "Z"');
  expect((await send({ entries: [{ id: 'x' }] })).status).toBe(400);
  expect((await send({ entries: [] }, 999_999)).status).toBe(404);
  expect((await send(Buffer.from('{not json'))).status).toBe(400);
  const plain = await request.post(`/api/jobs/${JOB}/entries`, {
    data: '{"entries":[]}',
    headers: { 'content-type': 'text/plain' },
  });
  expect(plain.status()).toBe(415);
  expect(await storedReadings(request, JOB)).toBe(before);
});
