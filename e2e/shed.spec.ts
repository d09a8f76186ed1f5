import { expect, test } from '@playwright/test';
import { openJob } from './steps';
import { DEMO_PIN } from '../demo/people';
import { as } from './signIn';
import { keptEntries } from './keptEntries';

test('a drawing from a PDF: its pages become sheets, a part is pinned and found again', async ({ page }) => {
  const pdf = await (await page.request.get('/api/jobs/398/report.pdf')).body();
  await page.goto('/machines/G-4/drawings');
  await expect(page.getByText('Nothing is kept yet')).toBeVisible();
  const input = page.getByLabel('Drawing file');
  await input.setInputFiles({
    name: 'broken.pdf',
    mimeType: 'application/pdf',
    buffer: Buffer.from('no pdf at all'),
  });
  await expect(page.getByRole('alert').filter({ hasText: 'broken.pdf could not be read' })).toBeVisible();
  await input.setInputFiles({ name: 'hydraulics.pdf', mimeType: 'application/pdf', buffer: pdf });
  await expect(page.getByRole('link', { name: /hydraulics, page 2/ })).toBeVisible();
  await page.getByRole('link', { name: /hydraulics, page 1/ }).click();
  await page.getByRole('combobox', { name: /^Part/ }).selectOption('Y14');
  const sheet = page.getByRole('button', { name: 'Pin Y14 here' });
  await sheet.click({ position: { x: 300, y: 200 } });
  const pin = page.getByRole('button', { name: 'Y14', exact: true });
  await expect(pin).toBeVisible();
  // From the job's own step the pin is one link away.
  await page.goto('/jobs/416?step=locate');
  await page.getByRole('button', { name: /^Y14/ }).first().click();
  await page.getByRole('link', { name: 'Y14 on the drawing' }).click();
  await expect(pin).toBeVisible();
  await page.getByRole('button', { name: 'Take its pin off' }).click();
  await expect(pin).toHaveCount(0);
  // A point has a pin of its own.
  await page.getByRole('combobox', { name: /^Part/ }).selectOption('@DM2:14');
  await page.getByRole('button', { name: 'Pin DM2:14 here' }).click({ position: { x: 120, y: 90 } });
  await expect(page.getByRole('button', { name: 'DM2:14', exact: true })).toBeVisible();
  for (const left of [1, 0]) {
    await page.getByRole('button', { name: 'Take the sheet out' }).click();
    await expect(page.getByRole('link', { name: /hydraulics/ })).toHaveCount(left);
  }
});

test('the site policy is kept, says who settled it, and rules what is offered', async ({ page }) => {
  const tag = page.getByTestId('next-test');
  const asked = async () => (JSON.parse((await tag.getAttribute('data-test'))!) as { kind: string }).kind;
  const address = await openJob(page, 'W-1 Winch groomer OR-219: Recovery winch, in and out', 'Winch dead');
  await page.goto(address);
  await expect.poll(asked).toBe('volts');
  await page.goto('/policy');
  const keep = page.getByRole('button', { name: 'Keep it' });
  // A technician looks at it; the lead settles it.
  await expect(page.getByText(/A technician does not do this: a lead settles/)).toBeVisible();
  await expect(keep).toBeDisabled();
  await as(page, 'Henrike');
  await page.reload();
  await page
    .getByRole('group', { name: /live run/ })
    .getByRole('button', { name: 'Not here' })
    .click();
  await keep.click();
  await expect(page.getByText('Kept. Jobs follow it')).toBeVisible();
  await page.reload();
  await expect(page.getByText('settled by Henrike')).toBeVisible();
  await page.goto(address);
  await expect.poll(asked).not.toBe('volts');
  await page.goto('/policy');
  await page
    .getByRole('group', { name: /live run/ })
    .getByRole('button', { name: 'Allowed' })
    .click();
  await keep.click();
  await expect(page.getByText('Kept. Jobs follow it')).toBeVisible();
});

