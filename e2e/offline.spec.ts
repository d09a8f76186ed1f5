import { expect, test, type Page } from '@playwright/test';
import { v7 as uuidv7 } from 'uuid';
import { answerByKeyboard, askedTest, MachineUnderTest } from './bench';
import { as, onOwnDevice } from './signIn';
import { hydrated, openJob, step } from './steps';
import { jobOf, keptEntries, pollKept } from './keptEntries';

// Everywhere else the service worker is kept away: each journey has a browser of its own, which would fetch the whole build first.
test.use({ serviceWorkers: 'allow' });

const HOIST = 'G-1 Groomer OR-201: Tiller float valve';

/** Until the program keeps its own files in this browser, and the open job with what goes with it. */
async function kept(page: Page, ...paths: string[]) {
  await page.evaluate(async () => {
    await navigator.serviceWorker.ready;
  });
  await expect(async () => {
    const { missing, held } = await page.evaluate(async (wanted) => {
      const pages = await (await caches.open('spiraxis-pages')).keys();
      const there = pages.map(({ url }) => new URL(url).pathname);
      return {
        missing: wanted.filter((path) => !there.includes(path)),
        held: navigator.serviceWorker.controller !== null,
      };
    }, paths);
    expect(held ? missing : ['the program', ...missing]).toEqual([]);
  }).toPass({ timeout: 120_000 });
}

/** Entries of a job that the server has, by type and person. */
async function stored(page: Page, address: string): Promise<string[]> {
  const entries = await keptEntries<{ id: string; type: string; person: string }>(
    page.request,
    jobOf(address),
  );
  expect(new Set(entries.map(({ id }) => id)).size).toBe(entries.length);
  return entries.map(({ type, person }) => `${type} ${person}`);
}
const count = (list: readonly string[], one: string) => list.filter((other) => other === one).length;
const water = (page: Page) =>
  page.getByRole('group', { name: /Water/ }).getByRole('button', { name: 'good', exact: true });

test('in a dead spot a job opens again, goes through its steps, and what is written arrives from any page', async ({
  page,
  context,
}) => {
  await as(page, 'Ilse');
  const address = await openJob(page, HOIST, 'Read in a dead spot');
  const path = new URL(address).pathname;
  await kept(page, '/', path, '/new', '/machines/G-1');
  await context.setOffline(true);
  await page.reload();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Read in a dead spot');
  const machine = new MachineUnderTest('groomer-tiller-float', 'W114', 'open');
  await step(page, 'Test');
  const first = JSON.stringify(await askedTest(page));
  await answerByKeyboard(page, machine);
  await expect.poll(async () => JSON.stringify(await askedTest(page))).not.toBe(first);
  await expect(page.getByTestId('offline')).toContainText('1 entry will send');
  for (const name of ['Complaint', 'Locate', 'Make safe', 'As found', 'Decide', 'Fix', 'Prove', 'Hand over'])
    await step(page, name);
  await step(page, 'As found');
  await water(page).click();
  // Loaded anew at another step, it is the same job with all that waits.
  await page.goto(`${address}?step=as-found`);
  await expect(page.getByTestId('offline')).toContainText('2 entries will send');
  // A page that was never opened says what there is instead.
  await page.goto('/parts');
  await expect(page.getByText(/No network here/)).toBeVisible();
  await page.getByRole('link', { name: /Read in a dead spot/ }).click();
  await expect(page.getByTestId('offline')).toBeVisible();
  await page.goto('/');
  await expect(page.getByTestId('waiting')).toContainText('2 entries of 1 job wait here for the server');
  await context.setOffline(false);
  await expect(page.getByTestId('waiting')).toHaveCount(0);
  const there = await stored(page, address);
  expect(count(there, 'looked Ilse')).toBe(1);
  expect(count(there, 'reading Ilse')).toBe(1);
});

