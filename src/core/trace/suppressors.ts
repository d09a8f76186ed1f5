import type { Branch, CompiledCircuit } from '../circuit/compile';
import type { Edit } from '../circuit/edits';

/** What a coil's current may run on through when it is switched off: diodes and resistors across it. */
export function suppressorsOf({ branches, parts }: CompiledCircuit, { index, a, b }: Branch): Branch[] {
  return branches.filter((other) => {
    const { kind } = parts[other.part]!.part;
    const across = (other.a === a && other.b === b) || (other.a === b && other.b === a);
    return other.index !== index && across && (kind === 'diode' || kind === 'resistor');
  });
}

/** Whether a fault takes a piece out of the circuit. */
export function takesOut(edit: Edit, branch: number): boolean {
  if (edit.type === 'force') return edit.branch === branch && !edit.on;
  return edit.type === 'ohms' && edit.branch === branch && !Number.isFinite(edit.ohms);
}
