import type { CircuitModel } from '../../circuit/model';
import type { Reading } from '../../circuit/schema';
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

/** What a sheet says of one reading of insulation, by its class and by what the place read before. */
export function judgedInsulation(
  model: CircuitModel,
  { from, to, testVolts }: InsulationTest,
  cell: SheetCell,
  marks: ShopMarks,
  past: readonly Baseline[],
): { verdict: InsulationVerdict | null; answer: InsulationAnswer; held: HeldRow[] } {
  const value = figure(cell);
  const reading = { from, to, seconds: undefined, temperatureC: undefined };
  const frame = nameOf(model, model.compiled.frame);
  const sheet: InsulationSheet = {
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
    readings: value === undefined ? [] : [{ ...reading, ohms: value }],
    before: past.slice(0, 1).flatMap(({ value }) => (isOhms(value) ? [{ ...reading, ohms: value }] : [])),
  };
  const answer = judgeInsulation(sheet, marks);
  return { verdict: answer.cells[0]?.verdict ?? null, answer, held: heldAgainst(sheet, answer, marks) };
}

const isOhms = (value: Reading['value']): value is number | 'OL' =>
  typeof value === 'number' || value === 'OL';
