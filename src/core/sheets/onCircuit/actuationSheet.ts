import { isAssumed } from '../../circuit/assumed';
import type { CircuitModel } from '../../circuit/model';
import { EDGES, type PartOf, type Reading, type Test } from '../../circuit/schema';
import { mayTake } from '../../diagnosis/candidateTests';
import { switchTest } from '../../diagnosis/fluidCandidates';
import { askedPlace } from '../../diagnosis/observations';
import {
  judgeActuation,
  LEAST_CYCLES,
  type ActuationAnswer,
  type ActuationSheet,
} from '../actuation/actuation';
import {
  figure,
  firstOpen,
  HEAD,
  soundValue,
  volts,
  type JobSheet,
  type SheetCell,
  type SheetRow,
} from './jobSheet';

/** More cycles than that tell nothing more. */
const MOST_CYCLES = 12;
type PressureSwitch = PartOf<'pressureSwitch'>;
type Cycle = readonly [rising: SheetCell | null, falling: SheetCell | null];

/** Answers with the switch that they are about. */
export interface SwitchAnswer extends ActuationAnswer {
  part: string;
}

/** Each pressure switch on a hand pump, cycle by cycle: where it changes over, and whether it does so again. */
export function actuationSheetOf(
  model: CircuitModel,
  readings: readonly Reading[],
): JobSheet<'actuation'> | null {
  const rows: SheetRow<'actuation'>[] = [];
  const answers: SwitchAnswer[] = [];
  const bad: string[] = [];
  let next: JobSheet['next'] = null;
  for (const { part } of model.compiled.parts) {
    if (part.kind !== 'pressureSwitch') continue;
    const cycles = cyclesOf(model, part, readings);
    if (!cycles) continue;
    const first = rows.length;
    const answer = judgeActuation(documentOf(part, cycles));
    for (const [at, cells] of cycles.entries())
      rows.push({
        name: part.ref,
        check: String(at + 1),
        cells: [...cells],
        verdict: cells[0]?.value === 'OL' ? 'still' : null,
      });
    answers.push({ ...answer, part: part.ref });
    if (answer.verdict !== null && answer.verdict !== 'good') bad.push(part.ref);
    const open = answer.verdict === null ? firstOpen(rows.slice(first)) : null;
    if (open) next ??= [first + open[0], open[1]];
  }
  if (rows.length === 0) return null;
  return { name: 'actuation', columns: [...EDGES], rows, next, answers, liesOn: bad };
}

/** As many cycles as were read and one more, and as many at least as a verdict wants; null where none may be taken. */
function cyclesOf(model: CircuitModel, part: PressureSwitch, readings: readonly Reading[]): Cycle[] | null {
  const [rising, falling] = EDGES.map((edge) => mayTake(model, switchTest(model, part, edge)));
  if (!rising || !falling) return null;
  const ups = readingsOf(rising, readings);
  const downs = readingsOf(falling, readings);
  const read = Math.max(ups.length, downs.length);
  const wanted = Math.min(MOST_CYCLES, Math.max(LEAST_CYCLES, read + 1));
  let down = 0;
  return Array.from({ length: wanted }, (_one, at): Cycle => {
    const up = cellAt(model, rising, readings, ups[at]);
    // What did not change over has nothing to change back from.
    return [up, up.value === 'OL' ? null : cellAt(model, falling, readings, downs[down++])];
  });
}

/** Positions of the readings of a test, whichever way the power was taken off for it. */
function readingsOf(test: Test, readings: readonly Reading[]): number[] {
  const place = askedPlace(test);
  return readings.flatMap((one, at) => (askedPlace(one) === place ? [at] : []));
}

function cellAt(
  model: CircuitModel,
  test: Test,
  readings: readonly Reading[],
  at: number | undefined,
): SheetCell {
  return {
    test,
    expected: soundValue(model, test),
    reading: at ?? null,
    value: at === undefined ? null : readings[at]!.value,
    past: [],
  };
}

/** The sheet as its cells fill it in: which of its points makes and which breaks the drawing says. */
function documentOf(part: PressureSwitch, cycles: readonly Cycle[]): ActuationSheet {
  const { makeKPa, breakKPa } = part;
  const closesAsItGrows = Math.abs(makeKPa) >= Math.abs(breakKPa);
  return {
    ...HEAD,
    sheet: 'actuation',
    atRest: undefined,
    ratedKpa: isAssumed(part, 'makeKPa') ? undefined : Math.max(Math.abs(makeKPa), Math.abs(breakKPa)),
    cycles: cycles.flatMap(([up, down]): NonNullable<ActuationSheet['cycles']> => {
      if (up?.value === 'OL') return [{ makeKpa: undefined, breakKpa: undefined, changed: false }];
      const [grown, left] = [volts(up), volts(down)];
      if (grown === undefined || figure(down) === undefined) return [];
      const [makeKpa, breakKpa] = closesAsItGrows ? [grown, left] : [left, grown];
      return [{ makeKpa, breakKpa, changed: true }];
    }),
  };
}
