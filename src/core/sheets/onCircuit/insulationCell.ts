import type { CircuitModel } from '../../circuit/model';
import type { Reading } from '../../circuit/schema';
import { testKey } from '../../diagnosis/observations';
import { ownVolts } from '../../diagnosis/testerVolts';
import type { Baseline } from '../../diagnosis/yardsticks';
import type { ShopMarks } from '../../tables/marks';
import { heldAgainst, type HeldRow } from '../heldAgainst';
import {
  judgeInsulation,
  type InsulationAnswer,
  type InsulationSheet,
  type InsulationVerdict,
} from '../insulation/insulation';
import { figure, HEAD, nameOf, type SheetCell } from './jobSheet';
import type { InsulationTest } from './leakSearch';

/** One pair as the sheet for a bench has it: what was read of it here, and the last proved. */
export function insulationDocument(
  model: CircuitModel,
  { from, to, testVolts }: InsulationTest,
  cell: SheetCell,
  readings: readonly Reading[],
  past: readonly Baseline[],
): InsulationSheet {
  const value = figure(cell);
  const reading = { from, to, seconds: undefined, temperatureC: undefined };
  const run = runOf(cell, readings);
  const frame = nameOf(model, model.compiled.frame);
  return {
    ...HEAD,
    sheet: 'insulation',
    conductors: [from, to].filter((point) => point !== frame),
    frame,
    circuitVolts: Math.max(ownVolts(model, [from, to]), 1),
    testVolts,
    electronic: undefined,
    policy: undefined,
    passOhms: undefined,
    material: undefined,
    readings:
      run.length > 0
        ? run.map(({ value: ohms, seconds }) => ({ ...reading, ohms, seconds }))
        : value === undefined
          ? []
          : [{ ...reading, ohms: value }],
    before: past.slice(0, 1).flatMap(({ value }) => (isOhms(value) ? [{ ...reading, ohms: value }] : [])),
  };
}

/** What a sheet says of one reading of insulation, by its class and by what the place read before. */
export function judgedInsulation(
  model: CircuitModel,
  test: InsulationTest,
  cell: SheetCell,
  marks: ShopMarks,
  readings: readonly Reading[],
  past: readonly Baseline[],
): { verdict: InsulationVerdict | null; answer: InsulationAnswer; held: HeldRow[] } {
  const sheet = insulationDocument(model, test, cell, readings, past);
  const answer = judgeInsulation(sheet, marks);
  return { verdict: answer.cells[0]?.verdict ?? null, answer, held: heldAgainst(sheet, answer, marks) };
}

const isOhms = (value: Reading['value']): value is number | 'OL' =>
  typeof value === 'number' || value === 'OL';

/** What a cell's timed run showed, in the order of its seconds; none where it was not timed. */
export function runOf(
  cell: SheetCell,
  readings: readonly Reading[],
): { value: number | 'OL'; seconds: number }[] {
  const key = testKey(cell.test);
  return readings
    .flatMap((one) =>
      one.kind === 'insulation' && one.seconds !== undefined && testKey(one) === key
        ? [{ value: one.value, seconds: one.seconds }]
        : [],
    )
    .sort((a, b) => a.seconds - b.seconds);
}
