import { expect, test, type Page } from '@playwright/test';
import { onOwnDevice } from './signIn';

const jobsOf = (page: Page, person: string) =>
  page.locator(`[data-testid=day-row][data-person="${person}"] [data-testid=day-job]`);

test('the day is laid out, moved by keyboard and kept, and another device sees it', async ({ browser }) => {
  const lead = await onOwnDevice(browser, 'Henrike');
  await lead.goto('/day');
  await expect(lead.getByTestId('day-says')).toContainText(/planned|in time/);
  // What a licence is wanted for goes to nobody else, whatever is asked.
  const first = jobsOf(lead, 'Tove').first();
  await expect(first).toBeVisible();
  const number = /Job (\d+)/.exec((await first.textContent())!)![1]!;
  await first.getByRole('combobox').selectOption('');
  await expect(jobsOf(lead, '').filter({ hasText: `Job ${number}` })).toHaveCount(1);
  // Down by one in its own row, by keyboard.
  const row = jobsOf(lead, 'Rasmus');
  const order = async () => (await row.allTextContents()).map((words) => /Job (\d+)/.exec(words)![1]!);
  const before = await order();
  expect(before.length).toBeGreaterThan(1);
  const grip = lead.getByRole('button', { name: `Move job ${before[0]}`, exact: true });
  await grip.focus();
  await lead.keyboard.press('Space');
  await expect(grip).toHaveAttribute('aria-pressed', 'true');
  await lead.keyboard.press('ArrowDown');
  await expect(lead.locator('[id^=DndLiveRegion]')).toContainText(`over droppable area ${before[1]}`);
  await lead.keyboard.press('Space');
  await expect.poll(order).toEqual([before[1], before[0], ...before.slice(2)]);
  await lead.getByRole('button', { name: 'Keep this plan' }).click();
  await expect(lead.getByText(/Kept by Henrike|Kept: everybody sees it/)).toBeVisible();
  const hand = await onOwnDevice(browser, 'Jorin');
  await hand.goto('/day');
  await expect(hand.getByText('Kept by Henrike.')).toBeVisible();
  expect(
    (await jobsOf(hand, 'Rasmus').allTextContents()).map((words) => /Job (\d+)/.exec(words)![1]!),
  ).toEqual([before[1], before[0], ...before.slice(2)]);
  await expect(hand.getByRole('button', { name: 'Keep this plan' })).toHaveCount(0);
  await lead.context().close();
  await hand.context().close();
});
