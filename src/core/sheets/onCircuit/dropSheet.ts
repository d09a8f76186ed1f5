import type { CircuitModel } from '../../circuit/model';
import type { Reading } from '../../circuit/schema';
import type { PartKind } from '../../kinds/part/module';
import { dropPlace } from '../../diagnosis/yardsticks';
import { branchAmps } from '../../circuit/world';
import { findLanes, type Lane, type Step } from '../../path/lanes';
import { DROP_ROWS, type ShopMarks } from '../../tables/marks';
import { rowOf, uniqueRows } from '../heldAgainst';
import { mostDrawn } from './bearing';
import { judgeDrop, type DropAnswer, type DropSheet } from '../drop/drop';
import {
  cellOf,
  HEAD,
  nameOf,
  pickBetween,
  sizeOf,
  underCommand,
  volts,
  type JobSheet,
  type SheetRow,
} from './jobSheet';

/** Of the drawn drop, beside what the shop allows a joint: copper is warmer, longer and thinner than drawn. */
const OVER_DRAWN = 2;
/** Of what its load should draw: with less its way loses too little to tell. */
const FLOWS_SHARE = 0.5;
/** And up to this share no more than drawn flows. */
const AS_DRAWN = 1.3;
/** And of what a place should lose: with more it is that place that is wrong. */
const MOST_SHARE = 3;
/** From this share of the supply on a place is as good as open. */
const OPEN_SHARE = 0.5;
/** Of what its load draws: less is no part of its way. */
const CARRIES_SHARE = 0.01;
/** And up to this share nothing else goes through a place. */
const ALONE_SHARE = 1.2;
/** What a meter shows of a drop beyond doubt, volts. */
const SEEN_VOLTS = 0.03;

/** Besides what every such sheet answers: whether the load draws what it should; null while nothing tells. */
export type DropOfJob = DropAnswer & {
  flows: boolean | null;
};

/** Volts lost part by part on the way to a load and home, while it draws its current. */
export function dropSheetOf(
  model: CircuitModel,
  readings: readonly Reading[],
  marks: ShopMarks,
): JobSheet<'drop'> | null {
  const lane = laneMeant(model, readings);
  if (!lane) return null;
  const { compiled } = model;
  const { parts } = compiled;
  const commanded = underCommand(lane.setup);
  const world = model.situation(lane.setup).solve({ mode: 'live' });
  const drawn = ampsDrawn(model, lane);
  const carries = ({ branch }: Step) => Math.abs(branchAmps(world, branch)) / drawn;
  const steps = [...lane.feed, ...lane.back].filter((step) => {
    const { kind } = parts[step.part]!.part;
    // A contact beside it that is open in this command is no place on the way.
    return kind !== 'source' && kind !== 'transformer' && carries(step) > CARRIES_SHARE;
  });
  const rows = steps.map((step): SheetRow<'drop'> => {
    const between = [nameOf(model, step.from), nameOf(model, step.to)] as const;
    const test = pickBetween(model, 'volts', between, commanded);
    return { name: parts[step.part]!.part.ref, cells: [cellOf(model, test, readings)], verdict: null };
  });
  const named = rows.filter(({ name }, at) => rows.findIndex((one) => one.name === name) === at);
  if (named.every(({ cells }) => cells[0] === null)) return null;
  const amps = ampsRead(model, lane, readings);
  const flows = isFlowing(model, lane, named, amps, readings);
  const document: DropSheet = {
    ...HEAD,
    sheet: 'drop',
    segments: named.map(({ name, cells }) => ({ ...copperOf(model, name), measuredVolts: volts(cells[0]) })),
    amps,
    temperatureC: undefined,
    budgetVolts: undefined,
  };
  const answer = judgeDrop(document, marks);
  named.forEach((row, at) => {
    const verdict = answer.segments[at]!.verdict ?? verdictOf(model, row, marks);
    row.verdict = verdict === 'good' && !flows ? null : verdict === 'high' ? howHigh(model, row) : verdict;
  });
  const most = mostDrawn(model, lane.id, lane.setup);
  // What carries other loads as well hides in their current what this one draws more.
  const own = new Set(
    steps.filter((step) => carries(step) < ALONE_SHARE).map(({ part }) => parts[part]!.part.ref),
  );
  if (amps === undefined)
    named.forEach((row, at) => {
      const ahead = named.slice(0, at).filter(({ name }) => own.has(name));
      // An output holds its current down where too much is asked of it, and takes the volts itself.
      const isOutput = parts[compiled.partIndex.get(row.name)!]!.part.kind === 'driver';
      if (row.verdict === 'high' && (isOutput || mayDrawMore(row, ahead, most))) row.verdict = 'mayDrawMore';
    });
  const said: DropOfJob = { ...answer, flows };
  const places = named.flatMap(({ cells: [cell] }) =>
    cell ? [DROP_ROWS[dropPlace(model, cell.test) ?? 'joint']] : [],
  );
  return {
    name: 'drop',
    columns: ['dropVolts'],
    rows: named,
    next: nextDrop(named),
    answers: [said],
    held: uniqueRows(places.map((place) => rowOf('contact-drops', place, marks))),
  };
}

