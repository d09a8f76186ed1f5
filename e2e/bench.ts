import { readFileSync } from 'node:fs';
import { expect, type Page } from '@playwright/test';
import { parseCircuit } from '../src/core/circuit/parse';
import type { Test } from '../src/core/circuit/schema';
import { MachineUnderTest as Bench } from '../src/core/testing/machineUnderTest';
import { valueWords } from '../src/words/en/readings';
import { parseReading } from '../src/core/units/parseReading';

/** A machine of the demo with a hidden fault; without a part, a sound one. */
export class MachineUnderTest extends Bench {
  constructor(circuit: string, part?: string, fault?: string, ohms?: number) {
    const text = readFileSync(`demo/circuits/${circuit}.circuit.json`, 'utf8');
    super(parseCircuit(JSON.parse(text)), part, fault, ohms);
  }

  /** As the meter shows it; what is seen, in the words of its key. */
  override answer(test: Test): string {
    const seen = this.value(test);
    return typeof seen === 'string' && seen !== 'OL'
      ? valueWords(test.kind, seen, 'bar')
      : super.answer(test);
  }
}

/** The test the screen asks for. */
export async function askedTest(page: Page): Promise<Test> {
  const tag = page.getByTestId('next-test');
  await tag.waitFor();
  return JSON.parse((await tag.getAttribute('data-test'))!) as Test;
}

/** Ticks the hold where there is one and types the answer; the keyboard only. Returns what was typed. */
export async function answerByKeyboard(page: Page, machine: MachineUnderTest): Promise<string> {
  const test = await askedTest(page);
  const typed = machine.answer(test);
  if ((await page.locator('[data-hold]').count()) > 0) await page.keyboard.press('h');
  const choices = await page
    .locator('[data-choice]')
    .evaluateAll((keys) => keys.map((key) => key.getAttribute('data-choice')));
  if (choices.includes(typed)) await page.keyboard.press(String(choices.indexOf(typed) + 1));
  else if (parseReading(typed)) {
    await page.keyboard.type(typed === 'OL' ? 'o' : typed);
    await page.keyboard.press('Enter');
    // A value between the bands is asked for once more.
    const typedBox = page.getByTestId('typed');
    if (
      (await typedBox.count()) > 0 &&
      (await typedBox.textContent({ timeout: 1000 }).catch(() => '')) !== ''
    )
      await page.keyboard.press('Enter');
  }
  return typed;
}

/**
 * Waits until the screen has gone on from a test: to another one, or to the verdict. Read in one look without waiting for
 * the tag, which is gone once the verdict stands.
 */
export async function movedOn(page: Page, from: Test): Promise<'verdict' | 'test'> {
  const before = JSON.stringify(from);
  const look = () =>
    page.evaluate((text) => {
      if (document.querySelector('main')?.getAttribute('data-working') !== 'false') return 'working';
      if (document.querySelector('[data-testid=verdict]')) return 'verdict';
      const tag = document.querySelector('[data-testid=next-test]');
      return tag && tag.getAttribute('data-test') !== text ? 'test' : 'same';
    }, before);
  await expect.poll(look).toMatch(/^(verdict|test)$/);
  return (await look()) === 'verdict' ? 'verdict' : 'test';
}
