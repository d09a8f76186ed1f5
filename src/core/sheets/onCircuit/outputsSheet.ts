import type { CircuitModel } from '../../circuit/model';
import type { Reading, Setup } from '../../circuit/schema';
import { workingPatterns } from '../../diagnosis/patterns';
import { MENDING_ROWS, type ShopMarks } from '../../tables/marks';
import { rowOf } from '../heldAgainst';
import { judgeOutputs } from '../outputs/outputs';
import {
  cellOf,
  firstOpen,
  HEAD,
  nameOf,
  pickBetween,
  underCommand,
  volts,
  type JobSheet,
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
  const rows: SheetRow[] = [];
  const matrix: Record<string, Record<string, number>> = {};
  for (const { ref } of outs) {
    const pattern = patterns.find(({ on }) => on.length === 1 && on[0] === ref);
    const commanded = underCommand(pattern?.setup ?? {});
    const cells = outs.map(({ node }) =>
      pattern ? cellOf(model, pickBetween(model, 'volts', [node, frame], commanded), readings) : null,
    );
    rows.push({ name: ref, cells, verdict: null });
    cells.forEach((cell, at) => {
      const value = volts(cell);
      if (value === undefined) return;
      const [here, supply] = [
        outs[at]!,
        Math.max(compiled.volts[compiled.nodeIndex.get(outs[at]!.node)!]!, 1),
      ];
      // What a low-side output does shows across its load: the supply less what stands at the output.
      (matrix[ref] ??= {})[here.ref] = here.high ? value : Math.max(supply - value, 0);
    });
  }
  const names = outs.map(({ ref }) => ref);
  const answer = judgeOutputs(
    {
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
    },
    marks,
  );
  for (const row of rows) row.verdict = answer.of.includes(row.name) ? 'bad' : null;
  const { next } = answer;
  const asked =
    next && 'commanded' in next
      ? ([names.indexOf(next.commanded), names.indexOf(next.measured)] as [number, number])
      : null;
  const open = asked && rows[asked[0]]?.cells[asked[1]]?.value === null ? asked : null;
  return {
    name: 'outputs',
    columns: names,
    rows,
    next: answer.cause ? null : (open ?? firstOpen(rows)),
    answers: [answer],
    held: answer.mend.map(({ way }) => rowOf('controller-parts', MENDING_ROWS[way], marks)),
  };
}

function isOn({ compiled }: CircuitModel, ref: string, { controls = {} }: Setup): boolean {
  const { part } = compiled.parts[compiled.partIndex.get(ref)!]!;
  if (part.kind !== 'driver') return false;
  return Object.entries(part.onWhen ?? {}).every(([control, positions]) =>
    positions.includes(controls[control] ?? compiled.circuit.controls[control]![0]!),
  );
}