test('a page that was loaded past what is kept here is held by it all the same', async ({
  page,
  context,
}) => {
  await as(page, 'Ilse');
  const address = await openJob(page, HOIST, 'Loaded past what is kept');
  await kept(page, new URL(address).pathname);
  const browser = await context.newCDPSession(page);
  const held = () => page.evaluate(() => navigator.serviceWorker.controller !== null);
  // As a person does who presses shift and reload.
  await browser.send('Page.reload', { ignoreCache: true });
  await hydrated(page);
  await expect.poll(held).toBe(true);
  await context.setOffline(true);
  await step(page, 'As found');
  await expect(page.getByRole('heading', { name: /Look and listen/ })).toBeVisible();
});

test('in a dead spot a job is begun, worked on, found again, and arrives under a number with all that was written', async ({
  page,
  context,
}) => {
  await as(page, 'Ilse');
  await page.goto('/new');
  await kept(page, '/new');
  await expect
    .poll(
      () =>
        page.evaluate(
          async (wanted) => (await (await caches.open('spiraxis-begin')).keys()).length >= wanted,
          20,
        ),
      { timeout: 60_000 },
    )
    .toBe(true);
  const listed = await page.getByLabel('Machine and function').locator('option').allTextContents();
  await context.setOffline(true);
  await page.reload();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('New job');
  await page.getByLabel('Machine and function').selectOption({ label: listed[1]! });
  await page.getByLabel('What fails').fill('Begun where no network is');
  const trial = page.getByRole('radiogroup').first();
  await trial.getByLabel('dead').check();
  await page.getByRole('button', { name: 'Open the job' }).click();
  await page.getByRole('button', { name: 'Begin it here' }).click();
  await page.waitForURL(/\/begun\?job=\d+/);
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Begun where no network is');
  await expect(page.getByTestId('offline')).toContainText('2 entries will send');
  for (const name of [
    'Locate',
    'Make safe',
    'As found',
    'Test',
    'Decide',
    'Fix',
    'Prove',
    'Hand over',
    'As found',
  ])
    await step(page, name);
  await water(page).click();
  await expect(page.getByTestId('offline')).toContainText('3 entries will send');
  // Loaded anew, and found from elsewhere.
  await page.reload();
  await expect(page.getByTestId('offline')).toContainText('3 entries will send');
  await page.goto('/new');
  await page.getByTestId('waiting').getByRole('link', { name: 'The one begun here' }).click();
  await expect(page.getByTestId('offline')).toContainText('3 entries will send');
  await context.setOffline(false);
  const arrived = page.getByTestId('arrived');
  await expect(arrived).toContainText(/it is job \d+/, { timeout: 60_000 });
  await expect(page.getByTestId('offline')).toHaveCount(0);
  await arrived.getByRole('link', { name: 'Go on there' }).click();
  await page.waitForURL(/\/jobs\/\d+/);
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Begun where no network is');
  expect(await stored(page, page.url().split('?')[0]!)).toEqual([
    'complaint Ilse',
    'reading Ilse',
    'looked Ilse',
  ]);
});

test('a job whose log is too long for its page opens as any other, in a dead spot too', async ({
  page,
  context,
}) => {
  await as(page, 'Ilse');
  const address = await openJob(page, HOIST, 'Looked at for weeks');
  const job = jobOf(address);
  const path = new URL(address).pathname;
  const entry = (type: string, body: object) => ({
    id: uuidv7(),
    at: new Date().toISOString(),
    person: 'Ilse',
    type,
    body,
  });
  const log = [
    ...Array.from({ length: 599 }, (_one, at) =>
      entry('looked', { check: `plug X${at} seated`, finding: 'good' }),
    ),
    entry('complaint', { words: 'Sinks in the yard' }),
  ];
  for (const entries of [log.slice(0, 200), log.slice(200, 400), log.slice(400)])
    expect((await page.request.post(`/api/jobs/${job}/entries`, { data: { entries } })).status()).toBe(200);
  const answer = await page.request.get(address);
  expect((await answer.text()).length).toBeLessThan(100_000);
  await page.goto(`${address}?step=complaint`);
  await expect(page.locator('main')).toContainText('Sinks in the yard');
  await kept(page, '/', path);
  await context.setOffline(true);
  await page.reload();
  await expect(page.locator('main')).toContainText('Sinks in the yard');
  await step(page, 'As found');
  await water(page).click();
  await expect(page.getByTestId('offline')).toContainText('1 entry will send');
  await context.setOffline(false);
  await pollKept(async () => (await stored(page, address)).length).toBeGreaterThan(601);
});

