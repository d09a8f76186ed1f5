import { InputError } from '../../circuit/inputError';
import { controlsOf } from '../../circuit/controlsOf';
import type { CircuitModel } from '../../circuit/model';
import type { Part, Reading, Setup, Test } from '../../circuit/schema';
import { findLanes } from '../../path/lanes';
import type { SheetAnswer } from '../sheet';
import { cellOf, nameOf, sizeOf, type JobSheet, type SheetCell, type SheetRow } from './jobSheet';

/** A moment of the sequence: what is done then, and how it stands while it is read. */
export interface TimelineMoment {
  /** Control that is turned and where to; null at rest. */
  turned: readonly [control: string, position: string] | null;
  /** Read at once, before the timers have run. */
  atOnce: boolean;
  setup: Setup;
}

export interface TimelineAnswer extends SheetAnswer {
  moments: TimelineMoment[];
  /** The earliest moment at which a wire is not as it should be, and the wire nearest to the supply of those; null while none is. */
  first: { row: number; column: number } | null;
}

/** What only leads from one contact to the next. */
const WIRING: readonly Part['kind'][] = ['wire', 'pin'];
/** A wire differs where it stands off by more than this share of its circuit's supply. */
const DIFFERS = 0.15;
const AT_ONCE_SECONDS = 0.1;
const MOST_MOMENTS = 9;
const MOST_WIRES = 24;

/**
 * What each wire of a sequence should carry at each of its moments, and what it was read to carry: controls are turned one after the other
 * to where the work is done, each read at once where a timer runs, and then let go again, the last one first. Null where nothing follows
 * on anything: a single control and no timer.
 */
export function timelineSheetOf(
  model: CircuitModel,
  readings: readonly Reading[],
): JobSheet<'timeline'> | null {
  const { compiled } = model;
  const timed = compiled.circuit.parts.some(({ kind }) => kind === 'timer');
  const lanes = findLanes(model).lanes.filter(({ medium }) => medium === 'electrical');
  const worked = lanes.map(({ setup }) => setup.controls ?? {}).sort(byPositions(model))[0];
  if (!worked || (!timed && Object.keys(worked).length < 2)) return null;
  const moments = momentsOf(model, worked);
  const frame = nameOf(model, compiled.frame);
  const nodes = new Set<number>();
  for (const { feed, load } of lanes) {
    // Behind each contact, and at the work: between them lie wires, which show by what is lost on them.
    for (const { part, to } of feed) if (!WIRING.includes(compiled.parts[part]!.part.kind)) nodes.add(to);
    nodes.add(load.from);
  }
  nodes.delete(compiled.frame);
  const rows: SheetRow<'timeline'>[] = [...nodes].slice(0, MOST_WIRES).map((node) => ({
    name: nameOf(model, node),
    cells: moments.map(({ setup }) => voltsAt(model, nameOf(model, node), frame, setup, readings)),
    verdict: null,
  }));
  const verdicts = rows.map(({ name, cells }) => {
    const full = compiled.volts[compiled.nodeIndex.get(name)!]! || compiled.supplyVolts;
    return cells.map((cell) => verdictOf(cell, full));
  });
  rows.forEach((row, r) => {
    const said = verdicts[r]!.filter((one) => one !== null);
    row.verdict = said.includes('bad') ? 'bad' : said.length > 0 ? 'good' : null;
  });
  const first = firstBad(verdicts, moments.length);
  const answer: TimelineAnswer = { findings: [], next: null, moments, first };
  return {
    name: 'timeline',
    columns: moments.map(keyOf),
    rows,
    verdicts,
    next: first ? openBefore(rows, first) : nextOpen(rows, moments.length),
    answers: [answer],
  };
}

/** Moment as a column is named: what is turned, and whether it is read at once. */
function keyOf({ turned, atOnce }: TimelineMoment): string {
  return JSON.stringify([turned, atOnce]);
}

/** Most controls off their resting position first: that is where the whole sequence has run. */
function byPositions({ compiled: { circuit } }: CircuitModel) {
  const turned = (controls: Readonly<Record<string, string>>) =>
    Object.entries(controls).filter(([name, position]) => circuit.controls[name]?.[0] !== position).length;
  return (one: Readonly<Record<string, string>>, other: Readonly<Record<string, string>>) =>
    turned(other) - turned(one);
}

function momentsOf({ compiled }: CircuitModel, worked: Readonly<Record<string, string>>): TimelineMoment[] {
  const { controls } = compiled.circuit;
  const names = Object.keys(controls);
  const rest: Record<string, string> = Object.fromEntries(names.map((name) => [name, controls[name]![0]!]));
  const moments: TimelineMoment[] = [{ turned: null, atOnce: false, setup: { controls: { ...rest } } }];
  const now = { ...rest };
  const turn = (name: string, position: string, waits: boolean) => {
    if (now[name] === position) return;
    now[name] = position;
    const setup = { controls: { ...now } };
    const turned = [name, position] as const;
    if (waits) moments.push({ turned, atOnce: true, setup: { ...setup, afterSeconds: AT_ONCE_SECONDS } });
    moments.push({ turned, atOnce: false, setup });
  };
  const starts = new Set(
    compiled.circuit.parts.flatMap((part) => (part.kind === 'timer' ? controlsOf(part) : [])),
  );
  for (const name of names) turn(name, worked[name] ?? rest[name]!, starts.has(name));
  // Let go again, the last one first: what dies with it, and what should not.
  for (const name of names.toReversed()) turn(name, rest[name]!, false);
  // The end is the beginning: the last moment is at rest again.
  return moments.slice(0, -1).slice(0, MOST_MOMENTS);
}

function voltsAt(
  model: CircuitModel,
  from: string,
  to: string,
  setup: Setup,
  readings: readonly Reading[],
): SheetCell | null {
  const test: Test = { kind: 'volts', from, to, setup };
  try {
    return cellOf(model, test, readings);
  } catch (error) {
    // Not to be read there in that position.
    if (error instanceof InputError) return null;
    throw error;
  }
}

function verdictOf(cell: SheetCell | null, full: number): 'good' | 'bad' | null {
  if (!cell || cell.value === null || typeof cell.expected !== 'number') return null;
  return Math.abs(sizeOf(cell.value) - sizeOf(cell.expected)) > DIFFERS * full ? 'bad' : 'good';
}

function firstBad(verdicts: readonly (readonly (string | null)[])[], columns: number) {
  for (let column = 0; column < columns; column++) {
    const row = verdicts.findIndex((cells) => cells[column] === 'bad');
    if (row >= 0) return { row, column };
  }
  return null;
}

/** The moment is known: where on the way it is lost is still to be read, towards the supply. */
function openBefore(
  rows: readonly SheetRow<'timeline'>[],
  { row, column }: { row: number; column: number },
): [number, number] | null {
  const at = rows.slice(0, row).findLastIndex(({ cells }) => cells[column]?.value === null);
  return at >= 0 ? [at, column] : null;
}

/** Moment by moment, and of each the wire nearest to the work first: what is right there is right on the way to it. */
function nextOpen(rows: readonly SheetRow<'timeline'>[], columns: number): [number, number] | null {
  for (let column = 0; column < columns; column++) {
    const row = rows.findLastIndex(({ cells }) => cells[column]?.value === null);
    if (row >= 0) return [row, column];
  }
  return null;
}