/** The load that was complained of last, else the one that draws most. */
function laneMeant(model: CircuitModel, readings: readonly Reading[]): Lane | null {
  const lanes = findLanes(model).lanes.filter(
    (lane) => lane.medium === 'electrical' && lane.feed.length > 0 && ampsDrawn(model, lane) > 0,
  );
  const failing = readings.findLast(
    (one) => one.kind === 'function' && (one.value === 'dead' || one.value === 'weak'),
  );
  const meant = lanes.find(({ id }) => failing?.kind === 'function' && failing.part === id);
  if (meant) return meant;
  return [...lanes].sort((a, b) => ampsDrawn(model, b) - ampsDrawn(model, a))[0] ?? null;
}

/** What the sound machine sends through a load under its command, amperes. */
function ampsDrawn(model: CircuitModel, { setup, load }: Lane): number {
  return Math.abs(branchAmps(model.situation(setup).solve({ mode: 'live' }), load.branch));
}

function copperOf(model: CircuitModel, name: string) {
  const { part } = model.compiled.parts[model.compiled.partIndex.get(name)!]!;
  const { lengthMetres, mm2, awg } = part.kind === 'wire' ? part : {};
  return { name, lengthMetres, mm2, awg: awg as number | undefined };
}

/** What a clamp showed of the load's current, amperes. */
function ampsRead(
  { compiled }: CircuitModel,
  { setup, load, feed, back }: Lane,
  readings: readonly Reading[],
): number | undefined {
  const onIt = new Set([load, ...feed, ...back].map(({ part }: Step) => compiled.parts[part]!.part.ref));
  const commanded = underCommand(setup);
  const seen = readings.findLast((one) => one.kind === 'amps' && onIt.has(one.through) && commanded(one));
  return typeof seen?.value === 'number' ? Math.abs(seen.value) : undefined;
}

/**
 * Whether the load draws what it should while its way is read: little is lost where little flows, and then nothing is proved. It does where it was
 * seen to work, where a clamp shows it, and where a place loses what the drawing says it must; it does not where a clamp shows nothing, or
 * where places that must lose something lose nothing. Null while nothing tells.
 */
function isFlowing(
  model: CircuitModel,
  lane: Lane,
  rows: readonly SheetRow<'drop'>[],
  amps: number | undefined,
  readings: readonly Reading[],
): boolean | null {
  if (amps !== undefined) return amps >= FLOWS_SHARE * ampsDrawn(model, lane);
  const commanded = underCommand(lane.setup);
  const seen = readings.findLast((one) => one.kind === 'function' && one.part === lane.id && commanded(one));
  if (seen?.value === 'works') return true;
  const shown = sharesShown(rows);
  // One that loses far more tells nothing: across an open place stands the whole supply.
  if (shown.some((share) => share >= FLOWS_SHARE && share <= MOST_SHARE)) return true;
  return shown.length > 0 && shown.every((share) => share < FLOWS_SHARE) ? false : null;
}

