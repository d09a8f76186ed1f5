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
    alike(a.ohms, b.ohms) &&
    a.henries === b.henries &&
    a.va === b.va &&
    a.sealedAmps === b.sealedAmps
  );
}

/** Two that nobody knows are alike as far as anybody knows. */
function alike(one: number | undefined, other: number | undefined): boolean {
  if (one === undefined || other === undefined) return one === other;
  return Math.abs(other / one - 1) <= TWIN_TOLERANCE;
}

/** Twins that stand after a part in its circuit, so that each pair is met once. */
export function twinsOf({ compiled }: CircuitModel, part: CompiledPart): CompiledPart[] {
  return compiled.parts
    .filter((other) => other.index > part.index && areTwins(part, other))
    .slice(0, MOST_TWINS);
}
