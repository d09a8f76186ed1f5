import { expect, test, type Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { as } from './signIn';

const chain = (page: Page) => page.getByLabel('Chain of parts');
const drawn = (page: Page) => page.getByRole('group', { name: 'Schematic of the circuit' });

/** Types a run and draws it with Enter. */
async function draw(page: Page, text: string) {
  await chain(page).fill(text);
  await chain(page).press('Enter');
  await expect(chain(page)).toHaveValue('');
}

async function openSheet(page: Page, address: string) {
  await page.goto(address);
  await expect(chain(page)).toBeFocused();
}

async function keep(page: Page, name: string, note: string) {
  await page.keyboard.press('Control+s');
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('What the function is called').fill(name);
  await dialog.getByLabel('What changed, and why').fill(note);
  await dialog.getByRole('button', { name: 'Keep it' }).click();
  await expect(dialog).toHaveCount(0);
}

test('two coils, an interlock and a fuse, from nothing, by keyboard alone, and diagnosed at once', async ({
  page,
}) => {
  await page.goto('/machines');
  await page.getByLabel('Code', { exact: true }).fill('E-1');
  await page.getByLabel('What it is').fill('Bench machine');
  await page.getByRole('button', { name: 'Add it' }).click();
  await expect(page.getByText('Nothing is drawn for this machine yet')).toBeVisible();
  const began = Date.now();
  await page.getByRole('link', { name: 'From an empty sheet' }).click();
  await expect(chain(page)).toBeFocused();
  await draw(page, 'battery 12.6, fuse 10, wire, seat switch S1, wire W2');
  await draw(page, 'after W2, lever=left switch S2, plug X1, left coil Y1 7.4, plug X1, @R');
  await draw(page, 'after W2, lever=right switch S3, plug X2, right coil Y2 7.4, plug X2, @R');
  await draw(page, '@R, wire W9, ground');
  await expect(drawn(page).locator('[data-block]')).toHaveCount(12);
  // What no drawing can tell is asked: how it is cut off, whom each contact protects, whether it is one. A press answers each.
  const finding = page.locator('[data-finding]');
  await expect(finding).toHaveCount(7);
  await finding.getByRole('button', { name: 'Take the usual words' }).click();
  await finding.filter({ hasText: 'S1' }).getByRole('button', { name: 'It guards a person' }).click();
  for (const contact of ['S2', 'S3'])
    await finding
      .filter({ hasText: contact })
      .getByRole('button', { name: 'It guards nobody and nothing' })
      .click();
  for (const contact of ['S1', 'S2', 'S3'])
    await finding.filter({ hasText: contact }).getByRole('button', { name: 'It is a plain contact' }).click();
  await expect(page.getByText('It can be diagnosed as it stands')).toBeVisible();
  // Tried at once: the interlock, then the lever.
  await page.getByRole('tab', { name: 'Try it' }).click();
  await page.getByRole('group', { name: 'seat' }).getByRole('button', { name: 'taken' }).click();
  await page.getByRole('group', { name: 'lever' }).getByRole('button', { name: 'left' }).click();
  await expect(drawn(page).locator('[data-block=Y1]')).toContainText('1.66 A');
  await expect(drawn(page).locator('[data-block=Y2]')).not.toContainText(' A');
  await keep(page, 'Boom swing, both ways', '');
  expect(Date.now() - began).toBeLessThan(180_000);
  await expect(page).toHaveURL(/function=/);

  await page.goto('/machines/E-1');
  await page.getByRole('link', { name: 'New job' }).click();
  await page.getByLabel('What fails').fill('Swings right, not left');
  await page
    .getByRole('radiogroup', { name: /Left coil/ })
    .getByLabel('dead')
    .check();
  await page
    .getByRole('radiogroup', { name: /Right coil/ })
    .getByLabel('works')
    .check();
  await page.getByRole('button', { name: 'Open the job' }).click();
  await expect(page.getByTestId('next-test')).toBeVisible();
  await expect(page.getByLabel('Where the doubt sits')).toContainText('Y1');
});

test('a mistyped run says what is wrong and keeps the text; undo, redo and a reload lose nothing', async ({
  page,
}) => {
  await openSheet(page, '/machines/T-3/draw');
  await chain(page).fill('battery, fuze 10, wire');
  await expect(
    page.getByText('“fuze 10” names no part').or(page.getByText('"fuze 10" names no part')),
  ).toBeVisible();
  await chain(page).press('Enter');
  await expect(chain(page)).toHaveValue('battery, fuze 10, wire');
  await draw(page, 'battery 12, fuse F20 10, wire');
  await draw(page, 'lamp H20 6, ground');
  await expect(page.getByLabel('Parts of the drawing')).toContainText('H20');
  await page.keyboard.press('Control+z');
  await expect(page.getByLabel('Parts of the drawing')).not.toContainText('H20');
  await page.keyboard.press('Control+y');
  await expect(page.getByLabel('Parts of the drawing')).toContainText('H20');
  await page.reload();
  await expect(page.getByText('Kept on this device from before')).toBeVisible();
  await expect(page.getByLabel('Parts of the drawing')).toContainText('H20');
  await page.getByRole('button', { name: 'Begin again' }).click();
  await expect(page.getByText('An empty sheet.')).toBeVisible();
});

test('a shared part changes in every function; open jobs keep the drawing they began on', async ({
  page,
}) => {
  await page.goto('/machines/G-2');
  await expect(page.getByRole('region', { name: 'Shared parts' })).toContainText('F7');
  await page.getByRole('link', { name: 'Blade tilt, both ways' }).click();
  await expect(chain(page)).toBeFocused();
  await page.getByRole('combobox', { name: 'Part', exact: true }).selectOption('F7');
  const form = page.getByTestId('part-form');
  await expect(form).toContainText('also in Blade float valve');
  await form.getByLabel('Rating, A').fill('-4');
  await form.getByLabel('Rating, A').press('Enter');
  await expect(form.getByRole('alert')).toContainText('F7 amps');
  await form.getByLabel('Rating, A').fill('15');
  await form.getByLabel('Rating, A').press('Enter');
  await expect(form.getByRole('alert')).toHaveCount(0);
  await page.keyboard.press('Control+s');
  await expect(page.getByRole('checkbox', { name: 'Blade float valve' })).toBeChecked();
  await page.keyboard.press('Escape');
  await keep(page, 'Blade tilt, both ways', 'Fuse F7 is 15 A on the plate');
  await expect(page.getByText(', version 2')).toBeVisible();
  await page.getByRole('tab', { name: 'Versions' }).click();
  await page.getByRole('button', { name: 'Compare' }).last().click();
  await expect(page.getByText('F7 rating: 15 A (was ')).toBeVisible();
  await page.goto('/machines/G-2');
  await expect(page.getByRole('region', { name: 'Functions' }).getByText(/version 2/)).toHaveCount(2);
  // Job 417 was opened on version 1, says so, and goes over when it is told to.
  await page.goto('/jobs/417?step=locate');
  await page.getByRole('button', { name: /^F7/ }).first().click();
  const newer = page.getByTestId('newer-drawing');
  await expect(newer).toContainText('version 2');
  await newer.getByRole('button', { name: 'Take the new drawing' }).click();
  await expect(newer).toHaveCount(0);
});

test('the open formats go out and come in; a bad file changes nothing', async ({ page }) => {
  await openSheet(page, '/machines/L-2/draw?template=two-way-pair');
  await expect(page.getByLabel('Parts of the drawing')).toContainText('Y2');
  const out = async (item: string) => {
    await page.getByRole('button', { name: 'Files' }).click();
    const download = page.waitForEvent('download');
    await page.getByRole('menuitem', { name: item }).click();
    return readFileSync(await (await download).path(), 'utf8');
  };
  const circuit = JSON.parse(await out('Circuit file')) as { parts: { ref: string }[] };
  const wires = await out('Wiring list (CSV)');
  const netlist = await out('Netlist as it stands (SPICE)');
  // The drawing is laid out beside the page: saved once it is there.
  await expect(drawn(page).first()).toBeVisible();
  const svg = await out('What is on the screen (SVG)');
  expect(svg).toContain('Y2');
  expect(wires).toContain('W11');
  expect(netlist).toMatch(/^\* Two-way valve pair/);
  const take = (name: string, text: string) =>
    page
      .getByLabel('Circuit file')
      .setInputFiles({ name, mimeType: 'text/plain', buffer: Buffer.from(text) });
  await take('broken.csv', 'from,to,length\nC,R,far');
  const refusal = page.getByRole('region', { name: 'Checks' }).getByRole('alert');
  await expect(refusal).toContainText('line 2, length: "far" is no figure');
  await take('broken.circuit.json', '{"format":"spiraxis-circuit","version":1}');
  await expect(refusal).toContainText('name');
  await expect(page.getByLabel('Parts of the drawing').getByRole('button')).toHaveCount(circuit.parts.length);
  await take('again.cir', netlist);
  await expect(page.getByText(`again.cir: ${circuit.parts.length} parts.`)).toBeVisible();
  await take('wires.csv', `${wires.split('\r\n')[0]}\r\nW11,S1:2,X1.1:1,,red,18 AWG,3\r\n`);
  await expect(page.getByText('wires.csv: 0 added, 1 changed.')).toBeVisible();
});

test('a machine leaves as one archive and comes back under another code', async ({ page }) => {
  const archive = await page.request.get('/api/machines/G-4/archive');
  expect(archive.headers()['content-type']).toBe('application/zip');
  const bytes = await archive.body();
  await page.goto('/machines');
  const picker = page.getByLabel('Machine archive');
  await picker.setInputFiles({ name: 'bad.zip', mimeType: 'application/zip', buffer: Buffer.from('no') });
  await expect(page.getByRole('alert').filter({ hasText: 'this is no ZIP file' })).toBeVisible();
  await picker.setInputFiles({ name: 'G-4.spiraxis.zip', mimeType: 'application/zip', buffer: bytes });
  await expect(page.getByRole('alert').filter({ hasText: 'in the shed already' })).toBeVisible();
  await page.getByLabel('Under another code').fill('G-44');
  await picker.setInputFiles({ name: 'G-4.spiraxis.zip', mimeType: 'application/zip', buffer: bytes });
  await expect(page).toHaveURL(/machines\/G-44/);
  await expect(page.getByRole('region', { name: 'Functions' })).toContainText('Tiller float valve');
  const again = await page.request.get('/api/machines/G-44/archive');
  expect((await again.body()).length).toBeGreaterThan(bytes.length - 200);
  for (const name of ['Blade float valve', 'Blade tilt, both ways', 'Tiller float valve']) {
    await page.getByRole('button', { name: `Take ${name} out` }).click();
    await expect(page.getByRole('button', { name: `Take ${name} out` })).toHaveCount(0);
  }
});

test('a sheet prints with its parts and wires, and saves as SVG; tables keep the shop’s own rules', async ({
  page,
}) => {
  await page.goto('/machines/G-1');
  await page.getByRole('link', { name: 'Sheet', exact: true }).click();
  await expect(drawn(page)).toBeVisible();
  await expect(page.getByRole('region', { name: 'Parts' })).toContainText('Y14');
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'SVG' }).click();
  const svg = readFileSync(await (await download).path(), 'utf8');
  expect(svg).toMatch(/^<svg[^>]+xmlns="http:\/\/www.w3.org\/2000\/svg"/);
  expect(svg).toContain('Y14');
  expect(svg).not.toContain('tabindex');

  // A technician looks at the tables; the lead settles them.
  await page.goto('/tables');
  await expect(page.getByText('A lead settles the shop’s own figures.')).toBeVisible();
  await as(page, 'Henrike');
  await page.goto('/tables');
  const cell = page.getByLabel(
    'Contacts and joints: greatest drop at working current, One closed heavy contact, DC, Good up to',
  );
  await cell.fill('0.08');
  await page.getByRole('button', { name: 'Keep the shop rules' }).click();
  await expect(page.getByText('Kept.')).toBeVisible();
  await page.reload();
  await expect(cell).toHaveValue('0.08');
});