test('jobs are found by words, and Ctrl K jumps anywhere', async ({ page }) => {
  await page.goto('/');
  // A key pressed before the page answers is nobody's.
  await expect(async () => {
    await page.keyboard.press('/');
    await expect(page.getByRole('searchbox').first()).toBeFocused({ timeout: 500 });
  }).toPass();
  await page.getByRole('searchbox').first().fill('');
  await page.keyboard.type('pump');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/q=pump/);
  await expect(page.getByRole('link', { name: 'Water runs on with the pond full' })).toBeVisible();
  await expect(page.getByRole('link', { name: 'Blade tilts left but not right' })).toHaveCount(0);
  await page.goto('/?q=nosuchthing');
  await expect(page.getByText('No job is about “nosuchthing”')).toBeVisible();
  await page.keyboard.press('Control+k');
  await page.getByPlaceholder('Job, machine, step or page').fill('two nights');
  await page.getByRole('option', { name: /Winch dead both ways/ }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Winch dead both ways');
  await page.keyboard.press('Control+k');
  await page.getByPlaceholder('Job, machine, step or page').fill('make safe');
  await page.keyboard.press('Enter');
  await expect(page.locator('[aria-current=step]')).toHaveText('Make safe');
});

test('a function that works clears what a dead one shares with it', async ({ page }) => {
  await openJob(page, 'G-4 Groomer OR-204: Blade tilt, both ways', 'Blade tilt dead both ways');
  await page.getByRole('link', { name: 'Complaint' }).click();
  const answer = async (row: RegExp, value: string) =>
    page.getByRole('group', { name: row }).getByRole('button', { name: value, exact: true }).click();
  await answer(/Y7/, 'dead');
  await answer(/Y8/, 'dead');
  const other = page.getByRole('list', { name: 'Other functions of this machine' });
  await expect(other).toContainText('shares G1, F7, S1, W12, W18');
  await other.getByRole('button', { name: 'Ask about it too' }).click();
  await answer(/Y9 blade float coil/, 'works');
  // A shared fuse that feeds the float valve is cleared at once. A shared contact may still be too weak for the tilt.
  await expect(page.getByTestId('strip').getByRole('img')).toHaveAttribute('aria-label', /F7 spared/);
  await page.reload();
  await expect(page.getByTestId('strip').getByRole('img')).toHaveAttribute('aria-label', /F7 spared/);
});

test('what a closed job ended with is this machine’s own value in the next one', async ({ page }) => {
  const entries = await keptEntries<{
    type: string;
    body: { phase?: string; reading?: { kind: string; through?: string; setup: object } };
  }>(page.request, 398);
  const amps = entries.find(({ body }) => body.phase === 'fixed' && body.reading?.kind === 'amps')!.body
    .reading!;
  const address = await openJob(page, 'G-2 Groomer OR-202: Tiller float valve', 'Tiller float weak');
  const query = new URLSearchParams({ mode: 'amps', red: amps.through!, set: JSON.stringify(amps.setup) });
  await page.goto(`${address}?${query.toString()}`);
  await expect(page.getByTestId('held-against')).toContainText(/Proved good here: .+ A, .+, job 398/);
});

