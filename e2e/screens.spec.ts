import { readFileSync } from 'node:fs';
import { expect, test, type Page } from '@playwright/test';
import mysql from 'mysql2/promise';
import { v7 as uuidv7 } from 'uuid';
import { askedTest } from './bench';
import { chooseFunction, rested } from './steps';

const AXE = readFileSync('node_modules/axe-core/axe.min.js', 'utf8');

/** Accessibility faults of the page as it stands, by rule; `AXE` has been put into the page. */
async function accessibilityFaults(page: Page): Promise<string[]> {
  return page.evaluate(async () => {
    const axe = (
      window as unknown as {
        axe: { run: (o: object) => Promise<{ violations: { id: string; nodes: { html: string }[] }[] }> };
      }
    ).axe;
    const { violations } = await axe.run({ runOnly: ['wcag2a', 'wcag2aa', 'wcag21aa'] });
    return violations.map(({ id, nodes }) => `${id}: ${nodes[0]?.html.slice(0, 120)}`);
  });
}

test('headers: a policy with a nonce, no framing, no sniffing; nothing from outside; no console errors', async ({
  page,
}) => {
  const outside: string[] = [];
  const errors: string[] = [];
  page.on('request', (request) => {
    if (!/^(http:\/\/127\.0\.0\.1|data:|blob:)/.test(request.url())) outside.push(request.url());
  });
  page.on('console', (message) => message.type() === 'error' && errors.push(message.text()));
  page.on('pageerror', (error) => errors.push(error.message));
  for (const path of ['/', '/jobs/406', '/new']) {
    const response = await page.goto(path);
    const headers = response!.headers();
    expect(headers['content-security-policy']).toMatch(/script-src 'self' 'nonce-[\w+/=]+'/);
    expect(headers['content-security-policy']).not.toContain('unsafe-eval');
    expect(headers['x-frame-options']).toBe('DENY');
    expect(headers['x-content-type-options']).toBe('nosniff');
    expect(headers['x-powered-by']).toBeUndefined();
    await rested(page);
  }
  expect(outside).toEqual([]);
  expect(errors).toEqual([]);
});

test('files of the build come compressed, to be kept, and nothing is asked for ahead', async ({
  page,
  request,
}) => {
  const files: string[] = [];
  const ahead: string[] = [];
  page.on('request', (asked) => {
    const { pathname, searchParams } = new URL(asked.url());
    if (pathname.startsWith('/_next/static/') && pathname.endsWith('.js')) files.push(asked.url());
    if (searchParams.has('_rsc')) ahead.push(asked.url());
  });
  await page.goto('/machines');
  await expect(page.getByRole('link', { name: 'G-1', exact: false }).first()).toBeVisible();
  await rested(page);
  expect(ahead).toEqual([]);
  expect(files.length).toBeGreaterThan(3);
  const one = files[0]!;
  for (const encoding of ['br', 'gzip']) {
    const answer = await request.get(one, { headers: { 'accept-encoding': encoding } });
    expect(answer.headers()).toMatchObject({
      'content-encoding': encoding,
      'cache-control': 'public,max-age=31536000,immutable',
      'x-content-type-options': 'nosniff',
      vary: 'Accept-Encoding',
    });
  }
  const written = await request.post(one);
  expect([written.status(), (await written.json()).message]).toEqual([
    405,
    'The application’s own files are read, and nothing else is done with them.',
  ]);
  expect((await request.get('/_next/static/none.js')).status()).toBe(404);
});

test('health answers with the database’s state', async ({ request }) => {
  expect(await (await request.get('/api/health')).json()).toEqual({ status: 'ok', database: 'ok' });
});

