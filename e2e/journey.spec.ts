import { expect, test } from '@playwright/test';
import { answerByKeyboard, askedTest, MachineUnderTest } from './bench';

const STORY = 'Blade tilts left but not right';

test('a blade that tilts one way only: from complaint to named part, keyboard only', async ({ page }) => {
  const machine = new MachineUnderTest('groomer-blade-tilt', 'X8.1', 'open');
  await page.goto('/');
  await page.getByRole('link', { name: STORY }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText(STORY);
  await expect(page.getByTestId('path')).toBeVisible();
  const verdict = page.getByTestId('verdict');
  const typed: string[] = [];
  for (let step = 0; step < 8; step++) {
    const before = JSON.stringify(await askedTest(page));
    typed.push(await answerByKeyboard(page, machine));
    // The next question, or the verdict, comes once the reading is weighed.
    await expect
      .poll(
        async () =>
          (await verdict.count()) > 0 ||
          (await page.getByTestId('next-test').getAttribute('data-test')) !== before,
      )
      .toBe(true);
    await expect(page.locator('main[data-working=false]')).toBeVisible();
    if ((await verdict.count()) > 0) break;
  }
  console.log(typed.join(' | '));
  await expect(verdict).toHaveAttribute('data-state', 'name');
  await expect(verdict).toContainText('X8.1');
  await expect(verdict).toContainText('Proved bad');
});