test('a bridge for a test stands in the ledger until somebody says it is out', async ({ page }) => {
  const address = await openJob(page, 'G-4 Groomer OR-204: Blade tilt, both ways', 'Tilts left only');
  const setup = { controls: { key: 'on', tilt: 'right' }, jumpers: [['B+', 'Y8:1']] };
  const query = new URLSearchParams({ mode: 'function', red: 'Y8', set: JSON.stringify(setup) });
  await page.goto(`${address}?${query.toString()}`);
  const tag = page.getByTestId('next-test');
  // The worst comes first, and nothing is pinned before it is ticked.
  await expect(tag).toContainText('The machine may move.');
  await page.getByRole('button', { name: 'works' }).click();
  await expect(page.getByTestId('ledger-item')).toHaveCount(0);
  await page.getByLabel('Clear', { exact: true }).check();
  const bridge = page.getByTestId('ledger-item').filter({ hasText: 'Bridge B+ to Y8:1' });
  await expect(bridge).toContainText('10 min left');
  await page.getByRole('button', { name: 'works' }).click();
  // It is in the way of handing over, wherever one looks from.
  await page.goto(`${address}?step=prove`);
  await expect(page.getByText('Bridge B+ to Y8:1 is out')).toBeVisible();
  await page.getByRole('button', { name: 'It is out' }).click();
  // One person's word does not show it: a second one has to see it, and no reason leaves it in.
  const proof = page.getByRole('group', { name: /Bridge B\+ to Y8:1 is out/ });
  await expect(proof).toHaveAttribute('data-state', 'open');
  await expect(proof.getByRole('button', { name: 'Leave it' })).toHaveCount(0);
  const second = page.getByLabel('Seen out as well by');
  await expect(second.getByRole('option', { name: 'Tove' })).toHaveCount(0);
  await second.selectOption('Ilse');
  await page.getByLabel('Their PIN').fill('1111');
  await page.getByRole('button', { name: 'Both say so' }).click();
  await expect(page.getByRole('alert').filter({ hasText: /not the name and the PIN/ })).toBeVisible();
  await page.getByLabel('Their PIN').fill(DEMO_PIN);
  await page.getByRole('button', { name: 'Both say so' }).click();
  await expect(page.getByText('Nothing is left in.')).toBeVisible();
  await expect(proof).toHaveAttribute('data-state', 'done');
});

test('what is to be looked at again stands in a list, opens a job, and goes into a calendar', async ({
  page,
  baseURL,
}) => {
  await page.goto('/retests');
  const line = page.getByTestId('retest').filter({ hasText: 'job 398' });
  await expect(line).toContainText('G-2');
  const feed = await page.request.get('/api/retests.ics');
  expect(feed.headers()['content-type']).toContain('text/calendar');
  const text = (await feed.text()).replaceAll(/\r\n /g, '');
  expect(text).toMatch(/^BEGIN:VCALENDAR[\s\S]*DTSTART;VALUE=DATE:\d{8}[\s\S]*END:VCALENDAR\s*$/);
  expect(text).toContain(`URL;VALUE=URI:${new URL(baseURL!).origin}/jobs/398`);
  // Other journeys have a job in hand on that function, or have none yet.
  await line.getByRole('link', { name: /Read it again|is in hand/ }).click();
  await expect(page).toHaveURL(/\/retests\/round\?function=|\/jobs\/\d+/);
  if (page.url().includes('/retests')) await expect(page.getByTestId('round-stop')).toContainText('Tiller');
  else await expect(page.getByRole('banner')).toContainText('G-2');
});

test('the next test shows where its probes go on the machine’s own photo; labels lead back to the machine', async ({
  page,
}) => {
  // A test by its address: what other journeys read in this job changes which one is the best.
  const set = JSON.stringify({ controls: { key: 'on', tilt: 'right' } });
  await page.goto(`/jobs/417?mode=volts&red=15&black=12&set=${encodeURIComponent(set)}`);
  await page.getByTestId('probe-picture').click();
  const large = page.getByRole('dialog', { name: /Blade valve block/ });
  await expect(large.getByTitle(/red|black|here/).first()).toBeVisible();
  await page.keyboard.press('Escape');
  await page.goto('/machines/G-2/labels');
  await expect(page.getByRole('img', { name: 'Code that opens G-2' }).first()).toBeVisible();
  await expect(page.getByText('X31:2').first()).toBeVisible();
  // Asked for under a name of loopback, its codes lead to this device alone: that is said before they are printed.
  await expect(page.getByRole('note')).toContainText('SPIRAXIS_ORIGIN');
  await page.goto('/jobs/417/tags');
  await expect(page.getByRole('img', { name: 'Code that opens job 417' }).first()).toBeVisible();
});
