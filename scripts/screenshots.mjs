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

async function settled(page) {
  await page.waitForLoadState('networkidle').catch(() => undefined);
  await page.waitForTimeout(1200);
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
    const context = await browser.newContext({ viewport: { width, height } });
    await context.addCookies([{ name: 'spiraxis-theme', value: theme, url }]);
    const page = await context.newPage();
    await page.goto(url + path);
    await settled(page);
    return page;
  };
  const shoot = (page, name) => page.screenshot({ path: join(folder, `${name}.png`) });
  try {
    await shoot(await open('/'), 'shed');
    await shoot(await open('/new'), 'new-job');
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
    await shoot(await open('/jobs/417', { theme: 'sun' }), 'test-sun');
    await shoot(await open('/jobs/417', { width: 390, height: 844 }), 'test-phone');
    await pin('OL');
    await shoot(page, 'test-named');
    await shoot(await open('/jobs/416', { theme: 'dark' }), 'test-dark');
    await shoot(await open('/jobs/403'), 'test-air');
  } finally {
    await browser.close();
  }
});
