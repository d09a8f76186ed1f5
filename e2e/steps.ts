import { expect, type Page } from '@playwright/test';

/** Waits until the page's script runs: what is typed earlier than a person could is not heard. */
export async function hydrated(page: Page) {
  await expect(page.getByTestId('job-strip')).toHaveAttribute('data-working', 'false');
}

/** The same of a page that is no job. */
export async function ready(page: Page) {
  await expect(page.getByRole('button', { name: 'Spiraxis: shed and themes' })).toHaveAttribute(
    'data-ready',
    'true',
  );
}

/** Waits until the page has done what it does by itself at once. */
export async function rested(page: Page) {
  await ready(page);
  await page.evaluate(() => new Promise((resolve) => requestIdleCallback(resolve)));
}

/** Chooses a function on the form of a new job, as "W-1 Winch groomer: Recovery winch"; of many it is found by its machine. */
export async function chooseFunction(page: Page, machineAndFunction: string) {
  const choice = page.getByLabel('Machine and function');
  const wanted = choice.locator('option', { hasText: machineAndFunction }).first();
  if ((await wanted.count()) === 0) {
    const [code] = machineAndFunction.split(' ');
    // What is typed before the page's script runs is not heard.
    await expect(async () => {
      await page.getByLabel('Find it by any words').fill(code!);
      await expect(wanted).toBeAttached({ timeout: 1500 });
    }).toPass();
  }
  await choice.selectOption({ label: (await wanted.textContent())! });
}

/** Opens a new job with nothing tried yet; gives its address. */
export async function openJob(page: Page, machineAndFunction: string, title: string): Promise<string> {
  await page.goto('/new');
  await chooseFunction(page, machineAndFunction);
  await page.getByLabel('What fails').fill(title);
  await page.getByRole('button', { name: 'Open the job' }).click();
  await page.waitForURL(/\/jobs\/\d+/);
  return page.url().split('?')[0]!;
}

/** Opens a step of the job by its tab. */
export async function step(page: Page, name: string) {
  await page.getByRole('navigation', { name: 'Steps of the job' }).getByRole('link', { name }).click();
  await expect(page.locator('[aria-current=step]')).toHaveText(new RegExp(name));
}

/** Closes and proves every energy of the plan, and signs it. */
export async function makeSafe(page: Page, person: string) {
  await step(page, 'Make safe');
  const sign = page.getByRole('button', { name: `Sign as ${person}` });
  const closed = page.getByRole('button', { name: 'Closed and proved' });
  await expect(closed).toBeVisible();
  await expect(sign).toBeDisabled();
  for (let point = 0; point < 12 && (await closed.count()) > 0; point++) {
    await page.getByLabel('Lock number').fill(String(20 + point));
    const known = page.getByLabel('Known source', { exact: true });
    if ((await known.count()) > 0) {
      // A dead meter proves nothing, and no way of writing volts makes a live place dead.
      await known.fill('0');
      const works = await page.getByLabel(/\(was /).all();
      for (const work of works) await work.fill('0.0 V');
      await page.getByLabel('Known source again').fill('12.6 V');
      for (const [value, words] of [
        ['0', /proves nothing/],
        ['OL', /over range/],
        ['12.6', null],
      ] as const) {
        await known.fill(value);
        if (!words) break;
        await closed.click();
        await expect(page.getByRole('alert').filter({ hasText: words })).toBeVisible();
      }
      await works[0]!.fill('12.6 V');
      await closed.click();
      await expect(page.getByRole('alert').filter({ hasText: 'it is not dead' })).toBeVisible();
      await works[0]!.fill('0.0 V');
    } else await page.getByLabel(/Shown by/).fill('tried, stays');
    await closed.click();
    await expect(page.getByLabel('closed', { exact: true })).toHaveCount(point + 1);
  }
  await sign.click();
  await expect(page.getByTestId('made-safe')).toContainText(person);
}

/** Fills the form of the point that is open: a lock, dead between two live readings or shown otherwise, and closed. */
export async function provePoint(page: Page, lock: string) {
  const closed = page.getByRole('button', { name: 'Closed and proved' });
  await expect(closed).toBeVisible();
  await page.getByLabel('Lock number').fill(lock);
  const known = page.getByLabel('Known source', { exact: true });
  if ((await known.count()) > 0) {
    await known.fill('12.6');
    for (const work of await page.getByLabel(/\(was /).all()) await work.fill('0.0 V');
    await page.getByLabel('Known source again').fill('12.6 V');
  } else await page.getByLabel(/Shown by/).fill('tried, stays');
  await closed.click();
}

/** What was opened for a test with power on is closed and proved dead once more, where the next test is taken dead. */
export async function closeAgain(page: Page) {
  const gate = page.locator('[data-testid=gate][data-gate=close]');
  for (let point = 0; point < 12 && (await gate.count()) > 0; point++) {
    const asked = gate.getByRole('button', { name: /^Close .* and prove it$/ });
    const name = (await asked.textContent())!;
    await asked.click();
    await provePoint(page, String(40 + point));
    await expect(page.getByRole('button', { name, exact: true })).toHaveCount(0);
  }
}
