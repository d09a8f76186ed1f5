import { shopMarks } from '../src/core/tables/marks';
import { expect, test, type Page } from '@playwright/test';
import type { Reading, Test } from '../src/core/circuit/schema';
import { jobSheet } from '../src/core/sheets/onCircuit/build';
import type { JobSheetName } from '../src/core/sheets/onCircuit/jobSheet';
import { MachineUnderTest } from './bench';
import { onOwnDevice } from './signIn';
import { hydrated, makeSafe, openJob } from './steps';

interface Story {
  machine: string;
  circuit: string;
  sheet: JobSheetName;
  hidden: [part: string, fault: string, ohms?: number];
  /** What the sheet says once it is found. */
  says: RegExp;
  /** Part that the path's doubt has moved to. */
  part: string;
  dead?: boolean;
}

/** Fills the cell that the sheet asks for, by its own words. */
async function fillNext(
  page: Page,
  story: Story,
  machine: MachineUnderTest,
  readings: Reading[],
): Promise<boolean> {
  const chosen = page.getByRole('table').locator('button[aria-pressed=true]');
  if ((await chosen.count()) === 0) return false;
  const label = (await chosen.getAttribute('aria-label'))!;
  // Which columns stand hangs on what was read.
  const wanted = cellTest(story, machine, readings, cellOfPlace(story, await cellPlace(page)));
  readings.push({ ...wanted, value: machine.value(wanted) } as Reading);
  const hold = page.locator('[data-hold]');
  if ((await hold.count()) > 0) await hold.check();
  const typed = machine.answer(wanted);
  // Before it may stand how warm the winding is.
  const field = page.getByRole('textbox').last();
  if ((await field.count()) > 0) {
    await field.fill(typed);
    await page.getByRole('button', { name: 'Pin', exact: true }).click();
  } else await page.getByRole('button', { name: typed, exact: true }).click();
  await expect(page.getByRole('button', { name: label, exact: true })).toHaveCount(0);
  return true;
}

/** Row and column of the chosen cell. */
async function cellPlace(page: Page): Promise<[number, number]> {
  return page.evaluate(() => {
    const cell = document.querySelector('table button[aria-pressed=true]')!.closest('td')!;
    const row = cell.parentElement!;
    return [[...row.parentElement!.children].indexOf(row), [...row.children].indexOf(cell) - 1];
  });
}

/** The frame of a matrix is its last row in the picture, and the last column of the sheet. */
function cellOfPlace({ sheet, circuit }: Story, [row, column]: [number, number]): [number, number] {
  const rows = jobSheet(new MachineUnderTest(circuit).model, sheet, [], shopMarks({}))!.rows.length;
  return sheet === 'conductors' && row === rows ? [column, row] : [row, column];
}

function cellTest(
  { sheet }: Story,
  machine: MachineUnderTest,
  readings: readonly Reading[],
  [row, column]: [number, number],
): Test {
  return jobSheet(machine.model, sheet, readings, shopMarks({}))!.rows[row]!.cells[column]!.test;
}

