import type { Branch, CompiledPart } from '../circuit/compile';
import { partsOnNodes, type CircuitModel } from '../circuit/model';
import type { Test } from '../circuit/schema';
import { nodesOfTest } from '../circuit/testPlace';
import { kindOf } from '../kinds/part/index';

/** A piece of a part with both leads at its own ends. */
export interface Across {
  part: CompiledPart;
  /** The contact or winding; null for a unit with more than two ends. */
  branch: Branch | null;
}

/**
 * Parts whose own two ends a test's leads stand on: that contact's, that winding's. A relay whose coil ends at the frame does not lie
 * between its contact and the frame.
 */
export function partsAcross({ compiled }: CircuitModel, test: Test): Across[] {
  const [i, j] = nodesOfTest(test).map((name) => compiled.nodeIndex.get(name));
  if (i === undefined || j === undefined || i === j) return [];
  return compiled.parts.flatMap((part): Across[] => {
    const own = part.branches.filter(({ a, b }) => (a === i && b === j) || (a === j && b === i));
    if (own.length > 0) return own.map((branch) => ({ part, branch }));
    const unit = kindOf(part.part).traits.unit && part.nodes.includes(i) && part.nodes.includes(j);
    return unit ? [{ part, branch: null }] : [];
  });
}

/** Parts that share both ends of a part's first piece, such as the suppressor of a coil: what is read there is of all of them. */
export function partsBeside(model: CircuitModel, { part, branches }: CompiledPart): CompiledPart[] {
  const [own] = branches;
  if (!own || own.domain !== 'electrical') return [];
  const ends = [own.a, own.b];
  return partsOnNodes(model)[own.a]!.filter(
    (one) =>
      one.part.ref !== part.ref && one.branches.some(({ a, b }) => ends.includes(a) && ends.includes(b)),
  );
}

/**
 * The part whose wire a clamp goes round for the current of a load: the load itself, unless something shares both its ends, such
 * as the suppressor in its plug. Then every wire there is carries both: what feeds them in one piece is clamped, if anything does.
 */
export function clampedAt(model: CircuitModel, load: CompiledPart): string | null {
  const { ref } = load.part;
  const beside = partsBeside(model, load);
  if (beside.length === 0) return ref;
  const inside = new Set([ref, ...beside.map(({ part }) => part.ref)]);
  const { a, b } = load.branches[0]!;
  for (const end of [a, b]) {
    const others = partsOnNodes(model)[end]!.filter((one) => !inside.has(one.part.ref));
    const [only] = others;
    if (others.length === 1 && only && only.part.kind !== 'relay' && kindOf(only.part).traits.carries)
      return only.part.ref;
  }
  return null;
}
