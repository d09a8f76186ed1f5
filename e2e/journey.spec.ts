import { expect, test, type Page } from '@playwright/test';
import { as } from './signIn';
import { answerByKeyboard, askedTest, MachineUnderTest, movedOn } from './bench';

/** Opens a job from the shed and answers what the screen asks, by keyboard alone, until it gives a verdict. */
async function play(page: Page, story: string, machine: MachineUnderTest): Promise<string[]> {
  // Found as a person would: the shed shows a page of jobs at a time.
  await page.goto(`/?q=${encodeURIComponent(story)}`);
  await page.getByRole('link', { name: story }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText(story);
  await expect(page.getByTestId('path')).toBeVisible();
  const typed: string[] = [];
  for (let step = 0; step < 9; step++) {
    const now = await askedTest(page);
    typed.push(await answerByKeyboard(page, machine));
    // The next question, or the verdict, comes once the reading is weighed.
    if ((await movedOn(page, now)) === 'verdict') break;
  }
  return typed;
}

test('a blade that tilts one way only: from complaint to named part, keyboard only', async ({ page }) => {
  const typed = await play(
    page,
    'Blade tilts left but not right',
    new MachineUnderTest('groomer-blade-tilt', 'X8.1', 'open'),
  );
  console.log(typed.join(' | '));
  const verdict = page.getByTestId('verdict');
  await expect(verdict).toHaveAttribute('data-state', 'name');
  await expect(verdict).toContainText('X8.1');
  await expect(verdict).toContainText('Proved bad');
});

test('a gate that hisses and stays: gauges in bar, and the regulator is named, not the valve that clicks', async ({
  page,
}) => {
  const story = 'Lance gate dead both ways, valve clicks';
  // His locks are on, and nobody else takes them off.
  await as(page, 'Rasmus');
  const typed = await play(page, story, new MachineUnderTest('compressor-gate', 'Z2', 'lowPressure', 0.35));
  console.log(typed.join(' | '));
  const verdict = page.getByTestId('verdict');
  await expect(verdict).toHaveAttribute('data-state', 'name');
  await expect(verdict).toContainText('Z2');
  await expect(verdict).toContainText('bar');
});