const STORIES: readonly Story[] = [
  {
    machine: 'W-1 Winch groomer OR-219: Recovery winch, in and out',
    circuit: 'winch-reversing',
    sheet: 'contacts',
    hidden: ['K1', 'stuckOpen'],
    says: /^K1, \d+ to \d+: does not make\./,
    part: 'K1',
  },
  {
    machine: 'L-2 Loader OR-131: Bucket lock coil over relay',
    circuit: 'loader-bucket-lock',
    sheet: 'interlocks',
    hidden: ['S22', 'stuckOpen'],
    says: /^S22 loses .*V: the first on the way/,
    part: 'S22',
  },
  {
    machine: 'L-2 Loader OR-131: Bucket lock coil over relay',
    circuit: 'loader-bucket-lock',
    sheet: 'terminals',
    hidden: ['K5', 'welded'],
    says: /^K5, .*: closed where it should be open\./,
    part: 'K5',
    dead: true,
  },
  {
    machine: 'T-3 Snow tractor with blower OR-140: Engine stop solenoid',
    circuit: 'tractor-blower-stop',
    sheet: 'coil',
    hidden: ['Y5H', 'open'],
    says: /Y5H: open\./,
    part: 'Y5H',
    dead: true,
  },
  {
    machine: 'T-3 Snow tractor with blower OR-140: Engine stop solenoid',
    circuit: 'tractor-blower-stop',
    sheet: 'windings',
    hidden: ['Y5P', 'open'],
    says: /^Nothing leads from Y5:P: Y5P is open\./,
    part: 'Y5P',
    dead: true,
  },
  {
    machine: 'P-5 Pump house, upper pond: Snow-water fill valve',
    circuit: 'pump-fill-valve',
    sheet: 'insulation',
    hidden: ['W41', 'weakInsulation', 3e5],
    says: /: leaks\./,
    part: 'W41',
    dead: true,
  },
  {
    machine: 'T-3 Snow tractor with blower OR-140: Engine stop solenoid',
    circuit: 'tractor-blower-stop',
    sheet: 'drop',
    hidden: ['X5.P', 'highResistance', 0.4],
    says: /^X5\.P .*: loses too much\./,
    part: 'X5.P',
  },
  {
    machine: 'C-1 Compressor house: Lance gate, open and close',
    circuit: 'compressor-gate',
    sheet: 'functions',
    hidden: ['Y12', 'open'],
    says: /^Left in doubt, each could stop all that fails: .*Y12.*Cleared by what works: /,
    part: '',
  },
  {
    machine: 'C-2 Compressor house, valley: Lance gate, open and close',
    circuit: 'compressor-gate',
    sheet: 'needs',
    hidden: ['Z2', 'lowPressure', 0.3],
    says: /^Q1 by Y14 lacks air\./,
    part: 'P0',
  },
  {
    machine: 'G-7 Groomer OR-207: Comb flaps, four outputs',
    circuit: 'groomer-comb-flaps',
    sheet: 'outputs',
    hidden: ['DQ3', 'noOutput'],
    says: /^One output is dead: DQ3\./,
    part: 'DQ3',
  },
  {
    machine: 'G-8 Groomer OR-208: Comb flaps, four outputs',
    circuit: 'groomer-comb-flaps',
    sheet: 'survey',
    hidden: ['W212', 'open'],
    says: /^X50\.2.*: not as drawn\./,
    part: 'W212',
  },
  {
    machine: 'L-2 Loader OR-131: Bucket lock coil over relay',
    circuit: 'loader-bucket-lock',
    sheet: 'diodes',
    hidden: ['V22', 'reversed'],
    says: /^V22: in the wrong way round/,
    part: 'V22',
    dead: true,
  },
  {
    machine: 'D-2 Boot dryer, hut: Heater behind the air switch',
    circuit: 'dryer-air-switch',
    sheet: 'actuation',
    hidden: ['B1', 'drifted', 2],
    says: /^B1 changes over every time, and not where the drawing says/,
    part: 'B1',
    dead: true,
  },
  {
    machine: 'G-4 Groomer OR-204: Blade tilt, both ways',
    circuit: 'groomer-blade-tilt',
    sheet: 'conductors',
    hidden: ['W14', 'weakInsulation', 2e5],
    says: /^Between W14 and GND it leaks\./,
    part: 'W14',
    dead: true,
  },
];

test.describe('sheets of a job', () => {
  for (const story of STORIES)
    test(`${story.sheet} finds what is planted, and the doubt follows`, async ({ page }) => {
      const machine = new MachineUnderTest(story.circuit, ...story.hidden);
      const address = await openJob(page, story.machine, `Sheet of ${story.sheet}`);
      if (story.dead) await makeSafe(page, 'Tove');
      await page.goto(`${address}?sheet=${story.sheet}`);
      await hydrated(page);
      const found = page.getByTestId('found');
      const readings: Reading[] = [];
      for (let round = 0; round < 14; round++) {
        if (story.says.test((await found.textContent()) ?? '')) break;
        if (!(await fillNext(page, story, machine, readings))) break;
      }
      await expect(found).toContainText(story.says);
      await page.getByRole('link', { name: 'Back to the next test' }).click();
      await expect(page.locator('main[data-working=false]')).toBeVisible();
      await expect(page.locator('[data-suspect]').first()).toContainText(story.part);
    });
});

