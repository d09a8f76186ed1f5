import { expect, type Page } from '@playwright/test';
import type { Test } from '@/core/circuit/schema';
import type { MachineUnderTest } from './bench';
import { step } from './steps';
import { DEMO_PIN } from '../demo/people';

/** Takes off what locks are on, each by its owner. */
export async function locksOff(page: Page) {
  const off = page.getByRole('button', { name: 'Lock is off' });
  for (let left = await off.count(); left > 0; left--) {
    await off.first().click();
    await expect(off).toHaveCount(left - 1);
  }
}

/** Shows everything that is to be shown after the work, dead first, then running, as the sound machine reads. */
export async function prove(page: Page, sound: MachineUnderTest) {
  await step(page, 'Prove');
  // What leaked, and what is followed on the dead circuit, is read again while the locks are on.
  const dead = page
    .locator('[data-proof=insulation][data-state=open]')
    .or(page.locator('[data-proof=followed][data-state=open]').filter({ hasText: /Insulation|Ohms/ }));
  for (let left = await dead.count(); left > 0; left--) {
    const row = dead.first();
    const value = sound.answer(JSON.parse((await row.getAttribute('data-test'))!) as Test);
    await row.getByRole('textbox').last().fill(value);
    await row.getByRole('button', { name: 'Pin' }).click();
    await expect(dead).toHaveCount(left - 1);
  }
  await locksOff(page);
  // What was lifted or bridged for a test goes back first, and somebody else sees that it does.
  const out = page.getByTestId('ledger-item').getByRole('button', { name: /^It is (back on|out)$/ });
  for (let left = await out.count(); left > 0; left--) {
    await out.first().click();
    await expect(out).toHaveCount(left - 1);
  }
  const seen = page.getByTestId('ledger-item').getByLabel(/^Seen (out|back on) as well by/);
  for (let left = await seen.count(); left > 0; left--) {
    await seen.first().selectOption('Ilse');
    await page.getByLabel('Their PIN').first().fill(DEMO_PIN);
    await page.getByRole('button', { name: 'Both say so' }).first().click();
    await expect(seen).toHaveCount(left - 1);
  }
  const open = page.locator('[data-proof][data-state=open]');
  for (let left = await open.count(); left > 0; left--) {
    const row = open.first();
    const kind = await row.getAttribute('data-proof');
    if (kind === 'works' || kind === 'asComplained') await row.getByRole('button', { name: 'Works' }).click();
    else if (kind === 'care') await row.getByRole('button', { name: 'Done' }).click();
    else if (kind === 'tight') await row.getByRole('button', { name: 'Tight' }).click();
    else if (kind === 'fuseHolds') await row.getByRole('button', { name: 'Held' }).click();
    else if (kind === 'interlock' || kind === 'withoutPressure')
      await row.getByRole('button', { name: /^(Stops|Lets go|Goes out|Goes off|Dead)$/ }).click();
    else {
      const value = sound.answer(JSON.parse((await row.getAttribute('data-test'))!) as Test);
      await row.getByRole('textbox').last().fill(value);
      await row.getByRole('button', { name: 'Pin' }).click();
    }
    await expect(open).toHaveCount(left - 1);
  }
  await expect(page.locator('[data-proof][data-state=wrong]')).toHaveCount(0);
}
