import { demoCircuit } from '@/testing/demoCircuits';
import { CircuitModel } from '../../circuit/model';
import type { Edit } from '../../circuit/edits';
import { faultByName, listFaults } from '../../diagnosis/faults';
import type { Trace } from '../../trace/trace';
import { timeCircuit } from '../../transient/ofCircuit';
import { runInTime } from '../../transient/run';
import type { JobSheet } from './jobSheet';
import { timelineSheetOf, type TimelineAnswer } from './timelineSheet';
import { pacedMoments, readAlong } from './tracedWire';

const model = new CircuitModel(demoCircuit('tractor-blower-stop'));
const sheet = timelineSheetOf(model, [])!;
const { moments } = sheet.answers[0] as TimelineAnswer;
const paced = pacedMoments(model, moments, 3);

/** A wire's volts while the sequence is run through at its pace, as the circuit in time has them. */
function recorded(node: string, edits: readonly Edit[] = []): Trace {
  const turns = paced.flatMap(({ turnSeconds }, k) =>
    turnSeconds === null && k > 0
      ? []
      : [{ seconds: turnSeconds ?? 0, setup: { controls: moments[k]!.setup.controls } }],
  );
  const { nodes, elements, nodeOf } = timeCircuit(model, turns as never, edits);
  const end = Math.max(...paced.map(({ to }) => to)) + 1;
  const { seconds, volts } = runInTime(nodes, elements, end, { tolerance: 1e-3, mostStep: 0.02 });
  return { seconds: [...seconds], values: [...volts[nodeOf(model.compiled.nodeIndex.get(node)!)]!] };
}
const rowOf = ({ rows }: JobSheet, node: string) => rows.find(({ name }) => name === node)!;

describe('a wire that is recorded through its sequence', () => {
  it('is turned step by step, and waits for what runs out by itself', () => {
    const turned = paced.filter(({ turnSeconds }) => turnSeconds !== null);
    expect(turned[0]!.turnSeconds).toBe(3);
    turned
      .slice(1)
      .forEach(({ turnSeconds }, k) => expect(turnSeconds!).toBeGreaterThan(turned[k]!.turnSeconds!));
    const timer = model.compiled.circuit.parts.find(({ kind }) => kind === 'timer')!;
    const atOnce = paced[moments.findIndex((one) => one.atOnce)]!;
    const after = paced[moments.findIndex((one) => one.atOnce) + 1]!;
    expect(atOnce.to - atOnce.turnSeconds!).toBeLessThan((timer as { seconds: number }).seconds);
    expect(after.from - atOnce.turnSeconds!).toBeGreaterThan((timer as { seconds: number }).seconds);
    expect(after.turnSeconds).toBeNull();
  });

  it.each(['Y5:P', 'Y5:H'])('sound, %s carries at each moment what the sheet expects', (node) => {
    const row = sheet.rows.find(({ name }) => name === node) ?? sheet.rows.at(-1)!;
    const values = readAlong(recorded(row.name), paced);
    row.cells.forEach((cell, k) => expect(Math.abs(values[k]! - Number(cell!.expected))).toBeLessThan(0.4));
    // Somewhere on the way it is live, and at rest it is not.
    expect(Math.max(...values)).toBeGreaterThan(8);
    expect(Math.abs(values[0]!)).toBeLessThan(0.5);
  });

  it('shows the first difference once it is laid into its row', () => {
    const { fault, severity } = faultByName(listFaults(model), 'K3T', 'stuckClosed');
    const row = rowOf(sheet, sheet.rows.find(({ name }) => name.includes('P'))!.name);
    const values = readAlong(recorded(row.name, fault.variants[0]!.edits(severity)), paced);
    const readings = row.cells.map((cell, k) => ({ ...cell!.test, value: values[k]! }) as never);
    const { first } = timelineSheetOf(model, readings)!.answers[0] as TimelineAnswer;
    // The pull-in stays live where the timer should have ended it.
    expect(first).toMatchObject({ column: moments.findIndex((one) => one.atOnce) + 1 });
  });

  it('is refused where it ends too early, or has no points on the way', () => {
    const whole = recorded('B+');
    const half = { seconds: whole.seconds.filter((t) => t < 4), values: whole.values };
    expect(() => readAlong(half, paced)).toThrow(/lasts .* s where the sequence takes .* at rest again/);
    const [last] = [whole.seconds.at(-1)!];
    expect(() => readAlong({ seconds: [0, last], values: [0, 0] }, paced)).toThrow(
      /has no point at moment 1/,
    );
  });
});
