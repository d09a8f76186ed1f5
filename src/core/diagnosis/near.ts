import { branchesOf } from '../circuit/edits';
import { partsOnNodes, type CircuitModel } from '../circuit/model';
import { leadEdits, type WeighedFault } from './weighed';

/** Where tests are looked for, by index of part and node. */
export interface Near {
  part: (part: number) => boolean;
  node: (node: number) => boolean;
}

export const EVERYWHERE: Near = { part: () => true, node: () => true };

/** Share of the doubt below which no test is looked for at a part, as long as others have more. */
const LEAST_DOUBT = 1e-3;
/** The same, of what the likeliest part has: where the doubt is spread thin none is left out. */
const LEAST_OF_BEST = 0.2;
/** Parts on a node up to which each of them lies beside the others; a stud or a bus joins everything. */
const FEW_PARTS = 4;

/** Parts that a test could still be about, by index; of a fault between two, or of wires exchanged, all that have to do with it. */
export function doubtedParts(
  { compiled }: CircuitModel,
  faults: readonly WeighedFault[],
): ReadonlySet<number> {
  const shares = new Float64Array(compiled.parts.length);
  let total = 0;
  for (const { fault, share, partner } of faults) {
    total += share;
    for (const { part } of partner && !partner.mended ? [fault, partner.fault] : [fault])
      shares[part] = shares[part]! + share;
  }
  const best = shares.reduce((top, share) => Math.max(top, share), 0);
  const least = Math.min(LEAST_DOUBT * total, LEAST_OF_BEST * best);
  const found = new Set(
    compiled.parts.flatMap(({ index }) => (best > 0 && shares[index]! >= least ? [index] : [])),
  );
  for (const weighed of faults) {
    if (weighed.share < least) continue;
    for (const edit of leadEdits(weighed))
      for (const branch of branchesOf(edit)) found.add(compiled.branches[branch]!.part);
    const other = compiled.partIndex.get(weighed.fault.other ?? '');
    if (other !== undefined) found.add(other);
  }
  return found;
}

/** What lies at the given parts or right beside them. */
export function nearOf(model: CircuitModel, parts: ReadonlySet<number>): Near {
  const on = partsOnNodes(model);
  const nodes = new Set([...parts].flatMap((part) => model.compiled.parts[part]!.nodes));
  const beside = new Set(parts);
  for (const node of nodes) {
    if (on[node]!.length <= FEW_PARTS) for (const { index } of on[node]!) beside.add(index);
  }
  return { part: (part) => beside.has(part), node: (node) => nodes.has(node) };
}
