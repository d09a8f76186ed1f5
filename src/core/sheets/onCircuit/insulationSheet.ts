import type { CircuitModel } from '../../circuit/model';
import type { Reading, Test } from '../../circuit/schema';
import { ownVolts } from '../../diagnosis/testerVolts';
import type { ShopMarks } from '../../tables/marks';
import { judgeInsulation, type InsulationSheet } from '../insulation/insulation';
import { cellOf, figure, firstOpen, HEAD, MOST_ROWS, nameOf, testsOf, type JobSheet } from './jobSheet';

/** Each conductor to the frame, as far as a tester harms nothing there. */
export function insulationSheetOf(
  model: CircuitModel,
  readings: readonly Reading[],
  marks: ShopMarks,
): JobSheet | null {
  const { compiled } = model;
  const frame = nameOf(model, compiled.frame);
  const quickest = new Map<string, { test: Extract<Test, { kind: 'insulation' }>; minutes: number }>();
  for (const { bound, minutes } of testsOf(model)) {
    const { test } = bound;
    if (test.kind !== 'insulation') continue;
    const far = test.from === frame ? test.to : test.to === frame ? test.from : null;
    if (far === null) continue;
    const known = quickest.get(far);
    if (!known || minutes < known.minutes) quickest.set(far, { test, minutes });
  }
  const points = [...quickest].slice(0, MOST_ROWS);
  if (points.length === 0) return null;
  const cells = points.map(([, { test }]) => cellOf(model, test, readings));
  const judged = points.map(([point, { test }], at) => {
    const value = figure(cells[at]);
    const sheet: InsulationSheet = {
      ...HEAD,
      sheet: 'insulation',
      conductors: [point],
      frame,
      circuitVolts: Math.max(ownVolts(model, [point]), 1),
      testVolts: test.testVolts,
      electronic: undefined,
      policy: undefined,
      passOhms: undefined,
      readings:
        value === undefined
          ? []
          : [{ from: point, to: frame, ohms: value, seconds: undefined, temperatureC: undefined }],
      before: undefined,
    };
    return judgeInsulation(sheet, marks);
  });
  const rows = points.map(([point], at) => ({
    name: point,
    cells: [cells[at]!],
    verdict: judged[at]!.cells[0]?.verdict ?? null,
  }));
  return { name: 'insulation', columns: ['toFrame'], rows, next: firstOpen(rows), answers: judged };
}
