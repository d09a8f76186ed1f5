import { expect, test, type Page } from '@playwright/test';
import { DEMO_PIN } from '../demo/people';
import { as } from './signIn';
import { hydrated, openJob, provePoint, step } from './steps';
import { jobOf, keptEntries, pollKept } from './keptEntries';

const HOIST = 'G-1 Groomer OR-201: Tiller float valve';

/** Closes the first point of the plan. */
async function closeFirst(page: Page, lock: string) {
  await step(page, 'Make safe');
  await provePoint(page, lock);
  await expect(page.getByLabel('closed', { exact: true })).toHaveCount(1);
}

test('nobody sees anything before signing in, and comes back to where they were going', async ({
  browser,
}) => {
  const context = await browser.newContext({ storageState: { cookies: [], origins: [] } });
  const page = await context.newPage();
  await page.goto('/jobs/417?step=prove');
  await expect(page).toHaveURL(/\/sign-in\?to=/);
  expect(await page.content()).not.toContain('Groomer');
  expect((await page.request.get('/api/jobs/417/job.json')).status()).toBe(401);
  expect((await page.request.post('/api/jobs/417/entries', { data: { entries: [{}] } })).status()).toBe(401);
  await page.getByRole('button', { name: /^Ilse/ }).click();
  await expect(page).toHaveURL(/\/jobs\/417\?step=prove$/);
  await expect(page.getByRole('link', { name: /^Signed in: Ilse, technician/ })).toBeVisible();
  // A place of another server is no place to go to.
  await page.goto('/sign-in?to=//evil.example/x');
  await page.getByRole('button', { name: /^Tove/ }).click();
  await expect(page).toHaveURL(/127\.0\.0\.1:\d+\/$/);
  await page.goto('/sign-in');
  await page.getByRole('button', { name: 'Sign Tove out' }).click();
  await expect(page.getByRole('button', { name: 'Sign Tove out' })).toHaveCount(0);
  // Nobody's page has come, and what was kept here is forgotten.
  await expect(page.getByRole('heading', { name: 'Who is here?' })).toBeVisible();
  await page.goto('/parts');
  await expect(page).toHaveURL(/\/sign-in\?to=%2Fparts$/);
  await context.close();
});

test('on a shared tablet each has their own lock, and a lead takes off one whose owner is gone', async ({
  page,
}) => {
  await as(page, 'Ilse');
  const address = await openJob(page, HOIST, 'Tiller drops, two at the work');
  await closeFirst(page, '31');
  // Two presses: the name that stands in the head, and another one.
  await page.getByRole('link', { name: /^Signed in: Ilse/ }).click();
  await page.getByRole('button', { name: /^Tove/ }).click();
  await expect(page.getByRole('link', { name: /^Signed in: Tove/ })).toBeVisible();
  await page.goto(`${address}?step=make-safe`);
  const row = page.getByRole('button', { name: /lock 31, Ilse/ });
  await row.click();
  await expect(page.getByText('Ilse takes it off, or a lead with a second person.')).toBeVisible();
  await page.getByRole('button', { name: 'Put my own lock on as well' }).click();
  await provePoint(page, '32');
  await expect(page.getByText('lock 32, Tove')).toBeVisible();
  // Taken off, the other one still holds the point.
  await page.getByLabel('Opened again, because').fill('done with my side');
  await page.getByRole('button', { name: 'Open this point' }).click();
  await expect(page.getByRole('button', { name: /lock 31, Ilse/ })).toBeVisible();
  await expect(page.getByLabel('closed', { exact: true })).toHaveCount(1);

  await as(page, 'Henrike');
  await page.goto(`${address}?step=make-safe`);
  await page.getByRole('button', { name: /lock 31, Ilse/ }).click();
  await page.getByRole('button', { name: 'Ilse is gone' }).click();
  await page
    .getByLabel('Why somebody else takes it off')
    .fill('went home with the key, rung up, nobody at the work');
  const stands = page.getByLabel('Stands by');
  await expect(stands.getByRole('option', { name: 'Jorin' })).toHaveCount(0);
  await stands.selectOption('Rasmus');
  await page.getByLabel('Their PIN').fill(DEMO_PIN);
  await page.getByRole('button', { name: 'Take the lock off' }).click();
  await expect(page.getByRole('button', { name: /lock 31, Ilse/ })).toHaveCount(0);
  await expect(page.getByTestId('offline')).toHaveCount(0);
  await expect(page.getByTestId('aside')).toHaveCount(0);
  // Once the server has it, the trail does too.
  await expect(async () => {
    await page.goto('/trail');
    await expect(page.locator('[data-what=lockTakenOff]').first()).toContainText(
      /took somebody else’s lock off: Ilse’s/,
      { timeout: 2000 },
    );
  }).toPass();
});