/** Of what each place must lose beyond doubt, what it was read to lose. */
function sharesShown(rows: readonly SheetRow<'drop'>[]): number[] {
  return rows.flatMap((row) => shareShown(row) ?? []);
}

function shareShown({ cells: [cell] }: SheetRow<'drop'>): number | null {
  const [value, must] = [volts(cell), cell ? sizeOf(cell.expected) : 0];
  return value === undefined || must < SEEN_VOLTS ? null : value / must;
}

/**
 * Whether a place that loses too much may lose it for what flows. More flows ahead of what leaks than behind it: so a place ahead of this one that
 * loses no more than drawn shows that no more flows here. What loses more than `most` times as much does not lose it to any current that can flow there.
 */
function mayDrawMore(
  { cells: [cell] }: SheetRow<'drop'>,
  ahead: readonly SheetRow<'drop'>[],
  most: number,
): boolean {
  const must = cell ? sizeOf(cell.expected) : 0;
  if (volts(cell)! > most * must) return false;
  return !sharesShown(ahead).some((share) => share >= FLOWS_SHARE && share <= AS_DRAWN);
}

/** Against the shop's figure for such a place, and what the drawn ohms lose there; null between good and bad. */
function verdictOf(
  model: CircuitModel,
  { cells: [cell] }: SheetRow<'drop'>,
  marks: ShopMarks,
): 'good' | 'high' | null {
  const value = volts(cell);
  if (!cell || value === undefined) return null;
  const place = dropPlace(model, cell.test);
  const mark = place ? marks.drops[place] : marks.drops.joint;
  const drawn = typeof cell.expected === 'number' ? Math.abs(cell.expected) : 0;
  if (value <= mark.good + drawn) return 'good';
  return value > mark.repair + OVER_DRAWN * drawn ? 'high' : null;
}

/** What closes only when something else makes it: a coil, a pressure, a program. */
const MADE: readonly PartKind[] = ['relay', 'pressureSwitch', 'driver', 'timer'];

/** What loses too much loses some of what there is, or all of it: that one is open, and some are so for want of what makes them. */
function howHigh(
  { compiled }: CircuitModel,
  { name, cells: [cell] }: SheetRow<'drop'>,
): 'high' | 'open' | 'notMade' {
  const own = compiled.parts[compiled.partIndex.get(name)!]!;
  const supply = Math.max(...own.branches.map((branch) => branch.volts)) || compiled.supplyVolts;
  if (volts(cell)! < OPEN_SHARE * supply) return 'high';
  return MADE.includes(own.part.kind) ? 'notMade' : 'open';
}

/** The middle of what was not read, as long as none is found that loses too much. */
function nextDrop(rows: readonly SheetRow<'drop'>[]): JobSheet['next'] {
  const open = rows.flatMap(({ cells: [cell] }, at) => (cell?.value === null ? [at] : []));
  const [doubt, ...others] = rows.flatMap(({ verdict }, at) =>
    verdict !== null && verdict !== 'good' ? [at] : [],
  );
  if (doubt !== undefined) {
    // One ahead of it that must lose something tells whether more flows.
    const ahead = open.findLast((at) => at < doubt && sizeOf(rows[at]!.cells[0]!.expected) >= SEEN_VOLTS);
    const isAlone = others.length === 0 && rows[doubt]!.verdict === 'mayDrawMore';
    return isAlone && ahead !== undefined ? [ahead, 0] : null;
  }
  return open.length > 0 ? [open[Math.floor(open.length / 2)]!, 0] : null;
}
