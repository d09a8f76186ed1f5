import type { CircuitModel } from '../../circuit/model';
import type { Reading, Test } from '../../circuit/schema';
import { ownVolts } from '../../diagnosis/testerVolts';
import type { ShopMarks } from '../../tables/marks';
import { heldAgainst, uniqueRows } from '../heldAgainst';
import { judgeInsulation, type InsulationSheet } from '../insulation/insulation';
import { cellOf, figure, HEAD, MOST_ROWS, nameOf, testsOf, type JobSheet, type SheetRow } from './jobSheet';

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
  const quick = [...quickest].slice(0, MOST_ROWS);
  if (quick.length === 0) return null;
  // Shown along the drawing; asked for the quickest first.
  const points = [...quick].sort(([a], [b]) => compiled.nodeIndex.get(a)! - compiled.nodeIndex.get(b)!);
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
      material: undefined,
      readings:
        value === undefined
          ? []
          : [{ from: point, to: frame, ohms: value, seconds: undefined, temperatureC: undefined }],
      before: undefined,
    };
    const answer = judgeInsulation(sheet, marks);
    return { answer, held: heldAgainst(sheet, answer, marks) };
  });
  const rows = points.map(([point], at) => ({
    name: point,
    cells: [cells[at]!],
    verdict: judged[at]!.answer.cells[0]?.verdict ?? null,
  }));
  const asked = quick.find(([point]) =>
    rows.some(({ name, cells: [cell] }) => name === point && cell?.value === null),
  );
  return {
    name: 'insulation',
    columns: ['toFrame'],
    rows,
    next: asked ? [rows.findIndex(({ name }) => name === asked[0]), 0] : null,
    answers: judged.map(({ answer }) => answer),
    held: uniqueRows(judged.flatMap(({ held }) => held)),
    liesOn: partsOnBad(model, rows),
  };
}

/** Parts that lie on what reads bad with every end that was read, and of these only those with most ends there: one wire reads bad at both. */
function partsOnBad({ compiled }: CircuitModel, rows: readonly SheetRow[]): string[] {
  const verdicts = new Map(rows.map(({ name, verdict }) => [name, verdict]));
  const found = compiled.parts.flatMap(({ part, nodes }) => {
    const read = nodes.flatMap((node) => verdicts.get(compiled.nodeNames[node]!) ?? []);
    const bad = read.filter((verdict) => verdict === 'bad').length;
    return bad > 0 && bad === read.length ? [{ ref: part.ref, bad }] : [];
  });
  const most = Math.max(0, ...found.map(({ bad }) => bad));
  return found.filter(({ bad }) => bad === most).map(({ ref }) => ref);
}
