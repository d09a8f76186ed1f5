import { expect, test, type Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { packBroadcast } from '../src/core/codes/transport';
import { answerByKeyboard, askedTest, MachineUnderTest, movedOn } from './bench';
import { hydrated, makeSafe, step } from './steps';

/** Puts the simulated machine back as it was found. */
async function restore(page: Page) {
  const setup = { controls: { key: 'on', float: 'on' } };
  await page.request.post('/api/machines/G-1/bus', { data: { function: 'Tiller float valve', setup } });
}

test('from a pasted code over the unplug test on the simulated bus to a named part', async ({ page }) => {
  await restore(page);
  await page.goto('/jobs/418?step=complaint');
  await hydrated(page);
  await page
    .getByLabel('Codes, in any notation')
    .fill('Hello Ilse,\nthe display said 14-06 again. Filter part no. 77-A.\nRegards, Rasmus');
  const found = page.getByTestId('found-code');
  await expect(found).toHaveCount(1);
  await expect(found).toContainText('current too high');
  await expect(found).toContainText('tiller float');
  await found.getByRole('button', { name: 'Pin as evidence' }).click();
  await expect(page.getByLabel('Codes in the record')).toContainText('14-6');

  await page.getByRole('link', { name: 'Test' }).click();
  await expect(page.locator('main[data-working=false]')).toBeVisible();
  // The unplug test is asked for by name; the bus answers it.
  await page.getByRole('button', { name: 'Other tests' }).click();
  await page
    .getByRole('menuitem', { name: /X31 unplugged/ })
    .last()
    .click();
  await expect.poll(async () => (await askedTest(page)).setup.unplugged).toEqual(['X31']);
  const answer = page.getByTestId('bus-answer');
  await expect(answer).toHaveAttribute('data-said', 'code 6');
  await expect(page.getByTestId('next-test')).toContainText('before the plug, loom or controller');
  await answer.getByRole('button', { name: 'Set the simulated machine so' }).click();
  await answer.getByRole('button', { name: 'Take it from the bus' }).click();
  // The code stays: what hangs on the plug is out of it.
  const doubt = page.getByLabel('Where the doubt sits');
  await expect(doubt).toContainText('X31 unplugged');
  await expect(doubt).toContainText(/Held:.*Y14/);

  await makeSafe(page, 'Tove');
  await step(page, 'Test');
  const machine = new MachineUnderTest('groomer-tiller-float', 'W114', 'shortToFrame', 0.6);
  const verdict = page.getByTestId('verdict');
  await expect(page.locator('main[data-working=false]')).toBeVisible();
  for (let round = 0; round < 6 && (await verdict.count()) === 0; round++) {
    const now = await askedTest(page);
    await answerByKeyboard(page, machine);
    if ((await movedOn(page, now)) === 'verdict') break;
  }
  await expect(verdict).toContainText('W114');
  await expect(verdict).toHaveAttribute('data-state', 'name');
  await restore(page);
});

test('the bus page follows the plug, and says plainly when the bus is gone', async ({ page }) => {
  await restore(page);
  await page.goto('/machines/G-1/bus');
  const codes = page.getByLabel('Active codes');
  await expect(page.getByTestId('heartbeat')).toHaveAttribute('data-lost', 'false');
  await expect(codes).toContainText('SPN 520214 FMI 6');
  await expect(codes).toContainText('Cab door switch');
  await page.getByRole('group', { name: 'float' }).getByRole('button', { name: /^off/ }).click();
  await expect(codes).not.toContainText('520214');
  await expect(page.getByText('Was here and is gone')).toContainText('SPN 520214 FMI 6');
  // The server goes out of reach: the line says so, and the bus comes back by itself.
  const gone = (route: { abort: () => Promise<void> }) => route.abort();
  await page.route('**/api/machines/G-1/bus', gone);
  await page.reload();
  const heartbeat = page.getByTestId('heartbeat');
  await expect(heartbeat).toContainText('Bus lost: the server does not answer');
  await expect(codes).not.toContainText('SPN');
  await page.unroute('**/api/machines/G-1/bus', gone);
  await expect(heartbeat).toHaveAttribute('data-lost', 'false');
  await restore(page);
});

/** Frames of messages whose packets interleave, as a bus log. */
function interleavedLog(): string {
  const messages = [
    [0x00, [0x14, 0xff, 0x64, 0x00, 0x01, 0x02, 0x6e, 0x00, 0x00, 0x01, 0x6c, 0xf0, 0xe5, 0x07], 65226],
    [0x27, [0x00, 0xff, 0x7f, 0x02, 0x09, 0x03, 0xcf, 0x04, 0x02, 0x7e], 65227],
    [0x21, [0x04, 0xff, 0x16, 0xf0, 0xe6, 0x01, 0x8a, 0xf0, 0xff, 0x01], 65226],
  ] as const;
  const queues = messages.map(([address, data, pgn]) => packBroadcast(pgn, address, [...data]));
  const lines: string[] = [];
  for (let round = 0; round < 3; round++) {
    queues.forEach((queue, at) => {
      const frame = queue[round];
      if (!frame) return;
      const hex = (value: number, digits: number) => value.toString(16).toUpperCase().padStart(digits, '0');
      const data = frame[1].map((byte) => hex(byte, 2)).join('');
      lines.push(`(${(100 + round * 0.1 + at * 0.01).toFixed(6)}) can0 ${hex(frame[0], 8)}#${data}`);
    });
  }
  return `${lines.join('\n')}\nthis line is damaged\n`;
}

test('worked examples and a log of three interleaved messages decode in the browser', async ({ page }) => {
  await page.goto('/codes');
  const box = page.getByLabel('Codes, in any notation');
  const found = page.getByLabel('Codes found');
  for (const [text, wanted] of [
    ['18FECA00#04FFB804030AFFFF', ['SPN 1208 FMI 3']],
    ['18FECA21#10FF24FCE501FFFF', ['SPN 523300 FMI 5']],
    [
      '1CECFF00#200E0002FFCAFE00\n1CEBFF00#0114FF640001026E\n1CEBFF00#020000016CF0E507',
      ['SPN 100 FMI 1', 'SPN 110 FMI 0', 'SPN 520300 FMI 5'],
    ],
    ['59 02 FF 02 01 13 2F C1 00 87 28 0A 82 1B 50', ['P0201-13', 'U0100-87', 'P0A82-1B']],
  ] as const) {
    await box.fill(text);
    await expect(found.getByRole('listitem')).toHaveCount(wanted.length);
    for (const code of wanted) await expect(found).toContainText(code);
  }
  await page.getByLabel('Log file').setInputFiles({
    name: 'shed.log',
    mimeType: 'text/plain',
    buffer: Buffer.from(interleavedLog()),
  });
  const result = page.getByTestId('log-result');
  await expect(result).toContainText('1 damaged line left out');
  for (const code of [100, 110, 520300, 639, 1231, 520214, 520330])
    await expect(result).toContainText(`SPN ${code}`);
  await expect(page.getByTestId('timeline').locator('canvas')).toBeVisible();
  const [saved] = await Promise.all([
    page.waitForEvent('download'),
    result.getByRole('button', { name: 'Save as a table' }).click(),
  ]);
  const table = readFileSync((await saved.path())!, 'utf8');
  expect(table.trim().split('\r\n')).toHaveLength(8);
  expect(table).toContain('J1939,39,639,9');
});

test('a code book takes a table of more than a megabyte, and says of a larger one that it is', async ({
  page,
}) => {
  const lines = (count: number) =>
    Array.from({ length: count }, (_one, k) => `maker;${k + 1};;${'Valve does not answer. '.repeat(11)}`);
  const file = (count: number) => ({
    name: 'maker.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(['system;code;mode;text', ...lines(count)].join('\n')),
  });
  expect(file(4700).buffer.length).toBeGreaterThan(1_200_000);
  await page.goto('/machines/G-6/codes');
  const input = page.getByLabel('Code table');
  for (const [count, says] of [
    [7000, 'at most 5000'],
    [24_000, 'The table is over 2 MB'],
  ] as const) {
    await input.setInputFiles(file(count));
    await expect(page.getByRole('alert').filter({ hasText: says })).toBeVisible();
  }
  await input.setInputFiles(file(4700));
  await expect(page.getByText('4700 lines taken in from maker.csv.')).toBeVisible();
  await expect(page.getByText('4700 lines', { exact: true })).toBeVisible();
});

test('a code book takes in a table whole or not at all, and gives it back', async ({ page }) => {
  await page.goto('/machines/T-3/codes');
  const input = page.getByLabel('Code table');
  const file = (text: string) => ({ name: 'maker.csv', mimeType: 'text/csv', buffer: Buffer.from(text) });
  await input.setInputFiles(file('system;code;text\nmaker;31;Stop relay\nradio;32;no such\n'));
  await expect(page.getByRole('alert').filter({ hasText: 'radio' })).toContainText('line 3, system');
  await expect(page.getByText('0 lines')).toBeVisible();
  await input.setInputFiles(
    file('system;code;mode;text;function;sheet\nmaker;31;05;Stop relay;Engine stop solenoid;2 B3\n'),
  );
  await expect(page.getByText('1 line taken in')).toBeVisible();
  await expect(page.getByRole('button', { name: /31-05/ })).toContainText('Stop relay');
  const table = await (await page.request.get('/api/machines/T-3/codes.csv')).text();
  expect(table).toContain('maker,31,05,,Stop relay,Engine stop solenoid,,2 B3,');
  await page.getByRole('button', { name: /31-05/ }).click();
  await page.getByRole('button', { name: 'Take out of the book' }).click();
  await expect(page.getByText('0 lines')).toBeVisible();
});
