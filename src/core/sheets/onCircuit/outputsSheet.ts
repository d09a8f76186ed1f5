import type { CircuitModel } from '../../circuit/model';
import type { Reading, Setup, Test } from '../../circuit/schema';
import { mayTake } from '../../diagnosis/candidateTests';
import { workingPatterns } from '../../diagnosis/patterns';
import type { ShopMarks } from '../../tables/marks';
import { setApart } from '../../diagnosis/setApart';
import { heldAgainst } from '../heldAgainst';
import { mendings } from '../outputs/worth';
import { judgeOutputs, type OutputsAnswer, type OutputsSheet } from '../outputs/outputs';
import {
  cellOf,
  firstOpen,
  HEAD,
  nameOf,
  pickBetween,
  underCommand,
  volts,
  type JobSheet,
  type SheetCell,
  type SheetRow,
} from './jobSheet';

/** Every output by itself commanded, and all of them measured. */
export function outputsSheetOf(
  model: CircuitModel,
  readings: readonly Reading[],
  marks: ShopMarks,
): JobSheet | null {
  const { compiled } = model;
  const frame = nameOf(model, compiled.frame);
  const drivers = compiled.parts.filter(({ part }) => part.kind === 'driver');
  if (drivers.length < 2) return null;
  const outs = drivers.map(({ part }) => ({
    ref: part.ref,
    node: (part as { nodes: { out: string } }).nodes.out,
    high: !('side' in part) || part.side !== 'low',
  }));
  const patterns = workingPatterns(model).map((pattern) => ({
    ...pattern,
    on: outs.filter(({ ref }) => isOn(model, ref, pattern.setup)).map(({ ref }) => ref),
  }));
  const matrix: Record<string, Record<string, number>> = {};
  const lines = outs.map((own) => {
    const { ref } = own;
    const pattern = patterns.find(({ on }) => on.length === 1 && on[0] === ref);
    const commanded = underCommand(pattern?.setup ?? {});
    const cells = outs.map((one) =>
      pattern ? cellOf(model, pickBetween(model, 'volts', [one.node, frame], commanded), readings) : null,
    );
    cells.forEach((cell, k) => {
      const value = volts(cell);
      if (value === undefined) return;
      (matrix[ref] ??= {})[outs[k]!.ref] = acrossLoad(model, outs[k]!, value);
    });
    return {
      ref,
      cells,
      loadOff: pattern ? cellOf(model, aloneTest(model, own, pattern.setup), readings) : null,
    };
  });
  const names = outs.map(({ ref }) => ref);
  const document = {
    ...HEAD,
    sheet: 'outputs',
    outputs: names,
    master: undefined,
    modules: undefined,
    supplyVolts: Math.max(...outs.map(({ node }) => compiled.volts[compiled.nodeIndex.get(node)!]!), 1),
    loads: 'on',
    matrix,
    lowImpedance: undefined,
    sensorLoop: 'closed',
  } satisfies OutputsSheet;
  const { answer, wanted } = withLoadOff(
    model,
    judgeOutputs(document, marks),
    document.supplyVolts,
    lines,
    outs,
    marks,
  );
  const rows = lines.map(({ ref, cells, loadOff }): SheetRow => {
    const held = answer.findings.some((one) => one.code === 'heldDown' && one['output'] === ref);
    return {
      name: ref,
      cells: [...cells, loadOff],
      verdict: held ? 'heldDown' : answer.of.includes(ref) ? 'bad' : null,
    };
  });
  const { next } = answer;
  const asked =
    next && 'commanded' in next
      ? ([names.indexOf(next.commanded), names.indexOf(next.measured)] as [number, number])
      : null;
  const open = asked && rows[asked[0]]?.cells[asked[1]]?.value === null ? asked : null;
  const settled = answer.cause !== null || rows.some(({ verdict }) => verdict !== null);
  return {
    name: 'outputs',
    columns: [...names, 'loadOff'],
    rows,
    next: wanted >= 0 ? [wanted, names.length] : settled ? null : (open ?? firstOpenOf(rows, names.length)),
    answers: [answer],
    held: heldAgainst(document, answer, marks),
  };
}

interface Out {
  ref: string;
  node: string;
  high: boolean;
}
interface Line {
  ref: string;
  cells: (SheetCell | null)[];
  loadOff: SheetCell | null;
}

/** What a low-side output does shows across its load: the supply less what stands at the output. */
function acrossLoad({ compiled }: CircuitModel, { node, high }: Out, value: number): number {
  const supply = Math.max(compiled.volts[compiled.nodeIndex.get(node)!]!, 1);
  return high ? value : Math.max(supply - value, 0);
}

/** An output under its command with everything that hangs on it off, so that nothing can hold it down; null where that may not be read. */
function aloneTest(model: CircuitModel, { ref, node }: Out, setup: Setup): Test | null {
  const { compiled } = model;
  const apart = setApart(model, ref, [compiled.nodeIndex.get(node)!]);
  const to = nameOf(model, compiled.frame);
  return apart && mayTake(model, { kind: 'volts', from: node, to, setup: { ...setup, ...apart } });
}

/** An output without its load gives at least this share of its supply, or it gives nothing. */
const GIVES_SHARE = 0.7;

/**
 * A dead output once more, with its load off: what gives then was held down by what hangs on it, and what still gives nothing is dead
 * whatever hangs there. `wanted` is the row whose load comes off next; below 0 for none.
 */
function withLoadOff(
  model: CircuitModel,
  answer: OutputsAnswer,
  supplyVolts: number,
  lines: readonly Line[],
  outs: readonly Out[],
  marks: ShopMarks,
): { answer: OutputsAnswer; wanted: number } {
  const [dead] = answer.of;
  const at =
    answer.cause === 'deadOutput' && dead !== undefined ? lines.findIndex(({ ref }) => ref === dead) : -1;
  const loadOff = lines[at]?.loadOff;
  // Only a high side stands at its own volts without a load; a low side then floats, and says nothing.
  if (!loadOff || !outs[at]!.high) return { answer, wanted: -1 };
  const value = volts(loadOff);
  if (value === undefined) return { answer, wanted: at };
  if (acrossLoad(model, outs[at]!, value) < GIVES_SHARE * supplyVolts)
    return {
      answer: {
        ...answer,
        findings: answer.findings.filter(({ code }) => code !== 'loadMayHold'),
        mend: mendings(answer.cause, marks),
      },
      wanted: -1,
    };
  const findings: OutputsAnswer['findings'] = [{ code: 'heldDown', output: dead }];
  return {
    answer: { ...answer, cause: null, of: [], share: null, findings, mend: [], next: null },
    wanted: -1,
  };
}

/** The first open cell of the matrix itself. */
function firstOpenOf(rows: readonly SheetRow[], columns: number): JobSheet['next'] {
  return firstOpen(rows.map((row) => ({ ...row, cells: row.cells.slice(0, columns) })));
}

function isOn({ compiled }: CircuitModel, ref: string, { controls = {} }: Setup): boolean {
  const { part } = compiled.parts[compiled.partIndex.get(ref)!]!;
  if (part.kind !== 'driver') return false;
  return Object.entries(part.onWhen ?? {}).every(([control, positions]) =>
    positions.includes(controls[control] ?? compiled.circuit.controls[control]![0]!),
  );
}
