import { expect, test, type Page } from '@playwright/test';
import type { Test } from '../src/core/circuit/schema';
import { answerByKeyboard, askedTest, MachineUnderTest, movedOn } from './bench';
import { locksOff, prove } from './prove';
import { chooseFunction, closeAgain, makeSafe, step } from './steps';
import { as } from './signIn';

interface Story {
  machine: string;
  circuit: string;
  title: string;
  /** What the driver reported, by the name of the complaint's row and the answer. */
  reported: [RegExp, string][];
  hidden: [part: string, fault: string, ohms?: number];
  action: 'Repair' | 'Replace';
  /** What the spare reads on the bench. */
  bench?: string;
  /** Who does it; Tove where nobody is named. */
  person?: string;
  /** The date that goes on the part. */
  dated?: string;
  /** Outside checks that show something bad. */
  bad?: RegExp;
}

async function openJob(page: Page, { machine, title, person }: Story): Promise<string> {
  if (person) await as(page, person);
  await page.goto('/new');
  await chooseFunction(page, machine);
  await page.getByLabel('What fails').fill(title);
  await page.getByRole('button', { name: 'Open the job' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText(title);
  return /jobs\/(\d+)/.exec(page.url())![1]!;
}

async function asFound(page: Page, { bad }: Story) {
  await step(page, 'As found');
  await page.getByRole('button', { name: /from the drawing/ }).click();
  await expect(page.getByTestId('wire').first()).toBeVisible();
  await page.getByLabel('Picture', { exact: true }).setInputFiles('docs/screenshots/test-day.png');
  const photo = page.getByRole('button', { name: 'no words yet' });
  await photo.click();
  const marks = page.getByTestId('marks');
  const box = (await marks.boundingBox())!;
  await page.mouse.move(box.x + box.width * 0.3, box.y + box.height * 0.3);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width * 0.6, box.y + box.height * 0.6, { steps: 4 });
  await page.mouse.up();
  await page.getByLabel('What it shows').fill('plug before it came off');
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByRole('button', { name: /plug before it came off.*1 marks/ })).toBeVisible();
  await page.getByRole('group', { name: /Water/ }).getByRole('button', { name: 'good', exact: true }).click();
  if (bad) await page.getByRole('group', { name: bad }).getByRole('button', { name: 'not good' }).click();
}

async function testUntilNamed(page: Page, machine: MachineUnderTest): Promise<Test[]> {
  await step(page, 'Test');
  const verdict = page.getByTestId('verdict');
  const asked: Test[] = [];
  await expect(page.locator('main[data-working=false]')).toBeVisible();
  for (let round = 0; round < 12; round++) {
    if ((await verdict.count()) > 0) break;
    const now = await askedTest(page);
    asked.push(now);
    await closeAgain(page);
    await answerByKeyboard(page, machine);
    if ((await movedOn(page, now)) === 'verdict') break;
  }
  await expect(verdict).toHaveAttribute('data-state', 'name');
  return asked;
}

async function decide(page: Page, { action, hidden: [part] }: Story) {
  await step(page, 'Decide');
  await expect(page.getByTestId('decide-verdict')).toHaveAttribute('data-state', 'name');
  await expect(page.getByRole('heading', { name: `${part}: proved bad` })).toBeVisible();
  await page.getByRole('button', { name: action, exact: true }).click();
  await page.getByLabel('repair, minutes').fill('30');
  await page.getByLabel('replace, minutes').fill('45');
  await page.getByLabel('replace, parts cost').fill('60');
  for (const box of await page.getByRole('checkbox').all()) await box.check();
  await page.getByLabel('In a sentence').fill('Two readings agree.');
  await page.getByRole('button', { name: 'Decide', exact: true }).click();
  await expect(page.getByTestId('decided')).toContainText(part);
  await page.getByRole('button', { name: 'Approve' }).click();
  await expect(page.getByText('Approved by')).toBeVisible();
}

