/**
 * Pictures of the main views for docs/screenshots, from a freshly started demo (`npm run demo -- --fresh`).
 * Plays the first readings of the demonstration job so that the pictures show a job under way.
 */
import { chromium } from '@playwright/test';
import { join } from 'node:path';
import { run } from './lib/say.mjs';
import { ROOT } from './lib/system.mjs';

const url = process.env.SPIRAXIS_URL ?? 'http://127.0.0.1:3000';
const folder = join(ROOT, 'docs', 'screenshots');

/** A half hour of a made-up bus: one code that stays, and four that come together on bumps. */
function busLog(seconds) {
  const lines = [];
  for (let second = 0; second < seconds; second++) {
    const say = (part, frame) => lines.push(`(${(1700000000 + second + part).toFixed(6)}) can0 ${frame}`);
    if (second % 240 < 15 || second % 410 < 8) {
      say(0, '1CECFF21#200E0002FFCAFE00');
      say(0.02, '1CECFF27#200A0002FFCAFE00');
      say(0.05, '1CEBFF21#010414640001026E');
      say(0.07, '1CEBFF27#0100FF7F020903CF');
      say(0.1, '1CEBFF21#020000016CF0E507');
      say(0.12, '1CEBFF27#0204027EFFFFFFFF');
    } else say(0, '18FECA21#041464000102FFFF');
    if (second % 300 === 7) lines.push('(17000000');
    say(0.5, '0CF00400#FFFFFFC019FFFFFF');
  }
  return lines.join('\n');
}

async function settled(page) {
  // The pages keep a line to the server open: there is no idle network to wait for.
  await page.waitForTimeout(1800);
}

await run(async () => {
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: [
      '--no-sandbox',
      '--disable-gpu',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
    ],
  });
  const open = async (path, { theme = 'light', width = 1280, height = 800 } = {}) => {
    const context = await browser.newContext({ viewport: { width, height }, bypassCSP: true });
    await context.addCookies([{ name: 'spiraxis-theme', value: theme, url }]);
    const page = await context.newPage();
    await page.goto(url + path);
    await settled(page);
    // A picture of the calculation at work shows nothing: wait for its answer.
    await page.waitForFunction("!document.querySelector('[data-working=true]')", undefined, {
      timeout: 30_000,
    });
    await page.waitForTimeout(300);
    return page;
  };
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
    await shoot(await open('/jobs/416', { theme: 'dark' }), 'test-dark');
    await shoot(await open('/jobs/403?lane=C1'), 'test-air');

    const complaint = await open('/jobs/418?step=complaint');
    await complaint
      .getByLabel('Codes, in any notation')
      .fill('The display said 14-06 again.\nAlso SPN 520330 FMI 31, since this morning.');
    await settled(complaint);
    await shoot(complaint, 'complaint');
    const locate = await open('/jobs/418?step=locate');
    await locate.getByRole('button', { name: 'Y14', exact: true }).click();
    await locate.getByLabel('Part, word or grid square').fill('bulkhead');
    await settled(locate);
    await shoot(locate, 'locate');
    await shoot(await open('/jobs/418?step=make-safe'), 'make-safe');
    await shoot(await open('/jobs/411?step=as-found'), 'as-found');
    await shoot(await open('/jobs/401?step=decide'), 'decide');
    await shoot(await open('/jobs/411?step=fix'), 'fix');
    await shoot(await open('/jobs/411?step=prove'), 'prove');
    await shoot(await open('/jobs/398?step=hand-over'), 'hand-over');
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
    const log = await open('/codes', { height: 900 });
    await log.getByLabel('Log file').setInputFiles({
      name: 'night-shift.log',
      mimeType: 'text/plain',
      buffer: Buffer.from(busLog(1800)),
    });
    await settled(log);
    await shoot(log, 'log');
  } finally {
    await browser.close();
  }
});
