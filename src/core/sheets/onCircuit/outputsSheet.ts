import type { CircuitModel } from '../../circuit/model';
import type { Reading, Setup } from '../../circuit/schema';
import { mayTake } from '../../diagnosis/candidateTests';
import { workingPatterns } from '../../diagnosis/patterns';
import type { ShopMarks } from '../../tables/marks';
import { setApart } from '../../diagnosis/setApart';
import { heldAgainst } from '../heldAgainst';
import { mendings } from '../outputs/worth';
import {
  givesLeast,
  judgeOutputs,
  type OutputsAnswer,
  type OutputsFinding,
  type OutputsSheet,
} from '../outputs/outputs';
import {
  cellOf,
  firstOpen,
  HEAD,
  nameOf,
  sizeOf,
  volts,
  withoutColumns,
  type JobSheet,
  type SheetCell,
  type SheetRow,
} from './jobSheet';
import type { SheetVerdicts } from './verdicts';

/** Every output by itself commanded, and all of them measured; the supply first, without which nothing tells full from part volts. */
export function outputsSheetOf(
  model: CircuitModel,
  readings: readonly Reading[],
  marks: ShopMarks,
): JobSheet<'outputs'> | null {
  const outs = outsOf(model);
  if (outs.length < 2) return null;
  const lines = outs.map((own) => lineOf(model, own, outs, readings));
  const supplyVolts = most(lines.map(({ supply }) => volts(supply)));
  const names = outs.map(({ ref }) => ref);
  const document = {
    ...HEAD,
    sheet: 'outputs',
    outputs: names,
    master: undefined,
    modules: undefined,
    supplyVolts,
    loads: 'on',
    against: sideOf(outs),
    matrix: matrixOf(outs, lines, supplyVolts),
    lowImpedance: undefined,
    atRest: restOf(outs, lines, supplyVolts),
    sensorLoop: 'closed',
  } satisfies OutputsSheet;
  const { answer: judged, wanted } = lookedBehind(
    judgeOutputs(document, marks),
    document,
    lines,
    outs,
    marks,
  );
  const low = judged.cause === 'deadSource' ? null : lowSupply(lines);
  const answer = low ? { ...judged, findings: [...judged.findings, low] } : judged;
  const rows = lines.map(({ ref, cells, ...more }): SheetRow<'outputs'> => ({
    name: ref,
    cells: [...cells, ...MORE_COLUMNS.map((column) => more[column])],
    verdict: verdictOf(answer, ref),
  }));
  const whole: JobSheet<'outputs'> = {
    name: 'outputs',
    columns: [...names, ...MORE_COLUMNS],
    rows,
    next: wanted ?? nextOf(rows, names, answer, supplyVolts),
    answers: [answer],
    held: heldAgainst(document, answer, marks),
  };
  return withoutColumns(whole, ['atRest', 'loadOff', 'loom'] satisfies More[]);
}

/** What is read of an output beside the matrix. */
const MORE_COLUMNS = ['supply', 'atRest', 'loadOff', 'loom'] as const;
type More = (typeof MORE_COLUMNS)[number];

interface Out {
  ref: string;
  node: string;
  supplyNode: string;
  high: boolean;
}
interface Line extends Record<More, SheetCell | null> {
  ref: string;
  cells: (SheetCell | null)[];
}

function outsOf({ compiled }: CircuitModel): Out[] {
  return compiled.parts.flatMap(({ part }) =>
    part.kind === 'driver'
      ? [
          {
            ref: part.ref,
            node: part.nodes.out,
            supplyNode: part.nodes.supply,
            high: part.side !== 'low',
          },
        ]
      : [],
  );
}