test('a learner decides, and somebody else looks before anything is fitted; a reader looks and writes nothing', async ({
  page,
}) => {
  await as(page, 'Jorin');
  const address = await openJob(page, HOIST, 'Tiller floats by itself');
  await page.goto(`${address}?step=decide`);
  await page
    .getByRole('group', { name: 'What is done' })
    .getByRole('button', { name: /Repair/ })
    .click();
  await page.getByRole('combobox', { name: /^Part/ }).selectOption('Y14');
  await page.getByLabel('In a sentence').fill('It is loose on its stem.');
  const against = page.getByLabel(/do not name Y14 yet/);
  if ((await against.count()) > 0) await against.fill('I can see it.');
  for (const box of await page.getByRole('checkbox', { name: /looked at/ }).all()) await box.check();
  await expect(page.getByText('You decide as a learner')).toBeVisible();
  await page.getByRole('button', { name: 'Decide', exact: true }).click();
  await expect(page.getByText(/Jorin decided it as a learner/)).toBeVisible();
  await expect(page.getByRole('button', { name: 'Approve' })).toBeHidden();
  await step(page, 'Fix');
  await page.getByRole('textbox', { name: 'What was done' }).fill('Tightened');
  await page.getByRole('button', { name: 'Write it down' }).click();
  await expect(page.getByTestId('aside')).toContainText(
    'A technician or a lead looks at it under Decide first',
  );
  await page.getByRole('button', { name: 'Let it go' }).click();

  await as(page, 'Rasmus');
  await page.goto(`${address}?step=decide`);
  await hydrated(page);
  await page.getByRole('button', { name: 'Approve' }).click();
  await expect(page.getByText('✓ Approved by Rasmus')).toBeVisible();

  await as(page, 'Ansgar');
  await page.goto(`${address}?step=complaint`);
  await expect(page.getByTestId('reads-only')).toContainText('A reader does not do this');
  await expect(page.locator('main button:not(:disabled)')).toHaveCount(0);
  await page.goto('/people');
  await expect(page.getByRole('heading', { name: 'Not yours to do' })).toBeVisible();
});

test('what somebody wrote is sent in their name alone, also when another one took the tablet meanwhile', async ({
  page,
}) => {
  await as(page, 'Ilse');
  const address = await openJob(page, HOIST, 'Two on one tablet');
  await page.goto(`${address}?step=as-found`);
  await hydrated(page);
  await page.route('**/api/jobs/*/entries', (route) => route.abort());
  await page.getByRole('group', { name: /Water/ }).getByRole('button', { name: 'good', exact: true }).click();
  await expect(page.getByTestId('offline')).toContainText('1 entry will send');
  await page.request.post('/api/session', { data: { name: 'Rasmus', demo: true } });
  await page.unroute('**/api/jobs/*/entries');
  await page.goto(`${address}?step=as-found`);
  await expect(page.getByTestId('of-others')).toContainText('1 entry of Ilse waits on this device');
  const kept = async () => {
    const entries = await keptEntries<{ type: string; person: string }>(page.request, jobOf(address));
    return entries.filter(({ type }) => type === 'looked').map(({ person }) => person);
  };
  expect(await kept()).toEqual([]);
  await page.request.post('/api/session', { data: { name: 'Ilse', demo: true } });
  await page.goto(`${address}?step=as-found`);
  await pollKept(kept).toEqual(['Ilse']);
  await expect(page.getByTestId('of-others')).toHaveCount(0);
});

test('the lead makes an account; its first word is changed at once, and a PIN follows', async ({
  page,
  browser,
}) => {
  await as(page, 'Henrike');
  await page.goto('/people');
  await page.getByLabel('Name, as it signs').fill('Bodil');
  await page.getByRole('button', { name: 'Make the account' }).click();
  const word = (await page.getByTestId('first-word').locator('.fig-bold').textContent())!;
  expect(word).toMatch(/^[a-z2-9]{4}(-[a-z2-9]{4}){3}$/);
  await expect(page.getByTestId('person').filter({ hasText: 'Bodil' })).toContainText(
    'first word that is not used yet',
  );
  const context = await browser.newContext({ storageState: { cookies: [], origins: [] } });
  const own = await context.newPage();
  const said = await own.request.post('/api/session', { data: { name: 'Bodil', password: word } });
  expect(await said.json()).toMatchObject({ oneTime: true });
  await own.goto('/parts');
  await expect(own).toHaveURL(/\/account$/);
  await own.getByLabel('The word you came with').fill(word);
  await own.getByLabel('New password').fill('short');
  await own.getByRole('button', { name: 'Keep it' }).click();
  await expect(own.getByRole('alert').filter({ hasText: 'It is short; take 12' })).toBeVisible();
  await own.getByLabel('New password').fill('the winch pulled in at noon');
  await own.getByRole('button', { name: 'Keep it' }).click();
  const pin = own.getByRole('region', { name: 'PIN' });
  await pin.getByLabel('Password as it stands').fill('the winch pulled in at noon');
  await pin.getByLabel('New PIN').fill('8206');
  await pin.getByRole('button', { name: 'Keep it' }).click();
  await expect(pin.getByRole('status')).toContainText('Kept');
  await own.goto('/parts');
  await expect(own.getByRole('heading', { level: 1, name: 'Parts' })).toBeVisible();
  await context.close();
});
