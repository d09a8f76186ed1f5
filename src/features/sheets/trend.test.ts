import { NO_PAST, pastOf } from '@/core/sheets/onCircuit/jobSheet';
import { demoCircuit } from '@/testing/demoCircuits';
import { CircuitModel } from '@/core/circuit/model';
import { testKey } from '@/core/diagnosis/observations';
import type { Reading } from '@/core/circuit/schema';
import { jobSheet } from '@/core/sheets/onCircuit/build';
import { shopMarks } from '@/core/tables/marks';
import { pastWords } from '@/words/en/sheets';
import { trendOf } from './trend';

const MARKS = shopMarks({});
const NOW = Date.parse('2026-07-01T00:00:00Z');
const model = new CircuitModel(demoCircuit('pump-fill-valve'));
const [row] = jobSheet(model, 'insulation', [], MARKS)!.rows;
const { test } = row!.cells[0]!;
const proved = (value: Reading['value'], at: string, jobNumber: number) => ({
  key: testKey(test),
  value,
  at: `${at}T09:00:00Z`,
  jobNumber,
});
const past = [proved(90e6, '2026-01-01', 398), proved('OL', '2025-01-01', 371)];
const sheetWith = (value?: number) =>
  jobSheet(model, 'insulation', value === undefined ? [] : [{ ...test, value } as Reading], MARKS, {
    ...NO_PAST,
    baselines: past,
  })!;

describe('what a place read in earlier jobs', () => {
  it('stands with its cell, the latest first, and makes one that is much lower now worth watching', () => {
    const [first, second] = sheetWith().rows;
    expect(first!.cells[0]!.past.map(({ jobNumber }) => jobNumber)).toEqual([398, 371]);
    // Read for two lines of one job's proofs it is one value of that job.
    expect(pastOf(test, [past[0]!, ...past]).map(({ jobNumber }) => jobNumber)).toEqual([398, 371]);
    expect(second!.cells[0]!.past).toEqual([]);
    expect(sheetWith(80e6).rows[0]!.verdict).toBe('good');
    expect(sheetWith(20e6).rows[0]!.verdict).toBe('watch');
    expect(pastWords('insulation', past, 'UTC', 'bar')).toBe(
      'Proved here: 90.0 MΩ, 1 Jan 2026, job 398; OL, 1 Jan 2025, job 371.',
    );
  });

  it('is drawn over the months up to today, over range at what the tester ends at, with what passes', () => {
    const chart = trendOf(sheetWith(20e6).rows[0]!.cells[0]!, MARKS, { model }, NOW)!;
    const [line] = chart.lines;
    expect(line!.points.map(([, ohms]) => ohms)).toEqual([2e9, 90e6, 20e6]);
    expect(line!.points.map(([months]) => Math.round(months))).toEqual([-18, -6, 0]);
    expect(chart.limit!.value).toBe(1e6);
  });

  it('is no trend of one value alone, nor of anything but insulation', () => {
    const [cell] = sheetWith().rows[0]!.cells;
    expect(trendOf({ ...cell!, past: past.slice(0, 1) }, MARKS, { model }, NOW)).toBeNull();
    const coil = jobSheet(model, 'coil', [], MARKS, { ...NO_PAST, baselines: past })!.rows[0]!.cells.find(
      (one) => one !== null,
    )!;
    expect(trendOf({ ...coil, past }, MARKS, { model }, NOW)).toBeNull();
  });
});
