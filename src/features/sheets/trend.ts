import type { CircuitModel } from '@/core/circuit/model';
import type { Reading } from '@/core/circuit/schema';
import { ownVolts } from '@/core/diagnosis/testerVolts';
import { OVER_RANGE } from '@/core/sheets/insulation/insulation';
import type { SheetCell } from '@/core/sheets/onCircuit/jobSheet';
import { insulationMark } from '@/core/tables/insulationPass';
import type { ShopMarks } from '@/core/tables/marks';
import { quantity } from '@/words/en/readings';
import type { SheetChart } from '../bench/benchCharts';

const MONTH_MS = 30.44 * 86_400_000;
/** Fewer points are no trend. */
const LEAST_POINTS = 2;

/** Insulation of one place over the jobs that proved it, with today's where it was read; null where there is no trend to draw. */
export function trendOf(
  { test, past, value }: SheetCell,
  marks: ShopMarks,
  { model }: { model: CircuitModel },
  now: number,
): SheetChart | null {
  if (test.kind !== 'insulation') return null;
  const points = [
    ...past.toReversed().map((one) => ({ x: (Date.parse(one.at) - now) / MONTH_MS, value: one.value })),
    ...(value === null ? [] : [{ x: 0, value }]),
  ].flatMap(({ x, value: read }) => {
    const ohms = ohmsOf(read);
    return ohms === null ? [] : [[x, ohms] as const];
  });
  if (points.length < LEAST_POINTS) return null;
  const { ohms } = insulationMark(ownVolts(model, [test.from, test.to]), marks);
  return {
    label: 'Insulation over the jobs that proved it',
    lines: [{ name: '', points }],
    logarithmic: true,
    ...(Number.isFinite(ohms) ? { limit: { value: ohms, words: `${quantity('ohms', ohms)} passes` } } : {}),
    xTitle: 'months; 0 is today',
    yWords: (one) => quantity('ohms', one),
  };
}

function ohmsOf(value: Reading['value']): number | null {
  return value === 'OL' ? OVER_RANGE : typeof value === 'number' ? Math.max(value, 1) : null;
}