async function fix(page: Page, { action, bench, dated, hidden: [part] }: Story) {
  await step(page, 'Fix');
  if (action === 'Replace' && bench) {
    const input = page.getByLabel(/^Spare, ohms/);
    await input.fill('OL');
    await page.getByRole('button', { name: 'Pin', exact: true }).click();
    await expect(page.getByTestId('spare-test').first()).toContainText('do not fit it');
  }
  await page.getByRole('textbox', { name: 'What was done' }).fill('Made good and sealed');
  if (dated) await page.getByLabel('Date written on the part').fill(dated);
  if (action === 'Replace' && bench) {
    // What read wrong is not fitted, and neither is what nobody read.
    await expect(page.getByRole('button', { name: 'Write it down' })).toBeDisabled();
    await page.getByLabel(/^Spare, ohms/).fill(bench);
    await page.getByRole('button', { name: 'Pin', exact: true }).click();
    await expect(page.getByTestId('spare-test').last()).toContainText('as it should be');
  }
  await page.getByRole('button', { name: 'Write it down' }).click();
  await expect(page.getByTestId('fix').last()).toContainText(part);
  const back = page.getByRole('button', { name: 'It is back' });
  for (let left = await back.count(); left > 0; left--) {
    await back.first().click();
    await expect(back).toHaveCount(left - 1);
  }
}

async function handOver(page: Page, number: string, { title, person = 'Tove', hidden: [part] }: Story) {
  await step(page, 'Hand over');
  await expect(page.getByText('Everything is shown or signed off')).toBeVisible();
  await page.getByLabel('A word to the driver').fill('Try it once more at noon.');
  await page.getByRole('button', { name: `Hand over as ${person}` }).click();
  await expect(page.getByTestId('handed-over')).toContainText(person);
  await expect(page.getByTestId('offline')).toHaveCount(0);
  await page.getByRole('link', { name: 'See and print' }).click();
  const report = page.getByTestId('report');
  await expect(report).toContainText(title);
  await expect(report).toContainText(new RegExp(`${part}.*proved bad`));
  await expect(report).toContainText('handed over');
  await expect(report.getByRole('region', { name: 'Proofs' })).not.toContainText('not shown');
  await expect(report).toContainText('licensed practice come first');
  const pdf = await page.request.get(`/api/jobs/${number}/report.pdf`);
  const bytes = await pdf.body();
  expect(bytes.subarray(0, 5).toString()).toBe('%PDF-');
  expect(bytes.length).toBeGreaterThan(8000);
  const table = await (await page.request.get(`/api/jobs/${number}/readings.csv`)).text();
  expect(table.split('\r\n').length).toBeGreaterThan(5);
  // The shed no longer has it in hand.
  await page.goto('/');
  await expect(page.getByRole('heading', { name: /In hand/ })).toBeVisible();
  await expect(page.locator(`a[href="/jobs/${number}"]`)).toHaveCount(0);
  await page.goto(`/?show=closed&q=${number}`);
  await expect(page.locator(`a[href="/jobs/${number}"]`)).toHaveCount(1);
}

async function complain(page: Page, { reported }: Story) {
  for (const [row, answer] of reported)
    await page.getByRole('group', { name: row }).getByRole('button', { name: answer, exact: true }).click();
}

async function wholeJob(page: Page, story: Story): Promise<Test[]> {
  const number = await openJob(page, story);
  await step(page, 'Complaint');
  await complain(page, story);
  // Not made safe: a test that is taken dead stays shut.
  await step(page, 'Test');
  await page.getByTestId('next-test').waitFor();
  const first = await askedTest(page);
  if (['ohms', 'insulation', 'diode'].includes(first.kind))
    await expect(page.getByTestId('gate')).toBeVisible();
  await makeSafe(page, story.person ?? 'Tove');
  await asFound(page, story);
  const asked = await testUntilNamed(page, new MachineUnderTest(story.circuit, ...story.hidden));
  await decide(page, story);
  await fix(page, story);
  await prove(page, new MachineUnderTest(story.circuit));
  await handOver(page, number, story);
  return asked;
}

/** The valve of a demo circuit, with its ports. */
function demoValve(circuit: string) {
  const { parts } = new MachineUnderTest(circuit).model.compiled.circuit;
  return parts.find((part) => part.kind === 'valve')!;
}

