import { test, expect, type Page } from '@playwright/test';
import { writeFileSync, appendFileSync } from 'node:fs';
import { answerByKeyboard, askedTest, MachineUnderTest, movedOn } from '/work/main/e2e/bench';
import { closeAgain, makeSafe, step } from '/work/main/e2e/steps';
const OUT = '/tmp/play.txt';
const JOBS = [
  ['W12 clamp seal', 'B-3 Plank press', 'press-clamp', [[/C1.*bit 1/, 'weak']], ['C1', 'sealLeak', 2], 'Tove'],
  ['W6 clamp program', 'B-3 Plank press', 'press-clamp', [[/C1.*bit 1/, 'dead']], ['A1', 'noCommand'], 'Tove'],
  ['W4 flap vent', 'H-5 Heater truck', 'heater-flap', [[/U1.*command on/, 'dead']], ['H1', 'leaking', 0.3], 'Tove'],
  ['W13 air switch', 'D-2 Boot dryer', 'dryer-air-switch', [[/Y1/, 'dead']], ['B1', 'stuckOpen'], 'Tove'],
  ['W5 cellar', 'K-1 Provisions', 'cellar-liquid-valve', [[/Y1.*call on/, 'works']], ['Q1', 'stuckAtRest'], 'Henrike'],
] as any[];
writeFileSync(OUT, '');
const say = (t: string) => appendFileSync(OUT, t + '\n');
async function text(page: Page, name: string) {
  const t = await page.locator('main').innerText();
  say(`---- ${name}\n` + t.split('\n').map((l) => l.trim()).filter(Boolean).join(' | '));
}
for (const [title, machine, circuit, reported, hidden, person] of JOBS)
  test(title, async ({ page }) => {
    test.setTimeout(240_000);
    say(`\n================ ${title} ${hidden.join(' ')}`);
    await page.goto('/new');
    const choice = page.getByLabel('Machine and function');
    const option = await choice.locator('option', { hasText: machine }).first().textContent();
    await choice.selectOption({ label: option! });
    await page.getByLabel('What fails').fill(title);
    await page.getByLabel('Who takes it').fill(person);
    await page.getByRole('button', { name: 'Open the job' }).click();
    await page.waitForURL(/jobs/);
    await step(page, 'Complaint');
    for (const [row, answer] of reported) await page.getByRole('group', { name: row }).getByRole('button', { name: answer, exact: true }).click();
    await page.waitForTimeout(700); await text(page, 'complaint');
    await makeSafe(page, person); await text(page, 'make safe');
    await step(page, 'As found'); await page.waitForTimeout(500); await text(page, 'as found');
    await step(page, 'Test');
    const m = new MachineUnderTest(circuit, ...hidden as [string, string, number]);
    const verdict = page.getByTestId('verdict');
    await expect(page.locator('main[data-working=false]')).toBeVisible();
    for (let k = 0; k < 14; k++) {
      if ((await verdict.count()) > 0) break;
      const now = await askedTest(page);
      await closeAgain(page);
      await text(page, `test ${k + 1}`);
      const a = await answerByKeyboard(page, m); say(`>>> ${a}`);
      if ((await movedOn(page, now)) === 'verdict') break;
    }
    await text(page, 'verdict');
    await step(page, 'Decide'); await page.waitForTimeout(500); await text(page, 'decide');
    const rep = page.getByRole('button', { name: 'Replace', exact: true });
    if (await rep.count()) await rep.click();
    await page.getByLabel('repair, minutes').fill('30'); await page.getByLabel('replace, minutes').fill('45'); await page.getByLabel('replace, parts cost').fill('60');
    for (const box of await page.getByRole('checkbox').all()) await box.check();
    await page.getByLabel('In a sentence').fill('Two readings agree.');
    await page.getByRole('button', { name: 'Decide', exact: true }).click();
    await page.waitForTimeout(500); await text(page, 'decided');
    await step(page, 'Fix'); await page.waitForTimeout(500); await text(page, 'fix');
    await step(page, 'Prove'); await page.waitForTimeout(500); await text(page, 'prove');
    await page.goto(page.url().replace(/\/jobs\/(\d+).*/, '/jobs/$1/report')); await page.waitForTimeout(1500); await text(page, 'report');
  });
