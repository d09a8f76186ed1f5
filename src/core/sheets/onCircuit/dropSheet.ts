import type { CircuitModel } from '../../circuit/model';
import type { Reading } from '../../circuit/schema';
import { dropPlace } from '../../diagnosis/yardsticks';
import { branchAmps } from '../../circuit/world';
import { findLanes, type Lane, type Step } from '../../path/lanes';
import { DROP_ROWS, type ShopMarks } from '../../tables/marks';
import { rowOf, uniqueRows } from '../heldAgainst';
import { judgeDrop, type DropSheet } from '../drop/drop';
import {
  cellOf,
  HEAD,
  nameOf,
  pickBetween,
  underCommand,
  volts,
  type JobSheet,
  type SheetRow,
} from './jobSheet';

/** Of the drawn drop, beside what the shop allows a joint: copper is warmer, longer and thinner than drawn. */
const OVER_DRAWN = 2;

/** Volts lost part by part on the way to a load and home, while it draws its current. */
export function dropSheetOf(
  model: CircuitModel,
  readings: readonly Reading[],
  marks: ShopMarks,
): JobSheet | null {
  const lane = laneMeant(model, readings);
  if (!lane) return null;
  const { parts } = model.compiled;
  const commanded = underCommand(lane.setup);
  const steps = [...lane.feed, ...lane.back].filter(({ part }) => {
    const { kind } = parts[part]!.part;
    return kind !== 'source' && kind !== 'transformer';
  });
  const rows = steps.map((step): SheetRow => {
    const between = [nameOf(model, step.from), nameOf(model, step.to)] as const;
    const test = pickBetween(model, 'volts', between, commanded);
    return { name: parts[step.part]!.part.ref, cells: [cellOf(model, test, readings)], verdict: null };
  });
  const named = rows.filter(({ name }, at) => rows.findIndex((one) => one.name === name) === at);
  if (named.every(({ cells }) => cells[0] === null)) return null;
  const document: DropSheet = {
    ...HEAD,
    sheet: 'drop',
    segments: named.map(({ name, cells }) => ({ ...copperOf(model, name), measuredVolts: volts(cells[0]) })),
    amps: ampsRead(model, lane, readings),
    temperatureC: undefined,
    budgetVolts: undefined,
  };
  const answer = judgeDrop(document, marks);
  named.forEach((row, at) => {
    row.verdict = answer.segments[at]!.verdict ?? verdictOf(model, row, marks);
  });
  const places = named.flatMap(({ cells: [cell] }) =>
    cell ? [DROP_ROWS[dropPlace(model, cell.test) ?? 'joint']] : [],
  );
  return {
    name: 'drop',
    columns: ['dropVolts'],
    rows: named,
    next: nextDrop(named),
    answers: [answer],
    held: uniqueRows(places.map((place) => rowOf('contact-drops', place, marks))),
  };
}

/** The load that was complained of last, else the one that draws most. */
function laneMeant(model: CircuitModel, readings: readonly Reading[]): Lane | null {
  const lanes = findLanes(model).lanes.filter(({ medium, setup, load, feed }) => {
    const world = model.situation(setup).solve({ mode: 'live' });
    const draws = Math.abs(branchAmps(world, load.branch)) > 0;
    return medium === 'electrical' && draws && feed.length > 0;
  });
  const failing = readings.findLast(
    (one) => one.kind === 'function' && (one.value === 'dead' || one.value === 'weak'),
  );
  const meant = lanes.find(({ id }) => failing?.kind === 'function' && failing.part === id);
  if (meant) return meant;
  const amps = ({ setup, load }: Lane) =>
    Math.abs(branchAmps(model.situation(setup).solve({ mode: 'live' }), load.branch));
  return [...lanes].sort((a, b) => amps(b) - amps(a))[0] ?? null;
}

function copperOf(model: CircuitModel, name: string) {
  const { part } = model.compiled.parts[model.compiled.partIndex.get(name)!]!;
  const { lengthMetres, mm2, awg } = part.kind === 'wire' ? part : {};
  return { name, lengthMetres, mm2, awg: awg as number | undefined };
}

/** What a clamp showed of the load's current, amperes. */
function ampsRead(
  { compiled }: CircuitModel,
  { load, feed, back }: Lane,
  readings: readonly Reading[],
): number | undefined {
  const onIt = new Set([load, ...feed, ...back].map(({ part }: Step) => compiled.parts[part]!.part.ref));
  const seen = readings.findLast((one) => one.kind === 'amps' && onIt.has(one.through));
  return typeof seen?.value === 'number' ? Math.abs(seen.value) : undefined;
}

/** Against the shop's figure for such a place, and what the drawn ohms lose there; null between good and bad. */
function verdictOf(model: CircuitModel, { cells: [cell] }: SheetRow, marks: ShopMarks): string | null {
  const value = volts(cell);
  if (!cell || value === undefined) return null;
  const place = dropPlace(model, cell.test);
  const mark = place ? marks.drops[place] : marks.drops.joint;
  const drawn = typeof cell.expected === 'number' ? Math.abs(cell.expected) : 0;
  if (value <= mark.good + drawn) return 'good';
  return value > mark.repair + OVER_DRAWN * drawn ? 'high' : null;
}

/** The middle of what was not read, as long as none is found that loses too much. */
function nextDrop(rows: readonly SheetRow[]): JobSheet['next'] {
  if (rows.some(({ verdict }) => verdict === 'high')) return null;
  const open = rows.flatMap(({ cells: [cell] }, at) => (cell?.value === null ? [at] : []));
  return open.length > 0 ? [open[Math.floor(open.length / 2)]!, 0] : null;
}
