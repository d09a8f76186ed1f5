/**
 * Pictures of the main views for docs/screenshots, from a freshly started demo (`npm run demo -- --fresh`).
 * Plays the first readings of the demonstration job so that the pictures show a job under way.
 */
import { chromium } from '@playwright/test';
import { join } from 'node:path';
import sharp from 'sharp';
import { run } from './lib/say.mjs';
import { ROOT } from './lib/system.mjs';

const url = process.env.SPIRAXIS_URL ?? 'http://127.0.0.1:3000';
const folder = join(ROOT, 'docs', 'screenshots');

/** The demonstration's job for each sheet. */
const JOB_SHEETS = [
  [404, 'functions'],
  [413, 'coil'],
  [419, 'windings'],
  [410, 'contacts'],
  [402, 'terminals'],
  [396, 'diodes'],
  [407, 'interlocks'],
  [408, 'drop'],
  [405, 'insulation'],
  [405, 'conductors'],
  [415, 'outputs'],
  [415, 'survey'],
  [400, 'needs'],
  [400, 'cylinders'],
  [415, 'proofChain'],
  [422, 'actuation'],
  [412, 'timeline'],
];
/** Each of them in one picture, pixels. */
const CELL = { width: 960, height: 600 };

async function settled(page) {
  // The pages keep a line to the server open: there is no idle network to wait for.
  await page.waitForTimeout(1800);
}

await run(async () => {
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium-headless-shell',
    args: [
      '--no-sandbox',
      '--disable-gpu',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
    ],
  });
  const open = async (path, { theme = 'light', width = 1280, height = 800, who = 'Tove' } = {}) => {
    const context = await browser.newContext({ viewport: { width, height }, bypassCSP: true });
    await context.addCookies([{ name: 'spiraxis-theme', value: theme, url }]);
    const page = await context.newPage();
    await page.request.post(`${url}/api/session`, { data: { name: who, demo: true } });
    await page.goto(url + path);
    await settled(page);
    // A picture of the calculation at work shows nothing: wait for its answer.
    await page.waitForFunction("!document.querySelector('[data-working=true]')", undefined, {
      timeout: 30_000,
    });
    await page.waitForTimeout(300);
    return page;
  };
  const tiled = async (cells, name) =>
    sharp({
      create: {
        width: 2 * CELL.width,
        height: Math.ceil(cells.length / 2) * CELL.height,
        channels: 3,
        background: '#ecf1eb',
      },
    })
      .composite(
        await Promise.all(
          cells.map(async (picture, at) => ({
            input: await sharp(picture).resize(CELL.width, CELL.height).toBuffer(),
            left: (at % 2) * CELL.width,
            top: Math.floor(at / 2) * CELL.height,
          })),
        ),
      )
      .png({ palette: true, quality: 90 })
      .toFile(join(folder, `${name}.png`));
  const shoot = (page, name) => page.screenshot({ path: join(folder, `${name}.png`) });
  try {
    await shoot(await open('/'), 'shed');
    const page = await open('/jobs/417');
    const pin = async (value) => {
      await page.keyboard.type(value === 'OL' ? 'o' : value);
      await page.keyboard.press('Enter');
      await settled(page);
    };
    await pin('OL');
    await page.keyboard.type('0.02');
    await page.waitForTimeout(400);
    await shoot(page, 'test-day');
    await page.keyboard.press('Enter');
    await settled(page);
    await pin('31.4');
    await shoot(await open('/jobs/417', { width: 390, height: 844 }), 'test-phone');
    await pin('OL');
    await shoot(await open('/jobs/403?lane=C1', { who: 'Rasmus' }), 'test-air');

    const complaint = await open('/jobs/418?step=complaint');
    await complaint
      .getByLabel('Codes, in any notation')
      .fill('The display said 14-06 again.\nAlso SPN 520330 FMI 31, since this morning.');
    await settled(complaint);
    await shoot(complaint, 'complaint');
    await shoot(await open('/jobs/418?step=make-safe', { who: 'Ilse' }), 'make-safe');
    await shoot(await open('/jobs/411?step=as-found', { who: 'Rasmus' }), 'as-found');
    await shoot(await open('/jobs/401?step=decide'), 'decide');
    await shoot(await open('/jobs/411?step=fix', { who: 'Rasmus' }), 'fix');
    await shoot(await open('/jobs/411?step=prove', { who: 'Rasmus' }), 'prove');
    await shoot(await open('/jobs/398?step=hand-over', { who: 'Ilse' }), 'hand-over');
    await shoot(await open('/jobs/398/report', { height: 1100 }), 'report');
    await shoot(await open('/machines/G-1/bus'), 'bus');
    await shoot(await open('/machines/G-4'), 'machine');
    const desk = await open('/machines/G-4/draw');
    const chain = desk.getByLabel('Chain of parts');
    await chain.fill(
      'G1, F7, S1, wire, seat switch S20, lever=left switch S21, plug X41, left coil Y31 7.4, plug X41, @R; after S20, lever=right switch S22, plug X42, right coil Y32 7.4, plug X42, @R; @R, wire, ground',
    );
    await chain.press('Enter');
    await desk.getByRole('tab', { name: 'Try it' }).click();
    for (const [group, position] of [
      ['key', 'on'],
      ['seat', 'taken'],
      ['lever', 'left'],
    ])
      await desk
        .getByRole('group', { name: group })
        .getByRole('button', { name: position, exact: true })
        .click();
    await chain.fill('after Y31, lamp H9 12');
    await settled(desk);
    await shoot(desk, 'draw');
    const machine = await open('/machines/G-2', { height: 1000 });
    await machine.getByRole('link', { name: 'Sheet', exact: true }).nth(1).click();
    await settled(machine);
    await shoot(machine, 'sheet');
    const cells = [];
    for (const [job, sheet] of JOB_SHEETS) {
      const own = await open(`/jobs/${job}?sheet=${sheet}`);
      cells.push(await own.screenshot());
      await own.context().close();
    }
    await tiled(cells, 'sheets');
    const drift = await open('/drift');
    const remembered = [await drift.screenshot()];
    const place = await drift
      .getByRole('link', { name: /contactors in/ })
      .first()
      .getAttribute('href');
    for (const [path, theme] of [
      [place, 'light'],
      ['/record', 'light'],
      ['/parts', 'light'],
      ['/retests/round?days=14', 'dark'],
      ['/jobs/416', 'dark'],
      ['/sign-in', 'light'],
      ['/people', 'light'],
      ['/day', 'light'],
    ]) {
      const own = await open(path, { theme, who: 'Henrike' });
      remembered.push(await own.screenshot());
      await own.context().close();
    }
    await tiled(remembered, 'remembered');
    const trace = await open('/jobs/416?sheet=trace');
    for (const [label, file] of [
      ['Bring a trace (CSV or WAV)', 'tiller-float-sticky.csv'],
      ['One of when it was sound', 'tiller-float-sound.csv'],
    ])
      await trace.getByLabel(label).setInputFiles(join(ROOT, 'demo', 'traces', file));
    await trace.getByTestId('trace-standings').filter({ hasText: 'held up on its way' }).waitFor();
    await shoot(trace, 'trace');
  } finally {
    await browser.close();
  }
});