/** Every main view, on jobs at different steps. */
const PAGES = [
  '/',
  '/jobs/406',
  '/new',
  ...['complaint', 'locate', 'make-safe', 'as-found'].map((step) => `/jobs/418?step=${step}`),
  '/machines',
  '/machines/G-4',
  '/classes/Groomer',
  '/machines/G-4/draw?template=two-way-pair',
  '/tables',
  '/jobs/401?step=decide',
  '/jobs/411?step=fix',
  '/jobs/411?step=prove',
  '/jobs/398?step=hand-over',
  '/jobs/398/report',
  '/jobs/417/tags',
  '/codes',
  '/machines/G-1/codes',
  '/machines/G-1/bus',
  '/?show=closed',
  '/policy',
  '/retests',
  '/retests/round?days=14',
  '/drift',
  '/record',
  '/month',
  '/parts',
  '/parts/card',
  '/parts/OR-4410',
  '/machines/G-2/history',
  '/bench/coil',
  '/bench/terminals',
  '/bench/planner',
  '/jobs/406?sheet=drop',
  '/jobs/406?sheet=insulation',
  '/jobs/412?sheet=timeline',
  '/jobs/416?sheet=trace',
  '/jobs/398?sheet=trace',
  '/machines/G-2/labels',
  '/machines/G-2/drawings',
];

const THEMES = ['light', 'sun', 'dark'] as const;
/** The pages are looked at in this many journeys, each short enough for a machine that others use too. */
const PARTS = 4;
for (let part = 0; part < PARTS; part++) {
  test(`pages are accessible in every theme, part ${part + 1} of ${PARTS}`, async ({
    page,
    context,
    baseURL,
  }) => {
    const faults: Record<string, string[]> = {};
    for (const [at, path] of PAGES.entries()) {
      if (at % PARTS !== part) continue;
      // Each page is loaded in a theme of its own, and looked at in the others as it stands.
      const loaded = THEMES[at % THEMES.length]!;
      await context.addCookies([{ name: 'spiraxis-theme', value: loaded, url: baseURL! }]);
      await page.goto(path);
      if (path === '/jobs/406') await page.getByTestId('next-test').waitFor();
      await expect(page.locator('html')).toHaveAttribute('data-theme', loaded);
      // Put in past the content security policy, as a browser extension would be.
      await page.evaluate(AXE);
      for (const theme of THEMES) {
        await page.evaluate((chosen) => (document.documentElement.dataset.theme = chosen), theme);
        const found = await accessibilityFaults(page);
        if (found.length > 0) faults[`${path} ${theme}`] = found;
      }
    }
    expect(faults).toEqual({});
  });
}

test('the theme is chosen from the brand menu and stays', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: /shed and themes/ }).click();
  await page.getByRole('menuitemradio', { name: 'Dark shed' }).click();
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'dark');
  await page.reload();
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'dark');
});

test('points are walked with the arrow keys; the address keeps the test; a wrong unit is refused', async ({
  page,
}) => {
  await page.goto('/jobs/406');
  const first = await askedTest(page);
  await page.keyboard.press('ArrowRight');
  await expect.poll(() => askedTest(page)).not.toEqual(first);
  await expect(page.getByTestId('next-test')).toContainText('Your own choice');
  const own = await askedTest(page);
  await page.reload();
  expect(await askedTest(page)).toEqual(own);
  await page.keyboard.press('Escape');
  await expect.poll(() => askedTest(page)).toEqual(first);

  await page.keyboard.type('banana');
  const meaning = page.getByTestId('meaning');
  await page.keyboard.press('Escape');
  await page.keyboard.type('1..2');
  await expect(meaning).toContainText('Type it as the meter shows it');
  await expect(page.getByTestId('typed')).toHaveText('1..2');
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('typed')).toHaveText('1..2');
});

test('a reading that cannot be taken says so, and so does a page that is not there', async ({ page }) => {
  await page.goto('/jobs/406?mode=ohms&red=1&black=6&set=%7B%7D');
  await expect(page.getByTestId('own-trouble')).toContainText('powered');
  await page.getByRole('button', { name: 'Back to the best test' }).click();
  await page.getByTestId('next-test').waitFor();
  for (const damaged of ['%7Bx', '%22controls%22', '%7B%22controls%22%3A%7B%22key%22%3A7%7D%7D', 'null']) {
    await page.goto(`/jobs/406?mode=volts&red=1&black=6&set=${damaged}`);
    await page.getByTestId('next-test').waitFor();
  }
  await page.goto('/jobs/12345');
  await expect(page.getByRole('heading', { name: 'There is nothing here' })).toBeVisible();
});

test('points out of reach are planned around', async ({ page }) => {
  await page.goto('/jobs/409');
  const before = (await askedTest(page)) as { from: string; to: string };
  await page.getByRole('button', { name: /Can’t reach/ }).click();
  await expect.poll(async () => ((await askedTest(page)) as { from?: string }).from).not.toBe(before.from);
  await page.reload();
  expect((await askedTest(page)) as { from?: string }).not.toMatchObject({ from: before.from });
});

