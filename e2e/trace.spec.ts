import { expect, test } from '@playwright/test';
import { hydrated, openJob, step } from './steps';
import { keptEntries, pollKept } from './keptEntries';

test('a trace of a coil names a plunger that is held up, counts as readings, and stands in the report', async ({
  page,
}) => {
  await openJob(page, 'G-2 Groomer OR-202: Tiller float valve', 'Tiller floats late');
  await step(page, 'Complaint');
  await page
    .getByRole('group', { name: /Y14.*float on/ })
    .getByRole('button', { name: 'weak', exact: true })
    .click();
  await step(page, 'Test');
  const number = /jobs\/(\d+)/.exec(page.url())![1]!;
  await page.goto(`/jobs/${number}?sheet=trace&part=Y14`);
  await hydrated(page);
  const found = page.getByTestId('trace-found');
  // What is no trace is refused with its name, and nothing is lost by it.
  const bring = page.getByLabel('Bring a trace (CSV or WAV)');
  await bring.setInputFiles({ name: 'notes.csv', mimeType: 'text/csv', buffer: Buffer.from('hello\nworld') });
  await expect(page.getByRole('alert').filter({ hasText: /notes\.csv: .*no rows of figures/ })).toBeVisible();

  await bring.setInputFiles('demo/traces/tiller-float-sticky.csv');
  await expect(page.getByTestId('trace-chart')).toBeVisible();
  // An earlier job left the sound one: it is held against that without being asked.
  await expect(page.getByLabel('Held against')).toContainText('Y14, sound, job 398');
  await expect(found).toContainText('moves later than it did', { timeout: 90_000 });
  await expect(found).toContainText(/17\.\d ms after it was switched on, 13\.\d ms before/);
  await expect(found.getByTestId('trace-standings')).toContainText(/held up on its way\s*(1[6-9]|20) in 20/);
  const cursor = page.getByLabel(/^Cursor A/);
  await cursor.focus();
  await page.keyboard.press('ArrowRight');
  await expect(page.getByText('Between them:')).toBeVisible();

  await page.getByRole('button', { name: 'Keep it in the job' }).click();
  await expect(found).toContainText('Kept by Tove');
  await page.reload();
  await expect(found).toContainText('Kept by Tove, from tiller-float-sticky.csv');
  // What was kept is on its way to the server for a moment.
  const entries = () =>
    keptEntries<{ type: string; body: { reading?: { kind: string; value: unknown }; named?: string } }>(
      page.request,
      number,
    );
  await pollKept(
    async () => (await entries()).filter(({ body }) => body.reading?.kind === 'trace').length,
  ).toBe(1);
  const kept = await entries();
  const readings = kept.flatMap(({ type, body }) => (type === 'reading' ? [body.reading!] : []));
  // What its shape was named says whether it moved as well.
  expect(readings).toContainEqual(expect.objectContaining({ kind: 'trace', value: 'slow' }));
  expect(readings.filter(({ kind }) => kind === 'click')).toEqual([]);
  const amps = readings.find(({ kind }) => kind === 'amps');
  expect(Number(amps!.value)).toBeCloseTo(1.72, 1);
  expect(kept.find(({ type }) => type === 'trace')!.body.named).toBe('slow');
  await page.goto(`/jobs/${number}/report`);
  await expect(
    page.getByText(/Trace of Y14.*moved after 17\.\d ms, settles at 1\.72 A, moves late/),
  ).toBeVisible();
});

test('a start is recorded from the meter as it comes, and drawn beside what a sound one draws', async ({
  page,
}) => {
  await openJob(page, 'W-2 Winch groomer OR-221: Recovery winch, in and out', 'Winch to be watched');
  const number = /jobs\/(\d+)/.exec(page.url())![1]!;
  await page.evaluate(() => localStorage.setItem('spiraxis-live-meter', JSON.stringify({ from: 'shop' })));
  await page.goto(`/jobs/${number}?sheet=trace&part=M1`);
  await hydrated(page);
  const record = page.getByTestId('record');
  await record.getByRole('button', { name: 'Record from the meter' }).click();
  const turn = record.getByRole('button', { name: /^Turn it to DC amps/ });
  await expect(turn.or(record.getByText(/values in \d/))).toBeVisible();
  if (await turn.isVisible()) await turn.click();
  // It is switched on and off every four seconds by itself, slower where it is read slowly: one start is whole, wherever the recording began.
  await expect(record.getByText(/ (\d{4,}|[2-9]\d\d|1[5-9]\d) values in (\d\d|[7-9])\.\d s/)).toBeVisible({
    timeout: 60_000,
  });
  await record.getByRole('button', { name: 'Stop and draw it' }).click();
  await expect(page.getByTestId('trace-chart')).toBeVisible();
  await expect(page.getByTestId('trace-found')).toContainText(/A falling to [0-9.]+ A/);
  await page.getByRole('button', { name: 'Keep it in the job' }).click();
  await expect(page.getByTestId('trace-found')).toContainText(/from .*, recorded/);
});