/** What is read of an output: every output in its command, its supply, and what tells it from what hangs on it. */
function lineOf(model: CircuitModel, own: Out, outs: readonly Out[], readings: readonly Reading[]): Line {
  const to = nameOf(model, model.compiled.frame);
  const pattern = workingPatterns(model).find(({ setup }) =>
    outs.every(({ ref }) => isOn(model, ref, setup) === (ref === own.ref)),
  );
  const cell = (from: string, setup: Setup | null, other = to) =>
    setup && cellOf(model, mayTake(model, { kind: 'volts', from, to: other, setup }), readings);
  const commanded = pattern?.setup ?? null;
  const apart = setApart(model, own.ref, [model.compiled.nodeIndex.get(own.node)!]);
  return {
    ref: own.ref,
    cells: outs.map(({ node }) => cell(node, commanded)),
    supply: cell(own.supplyNode, commanded),
    atRest: cell(own.node, commanded && {}),
    // With everything off that hangs on it, nothing can hold it: a low side then floats, and is read from its supply.
    loadOff: cell(own.node, commanded && apart && { ...commanded, ...apart }, own.high ? to : own.supplyNode),
    // What arrives on its wire with the output itself off that, at rest.
    loom: cell(own.node, commanded && { lifted: [{ part: own.ref, node: own.node }] }),
  };
}

function most(values: readonly (number | undefined)[]): number | undefined {
  const read = values.filter((value) => value !== undefined);
  return read.length > 0 ? Math.max(...read) : undefined;
}

/** The supply is there, and lower than it should be: each output is held against what arrives, so that none of them shows it. */
const LOW_SHARE = 0.85;

function lowSupply(lines: readonly Line[]): OutputsFinding | null {
  for (const { supply } of lines) {
    const [read, wanted] = [volts(supply), supply ? sizeOf(supply.expected) : 0];
    if (read !== undefined && read < LOW_SHARE * wanted) return { code: 'lowSupply', volts: read, wanted };
  }
  return null;
}

/** Volts as they stand across the loads, as far as the supply is known: a low side's is what is left of it. */
function matrixOf(outs: readonly Out[], lines: readonly Line[], supplyVolts: number | undefined) {
  const matrix: Record<string, Record<string, number>> = {};
  for (const { ref, cells } of lines)
    cells.forEach((cell, k) => {
      const value = acrossLoad(outs[k]!, cell, supplyVolts);
      if (value !== undefined) (matrix[ref] ??= {})[outs[k]!.ref] = value;
    });
  return matrix;
}

/** The same while nothing is commanded. */
function restOf(outs: readonly Out[], lines: readonly Line[], supplyVolts: number | undefined) {
  const rest: Record<string, number> = {};
  outs.forEach((out, k) => {
    const value = acrossLoad(out, lines[k]!.atRest, supplyVolts);
    if (value !== undefined) rest[out.ref] = value;
  });
  return rest;
}

function acrossLoad(
  { high }: Out,
  cell: SheetCell | null | undefined,
  supplyVolts: number | undefined,
): number | undefined {
  const value = volts(cell);
  if (value === undefined || high) return value;
  return supplyVolts === undefined ? undefined : Math.max(supplyVolts - value, 0);
}

function verdictOf({ of, findings }: OutputsAnswer, ref: string): SheetVerdicts['outputs'] | null {
  const about = (code: OutputsAnswer['findings'][number]['code']) =>
    findings.some((one) => one.code === code && one['output'] === ref);
  if (about('heldDown')) return 'heldDown';
  if (about('heldUp')) return 'heldUp';
  if (about('fieldDead') || about('fieldLive')) return 'field';
  return of.includes(ref) ? 'bad' : null;
}

/** The side of the loads that all of them are read to; none where some switch the feed and some the return. */
function sideOf(outs: readonly Out[]): OutputsSheet['against'] {
  if (outs.every(({ high }) => high)) return 'frame';
  return outs.some(({ high }) => high) ? undefined : 'supply';
}

/** How the sheet asks for what an output carries at rest. */
const ASK_AT_REST = 'atRest.';

/** The supply, then what the sheet asks for; where that may not be read the first cell of the matrix that is open, while nothing is said. */
function nextOf(
  rows: readonly SheetRow<'outputs'>[],
  names: readonly string[],
  { next, cause }: OutputsAnswer,
  supplyVolts: number | undefined,
): JobSheet['next'] {
  if (supplyVolts === undefined) {
    const at = names.length + MORE_COLUMNS.indexOf('supply');
    const row = rows.findIndex(({ cells }) => cells[at] !== null);
    if (row >= 0) return [row, at];
  }
  if (cause !== null || rows.some(({ verdict }) => verdict !== null)) return null;
  if (next && 'commanded' in next) {
    const [row, column] = [names.indexOf(next.commanded), names.indexOf(next.measured)];
    if (rows[row]?.cells[column]?.value === null) return [row, column];
  }
  if (next && 'ask' in next && next.ask.startsWith(ASK_AT_REST)) {
    const row = names.indexOf(next.ask.slice(ASK_AT_REST.length));
    const column = names.length + MORE_COLUMNS.indexOf('atRest');
    if (rows[row]?.cells[column]?.value === null) return [row, column];
  }
  return firstOpen(rows.map((row) => ({ ...row, cells: row.cells.slice(0, names.length) })));
}