test('on a phone the whole test is there, the keypad folds, and nothing runs out of the screen', async ({
  page,
}) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto('/jobs/406');
  await page.getByTestId('next-test').waitFor();
  const wide = await page.evaluate(() => document.documentElement.scrollWidth);
  expect(wide).toBeLessThanOrEqual(390);
  await expect(page.getByRole('button', { name: 'OL', exact: true })).toBeHidden();
  await page.getByRole('button', { name: /Tap to enter/ }).click();
  await expect(page.getByRole('button', { name: 'OL', exact: true })).toBeVisible();
  const small = await page
    .locator('section[aria-label=Keyline] button:visible')
    .evaluateAll(
      (keys) =>
        keys
          .map((key) => key.getBoundingClientRect())
          .filter(({ width, height }) => width < 44 || height < 44).length,
    );
  expect(small).toBe(0);
  await page.goto('/');
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
});

test('a new job opens with what works and what does not, and its first test follows', async ({ page }) => {
  await page.goto('/new');
  await chooseFunction(page, 'L-2 Loader OR-131: Bucket lock coil over relay');
  await page.getByRole('button', { name: 'Open the job' }).click();
  await expect(page.locator('#trouble')).toContainText('Say in a few words what fails');
  await page
    .getByLabel('What fails')
    .fill('Lock will not let go of a bucket with a name far too long for one line of any screen in the shed');
  await page.getByRole('radiogroup').first().getByLabel('dead').check();
  await page.getByRole('button', { name: 'Open the job' }).click();
  await expect(page).toHaveURL(/\/jobs\/\d+$/);
  await page.getByTestId('next-test').waitFor();
  await expect(page.getByTestId('path')).toContainText('Last: Y22 lock coil dead');
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(1280);
  // What the job is about is there to be read, however long it is.
  expect((await page.getByRole('heading', { level: 1 }).boundingBox())!.width).toBeGreaterThan(150);
});

test('an empty shed says what to do; five hundred jobs come a page at a time', async ({ page }) => {
  const db = await mysql.createConnection(process.env.SPIRAXIS_DATABASE_URL!);
  // Jobs in hand are put aside for a while; those that were closed stay as they are.
  const [open] = await db.query<mysql.RowDataPacket[]>(
    'SELECT id, function_id FROM jobs WHERE closed_at IS NULL',
  );
  const ids = open.map(({ id }) => id as string);
  try {
    const functionId = open[0]!.function_id as string;
    await db.query('UPDATE jobs SET closed_at = UTC_TIMESTAMP(3) WHERE id IN (?)', [ids]);
    await page.goto('/');
    await expect(
      page.getByText('No jobs in hand. Start one from the machine that will not work.'),
    ).toBeVisible();
    const values = Array.from({ length: 500 }, (_one, at) => [
      uuidv7(),
      10_000 + at,
      functionId,
      `Filler job ${at}`,
      null,
      new Date(Date.UTC(2026, 0, 1, 0, at)),
    ]);
    await db.query('INSERT INTO jobs (id, number, function_id, title, person, opened_at) VALUES ?', [values]);
    const seen = new Set<string>();
    await page.goto('/');
    await expect(page.getByText('500 jobs')).toBeVisible();
    const aPage = await page.locator('a:has-text("Filler job")').count();
    expect(aPage).toBeGreaterThan(8);
    expect(aPage).toBeLessThan(30);
    for (let pages = 0; pages < 3; pages++) {
      const titles = await page.locator('a:has-text("Filler job")').allTextContents();
      expect(titles).toHaveLength(aPage);
      for (const title of titles) expect(seen.has(title)).toBe(false);
      titles.forEach((title) => seen.add(title));
      const last = titles.at(-1)!;
      await page.getByRole('link', { name: 'Older jobs' }).click();
      await expect(page.getByText(last, { exact: true })).toHaveCount(0);
    }
  } finally {
    await db.query('DELETE FROM jobs WHERE number >= 10000');
    await db.query('UPDATE jobs SET closed_at = NULL WHERE id IN (?)', [ids]);
    await db.end();
  }
});
