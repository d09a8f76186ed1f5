import { readFileSync } from 'node:fs';
import { expect, type Page } from '@playwright/test';
import { CircuitModel } from '../src/core/circuit/model';
import { parseCircuit } from '../src/core/circuit/parse';
import type { Test } from '../src/core/circuit/schema';
import { faultByName, listFaults } from '../src/core/diagnosis/faults';
import { bindTest, predict, predictedValue } from '../src/core/diagnosis/predict';
import { parseReading } from '../src/core/units/parseReading';

/** Gauges are kept in kPa and read in bar. */
const KPA_IN_BAR = 100;

/** A machine with a hidden fault: answers any test as the meter or the eye would. */
export class MachineUnderTest {
  private readonly model: CircuitModel;
  private readonly edits: Parameters<typeof predict>[1];

  /** Without a part: a sound machine. */
  constructor(circuit: string, part?: string, fault = '', ohms?: number) {
    const text = readFileSync(`demo/circuits/${circuit}.circuit.json`, 'utf8');
    this.model = new CircuitModel(parseCircuit(JSON.parse(text)));
    if (part === undefined) {
      this.edits = [];
      return;
    }
    const found = faultByName(listFaults(this.model), part, fault, ohms);
    this.edits = found.fault.variants[0]!.edits(found.severity);
  }

  /** What the display shows for a test, typed the way a technician would. */
  answer(test: Test): string {
    const shown = predictedValue(test.kind, predict(bindTest(this.model, test), this.edits));
    const value = typeof shown === 'number' && test.kind === 'pressure' ? shown / KPA_IN_BAR : shown;
    if (typeof value === 'number')
      return String(Number(Math.abs(value) < 0.01 ? value.toFixed(3) : value.toPrecision(3)));
    if (typeof value === 'boolean') return value ? 'clicks' : 'no click';
    if (Array.isArray(value)) return value.length === 0 ? 'no code' : `code ${value.join(', ')}`;
    return value;
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
  if (parseReading(typed)) {
    await page.keyboard.type(typed === 'OL' ? 'o' : typed);
    await page.keyboard.press('Enter');
    // A value between the bands is asked for once more.
    const typedBox = page.getByTestId('typed');
    if (
      (await typedBox.count()) > 0 &&
      (await typedBox.textContent({ timeout: 1000 }).catch(() => '')) !== ''
    )
      await page.keyboard.press('Enter');
  } else {
    const choices = await page
      .locator('[data-choice]')
      .evaluateAll((keys) => keys.map((key) => key.getAttribute('data-choice')));
    await page.keyboard.press(String(choices.indexOf(typed) + 1));
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
