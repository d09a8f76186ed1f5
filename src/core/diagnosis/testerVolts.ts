import type { CompiledCircuit } from '../circuit/compile';
import type { CircuitModel } from '../circuit/model';
import { areLineVolts } from '../safety/lineVolts';

/** Insulation test volts for circuits up to, and above, extra-low voltage (reference section 16). */
const TESTER_VOLTS = { low: 250, line: 500 };

/**
 * Insulation test volts for the circuit that a node belongs to, by the highest volts it ever stands at: 24 V wiring beside a
 * line supply is 24 V wiring. A circuit whose volts nobody knows is tested with the lower of the two.
 */
export function testerVolts(model: CircuitModel, nodes: readonly string[]): number {
  return areLineVolts(ownVolts(model, nodes)) ? TESTER_VOLTS.line : TESTER_VOLTS.low;
}

/** Highest volts to the frame of the circuit that some nodes belong to, on the sound machine; 0 where it has none of its own. */
export function ownVolts(model: CircuitModel, nodes: readonly string[]): number {
  const { compiled } = model;
  const group = groupsOf(compiled);
  const own = new Set(
    nodes
      .map((name) => compiled.nodeIndex.get(name))
      .filter((node): node is number => node !== undefined && node !== compiled.frame)
      .map((node) => group[node]!),
  );
  return compiled.nodeNames.reduce(
    (top, _name, node) =>
      node !== compiled.frame && own.has(group[node]!) ? Math.max(top, model.peakVolts(node) ?? 0) : top,
    0,
  );
}

const groups = new WeakMap<CompiledCircuit, Int32Array>();

/** By node: number of the circuit it belongs to; circuits meet only at the frame, across a transformer or within a relay. */
function groupsOf(compiled: CompiledCircuit): Int32Array {
  const known = groups.get(compiled);
  if (known) return known;
  const group = Int32Array.from({ length: compiled.nodeNames.length }, (_one, at) => at);
  const find = (at: number): number => (group[at] === at ? at : (group[at] = find(group[at]!)));
  for (const { a, b, domain } of compiled.branches) {
    if (domain === 'electrical' && a !== compiled.frame && b !== compiled.frame) group[find(a)] = find(b);
  }
  const found = group.map((_one, at) => find(at));
  groups.set(compiled, found);
  return found;
}