/** An output without its load gives at least this share of its supply, or it gives nothing. */
const GIVES_SHARE = 0.7;
/** A wire that leads to the supply over its load alone stands at this share of it at least. */
const FULL_SHARE = 0.9;
/** Its wire carries less than this share of the supply, or something feeds it. */
const LIVE_SHARE = 0.1;

/** The one output that gives part of its supply only, where no cause is found and nothing more is asked; none of several. */
function weakest(
  { cause, next }: OutputsAnswer,
  outs: readonly Out[],
  lines: readonly Line[],
  supplyVolts: number,
): string | undefined {
  if (cause !== null || next !== null) return undefined;
  const shares = outs.map((out, k) => {
    const value = acrossLoad(out, lines[k]!.cells[k], supplyVolts);
    return value === undefined ? undefined : value / supplyVolts;
  });
  const least = givesLeast(shares.filter((share) => share !== undefined));
  const weak = outs.filter((_out, k) => (shares[k] ?? 1) < least);
  return weak.length === 1 ? weak[0]!.ref : undefined;
}

/**
 * What is said of an output once more with what hangs on it taken off: a dead one that gives then was held down, and one that leaks does not
 * where its wire stands so by itself. `wanted` is the cell that has to be read for it; null for none.
 */
function lookedBehind(
  answer: OutputsAnswer,
  { supplyVolts }: OutputsSheet,
  lines: readonly Line[],
  outs: readonly Out[],
  marks: ShopMarks,
): { answer: OutputsAnswer; wanted: JobSheet['next'] } {
  const as = (changed: Partial<OutputsAnswer>) => ({ answer: { ...answer, ...changed }, wanted: null });
  const none = { cause: null, of: [], share: null, mend: [], next: null };
  if (supplyVolts === undefined) return as({});
  const column = (more: More) => lines.length + MORE_COLUMNS.indexOf(more);
  const at = (ref: string) => lines.findIndex((line) => line.ref === ref);
  const dead = answer.cause === 'deadOutput' ? answer.of[0] : weakest(answer, outs, lines, supplyVolts);
  if (dead !== undefined) {
    const cell = lines[at(dead)]?.loadOff;
    if (!cell) return as({});
    const value = volts(cell);
    if (value === undefined) return { answer, wanted: [at(dead), column('loadOff')] };
    if (value >= GIVES_SHARE * supplyVolts)
      return as({
        ...none,
        findings: [{ code: outs[at(dead)]!.high ? 'heldDown' : 'heldUp', output: dead }],
      });
    if (answer.cause !== 'deadOutput') return as({});
    return as({
      findings: answer.findings.filter(({ code }) => code !== 'loadMayHold'),
      mend: mendings(answer.cause, marks),
    });
  }
  if (answer.cause !== 'leaking') return as({});
  for (const ref of answer.of) {
    const cell = lines[at(ref)]?.loom;
    if (cell?.value === null) return { answer, wanted: [at(ref), column('loom')] };
  }
  const field = answer.of.flatMap((ref): OutputsFinding[] => {
    const value = volts(lines[at(ref)]?.loom);
    if (value === undefined) return [];
    const { high } = outs[at(ref)]!;
    if (high) return value > LIVE_SHARE * supplyVolts ? [{ code: 'fieldLive', output: ref }] : [];
    return value < FULL_SHARE * supplyVolts ? [{ code: 'fieldDead', output: ref }] : [];
  });
  return field.length > 0 ? as({ ...none, findings: field }) : as({});
}

function isOn({ compiled }: CircuitModel, ref: string, { controls = {} }: Setup): boolean {
  const { part } = compiled.parts[compiled.partIndex.get(ref)!]!;
  if (part.kind !== 'driver') return false;
  return Object.entries(part.onWhen ?? {}).every(([control, positions]) =>
    positions.includes(controls[control] ?? compiled.circuit.controls[control]![0]!),
  );
}