test.describe('a whole job, from complaint to printed report', () => {
  test('an open wire', async ({ page }) => {
    await wholeJob(page, {
      machine: 'G-4 Groomer OR-204: Blade tilt',
      circuit: 'groomer-blade-tilt',
      title: 'Blade will not tilt right since the move',
      reported: [
        [/Y7.*tilt left/, 'works'],
        [/Y8.*tilt right/, 'dead'],
      ],
      hidden: ['W15', 'open'],
      action: 'Repair',
    });
  });

  test('a wrong first repair: what was to prove it counts, and the right part is found', async ({ page }) => {
    const story: Story = {
      machine: 'G-4 Groomer OR-204: Blade tilt',
      circuit: 'groomer-blade-tilt',
      title: 'Blade will not tilt right, pin looked green',
      reported: [
        [/Y7.*tilt left/, 'works'],
        [/Y8.*tilt right/, 'dead'],
      ],
      hidden: ['W15', 'open'],
      action: 'Repair',
    };
    const broken = new MachineUnderTest(story.circuit, ...story.hidden);
    const number = await openJob(page, story);
    await step(page, 'Complaint');
    await complain(page, story);
    await makeSafe(page, 'Tove');
    // By the look of it, before anything was measured.
    await step(page, 'Decide');
    await page.getByRole('combobox', { name: 'Part' }).selectOption('X8.1');
    await page.getByLabel('repair, minutes').fill('20');
    await page.getByLabel('In a sentence').fill('The pin is green.');
    await expect(page.getByRole('button', { name: 'Decide', exact: true })).toBeDisabled();
    await page.getByLabel(/^The readings do not name X8.1 yet/).fill('It is wet in there');
    await page.getByRole('button', { name: 'Decide', exact: true }).click();
    await expect(page.getByTestId('decided')).toContainText('Against the count: It is wet in there');
    await page.getByRole('button', { name: 'Approve' }).click();
    await fix(page, { ...story, hidden: ['X8.1', 'highResistance'] });
    await step(page, 'Prove');
    await locksOff(page);
    const works = page.locator('[data-proof=works][data-state=open]').filter({ hasText: 'tilt right' });
    await works.first().getByRole('button', { name: 'Does not' }).click();
    await expect(page.getByTestId('not-mended')).toBeVisible();
    await step(page, 'Hand over');
    await expect(page.getByTestId('stops')).toContainText('tilt right');
    // What was made safe for that work is open again: nothing is tested dead before it is locked anew.
    const safeTab = page
      .getByRole('navigation', { name: 'Steps of the job' })
      .getByRole('link', { name: 'Make safe' });
    await expect(safeTab.getByLabel('done')).toHaveCount(0);
    await makeSafe(page, 'Tove');
    await testUntilNamed(page, broken);
    await step(page, 'Decide');
    await expect(page.getByTestId('fix')).toContainText('X8.1');
    await decide(page, story);
    await fix(page, story);
    await prove(page, new MachineUnderTest(story.circuit));
    await handOver(page, number, story);
    await page.goto(`/jobs/${number}/report`);
    await expect(page.getByTestId('report')).toContainText('X8.1');
  });

  test('a part-shorted coil that takes its fuse', async ({ page }) => {
    await wholeJob(page, {
      machine: 'G-2 Groomer OR-202: Blade tilt',
      circuit: 'groomer-blade-tilt',
      title: 'Blade fuse goes to the left',
      reported: [
        [/F7.*tilt left/, 'blows'],
        [/Y8.*tilt right/, 'works'],
      ],
      hidden: ['Y7', 'shortedTurns', 0.7],
      action: 'Replace',
      bench: '31.2',
    });
  });

  test('a weak insulation that only the insulation tester sees', async ({ page }) => {
    const asked = await wholeJob(page, {
      machine: 'P-5 Pump house',
      circuit: 'pump-fill-valve',
      title: 'Fill fuse goes when water is called',
      reported: [[/F4/, 'blows']],
      hidden: ['W41', 'weakInsulation', 3],
      action: 'Replace',
      bench: '0.2',
    });
    expect(asked.map(({ kind }) => kind)).toContain('insulation');
  });

  test('a clamp whose spool stands mid-way: air and electricity are there', async ({ page }) => {
    const asked = await wholeJob(page, {
      machine: 'B-3 Plank press',
      circuit: 'press-clamp',
      title: 'Clamp comes down now and then',
      reported: [[/C1.*bit 1/, 'dead']],
      hidden: ['Q1', 'stuckMidway'],
      action: 'Repair',
    });
    expect(asked.map(({ kind }) => kind)).toContain('pressure');
  });

  test('a cylinder that lets air past its piston', async ({ page }) => {
    const asked = await wholeJob(page, {
      machine: 'B-3 Plank press',
      circuit: 'press-clamp',
      title: 'Clamp holds badly',
      reported: [[/C1.*bit 1/, 'weak']],
      hidden: ['C1', 'sealLeak', 2],
      action: 'Repair',
    });
    // By what stands in its chambers or comes out of its exhausts: never by the weak motion alone.
    const { nodes } = demoValve('press-clamp');
    const places = [...Object.values(nodes), 'C:A', 'C:B'];
    expect(asked.some((one) => 'at' in one && places.includes(one.at))).toBe(true);
  });

  test('an oil spool that sticks: by gauges that are fitted, and nothing of it opened', async ({ page }) => {
    const asked = await wholeJob(page, {
      machine: 'G-7 Groomer OR-207: Tiller lift',
      circuit: 'groomer-tiller-lift',
      title: 'Tiller does not move',
      reported: [
        [/C1.*lever lift/, 'dead'],
        [/C1.*lever lower/, 'dead'],
      ],
      hidden: ['Q1', 'stuckAtRest'],
      action: 'Repair',
    });
    expect(asked.some(({ kind }) => kind === 'pressure')).toBe(true);
    expect(asked.every(({ kind, setup }) => kind !== 'flow' && !setup.open)).toBe(true);
  });

  test('a relief valve that opens early: it is heard, and the gauge agrees', async ({ page }) => {
    await wholeJob(page, {
      machine: 'G-7 Groomer OR-207: Tiller lift',
      circuit: 'groomer-tiller-lift',
      title: 'Tiller lifts at a walk',
      reported: [
        [/C1.*lever lift/, 'weak'],
        [/C1.*lever lower/, 'weak'],
      ],
      hidden: ['RV1', 'lowPressure', 0.25],
      action: 'Repair',
      bad: /RV1/,
    });
  });

  test('a vacuum flap: the valve clicks and does not shift', async ({ page }) => {
    await wholeJob(page, {
      machine: 'H-5 Heater truck',
      circuit: 'heater-flap',
      title: 'Flap does not move',
      reported: [[/U1.*command on/, 'dead']],
      hidden: ['Q1', 'stuckAtRest'],
      action: 'Repair',
    });
  });

  test('a refrigerant valve that does not open: its change is one for who is licensed, care by care', async ({
    page,
  }) => {
    const asked = await wholeJob(page, {
      machine: 'K-1 Provisions cellar',
      circuit: 'cellar-liquid-valve',
      title: 'Cellar warm since Sunday',
      reported: [[/Y1.*call on/, 'works']],
      hidden: ['Q1', 'stuckAtRest'],
      action: 'Replace',
      person: 'Henrike',
      dated: '2026-11-28',
    });
    // Gauges that are fitted are read; nothing of it is opened.
    expect(asked.some(({ kind }) => kind === 'pressure')).toBe(true);
    expect(asked.every(({ kind, setup }) => kind !== 'flow' && !setup.open && !setup.plugged)).toBe(true);
  });

  test('an air switch that does not close', async ({ page }) => {
    await wholeJob(page, {
      machine: 'D-2 Boot dryer',
      circuit: 'dryer-air-switch',
      title: 'Dryer blows cold',
      reported: [[/Y1/, 'dead']],
      hidden: ['B1', 'stuckOpen'],
      action: 'Repair',
    });
  });
});
