import type { CompiledPart } from '../circuit/compile';
import type { CircuitModel } from '../circuit/model';

/** How alike two parts must be to stand in for each other, relative. */
const TWIN_TOLERANCE = 0.05;
const MOST_TWINS = 2;

/** Identical neighbours: one can be tried in the other's place, and should read the same. */
export function areTwins(one: CompiledPart, other: CompiledPart): boolean {
  const [a, b] = [one.part, other.part];
  if ((a.kind !== 'coil' && a.kind !== 'relay') || (b.kind !== 'coil' && b.kind !== 'relay')) return false;
  return (
    a.kind === b.kind &&
    one.branches.length === other.branches.length &&
    Math.abs(b.ohms / a.ohms - 1) <= TWIN_TOLERANCE &&
    a.henries === b.henries
  );
}

/** Twins that stand after a part in its circuit, so that each pair is met once. */
export function twinsOf({ compiled }: CircuitModel, part: CompiledPart): CompiledPart[] {
  return compiled.parts
    .filter((other) => other.index > part.index && areTwins(part, other))
    .slice(0, MOST_TWINS);
}