test('eight hours apart on two devices and two tabs each, then both come back: nothing lost, nothing doubled, what moved is said', async ({
  browser,
}) => {
  const open = async (name: string) => {
    const page = await onOwnDevice(browser, name, { serviceWorkers: 'allow' });
    return { context: page.context(), page };
  };
  const [one, two] = [await open('Ilse'), await open('Tove')];
  const address = await openJob(one.page, HOIST, 'Two tablets, two halls');
  const path = new URL(address).pathname;
  await kept(one.page, '/', path);
  await two.page.goto(address);
  await kept(two.page, '/', path);
  const tabs: Page[] = [];
  for (const { context, page } of [one, two]) {
    const other = await context.newPage();
    await other.goto(`${address}?step=as-found`);
    await expect(water(other)).toBeVisible();
    tabs.push(page, other);
  }
  for (const { context } of [one, two]) await context.setOffline(true);
  // Each tab writes its own; the two devices say opposite things of the same bridge.
  for (const [at, page] of tabs.entries()) {
    await page.goto(`${address}?step=as-found`);
    await hydrated(page);
    await water(page).click();
    // As a person would: on to the next once the page says that it has it.
    await expect(page.getByTestId('offline')).toContainText(/will send/, { timeout: 60_000 });
    await page.goto(`${address}?step=complaint`);
    await hydrated(page);
    await page
      .getByRole('group', { name: /Y14/ })
      .first()
      .getByRole('button', { name: at < 2 ? 'dead' : 'works', exact: true })
      .click();
  }
  for (const { page } of [one, two]) {
    await page.bringToFront();
    await page.reload();
    await expect(page.getByTestId('offline')).toContainText(/[45] entries will send/, { timeout: 60_000 });
  }
  // Eight hours pass at the server: what stood signed in does not any more.
  for (const { context } of [one, two]) {
    await context.clearCookies({ name: 'spiraxis-person' });
    await context.setOffline(false);
  }
  await expect(one.page.getByTestId('signed-out')).toContainText('is not signed in here any more', {
    timeout: 60_000,
  });
  expect(
    count(
      await stored(await onOwnDevice(browser, 'Rasmus', { serviceWorkers: 'allow' }), address),
      'looked Ilse',
    ),
  ).toBe(0);
  for (const [at, { page }] of [one, two].entries()) {
    await page.getByRole('link', { name: 'Sign in' }).click();
    await page.getByRole('button', { name: at === 0 ? /^Ilse/ : /^Tove/ }).click();
    await expect(page.getByRole('heading', { level: 1 })).toContainText('Two tablets');
    await expect(page.getByTestId('offline')).toHaveCount(0);
  }
  await expect
    .poll(
      async () => {
        const there = await stored(one.page, address);
        return [count(there, 'looked Ilse'), count(there, 'looked Tove')];
      },
      { timeout: 60_000 },
    )
    .toEqual([2, 2]);
  const there = await stored(one.page, address);
  expect(count(there, 'reading Ilse') + count(there, 'reading Tove')).toBeGreaterThanOrEqual(2);
  // Every page shows the same, in the order of arrival.
  const shown = async (page: Page) => {
    await page.goto(`${address}?step=complaint`);
    return page.locator('main ol > li').allTextContents();
  };
  const first = await shown(one.page);
  await expect.poll(() => shown(two.page)).toEqual(first);
  for (const { context } of [one, two]) await context.close();
});