test('two people on one sheet: the one who types keeps the cell, and is told what the other read there', async ({
  browser,
}) => {
  const [his, hers] = await Promise.all([onOwnDevice(browser, 'Tove'), onOwnDevice(browser, 'Ilse')]);
  const address = await openJob(his, 'G-8 Groomer OR-208: Comb flaps, four outputs', 'Two on one sheet');
  await makeSafe(his, 'Tove');
  for (const page of [his, hers]) {
    await page.goto(`${address}?sheet=coil`);
    await hydrated(page);
    const hold = page.locator('[data-hold]');
    if ((await hold.count()) > 0) await hold.check();
  }
  const ohms = (page: Page) => page.getByRole('textbox', { name: /^Ohms, / });
  const cell = (await ohms(his).getAttribute('aria-label'))!;
  await ohms(his).fill('2');
  await ohms(hers).fill('27.4');
  await hers.getByRole('button', { name: 'Pin', exact: true }).click();
  await expect(his.getByTestId('meanwhile')).toContainText('Ilse read this meanwhile: 27.4 Ω.');
  await expect(his.getByRole('textbox', { name: cell })).toHaveValue('2');
  await his.getByRole('button', { name: 'Leave it at that' }).click();
  await expect(ohms(his)).not.toHaveAttribute('aria-label', cell);
  await his.context().close();
  await hers.context().close();
});

test('the bench tells a relay from three readings, and keeps them', async ({ page }) => {
  await page.goto('/bench');
  await page.getByRole('link', { name: /Relay and switch terminals/ }).click();
  await page.getByLabel('Terminals', { exact: true }).fill('85, 86, 30, 87, 87a');
  const table = page.getByRole('table', { name: 'Readings' });
  const readings = [
    ['85', '86', 'rest', '85'],
    ['30', '87a', 'rest', '0.2'],
    ['30', '87', 'operated', '0.2'],
  ] as const;
  for (const [at, [from, to, state, ohms]] of readings.entries()) {
    await table.getByLabel(`From, line ${at + 1}`).fill(from);
    await table.getByLabel(`To, line ${at + 1}`).fill(to);
    await table.getByLabel(`State, line ${at + 1}`).selectOption(state);
    await table.getByLabel(`Ohms, line ${at + 1}`).fill(ohms);
  }
  const head = page.getByTestId('bench-head');
  await expect(head).toContainText('One pin-out fits');
  await expect(page.getByText('Pole: common 30, closes to 87, rests on 87a')).toBeVisible();
  await page.reload();
  await expect(head).toContainText('One pin-out fits');
});

test('of five hundred conductors only the lines that are near stand on the page, and all of them count', async ({
  page,
}) => {
  await page.goto('/bench/insulation');
  await page.evaluate(() => {
    const names = Array.from({ length: 500 }, (_one, k) => `c${k + 1}`);
    const readings = names.map((from, k) => ({ from, to: 'PE', ohms: k === 321 ? '80k' : 'OL' }));
    const fields = { conductors: names.join(', '), frame: 'PE', circuitVolts: '24', testVolts: '250' };
    localStorage.setItem(
      'spiraxis-bench-insulation',
      JSON.stringify({ fields, tables: { readings }, grids: {} }),
    );
  });
  await page.reload();
  const table = page.getByRole('table', { name: 'Today' });
  await expect(table).toHaveAttribute('aria-rowcount', '502');
  await expect(page.getByTestId('bench-head')).toHaveText('✕ Leaks: c322 to PE');
  const lines = table.getByLabel(/^From, line/);
  await expect(table.getByLabel('From, line 1', { exact: true })).toBeVisible();
  expect(await lines.count()).toBeLessThan(60);
  await table.evaluate((element) => element.parentElement!.scrollTo(0, 1e6));
  await expect(table.getByLabel('From, line 500', { exact: true })).toHaveValue('c500');
  await table.getByLabel('Ohms, line 500').fill('90k');
  await expect(page.getByTestId('bench-head')).toContainText('c500 to PE');
});
