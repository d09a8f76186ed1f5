import type { CompiledPart } from '../circuit/compile';
import type { Edit } from '../circuit/edits';
import type { CircuitModel } from '../circuit/model';
import { PART_KINDS } from '../kinds/part/index';
import type { AddFault, FaultVariant, SeverityRange } from './faultTypes';

/** Faults between two parts: wires of a bundle that touch, plugs in each other's place. */
export function addPairFaults(model: CircuitModel, add: AddFault, leaveOut: (count: number) => void): void {
  addBundleShorts(model, add, leaveOut);
  addSwappedConnectors(model, add, leaveOut);
}

/** Neighbours looked at in a thick bundle, and plugs that might be mistaken for each other: near ones first. */
const MOST_BUNDLE_SHORTS = 160;
const MOST_SWAPPED = 12;

/** Pairs of a list, near neighbours first, at most so many; how many more there were goes to `leaveOut`. */
function nearPairs<T>(
  list: readonly T[],
  fits: (one: T, two: T) => boolean,
  most: number,
  leaveOut: (count: number) => void,
): [T, T][] {
  const pairs: [T, T][] = [];
  for (let apart = 1; apart < list.length; apart++) {
    for (let at = 0; at + apart < list.length; at++) {
      const [one, two] = [list[at]!, list[at + apart]!];
      if (fits(one, two)) pairs.push([one, two]);
    }
  }
  leaveOut(Math.max(0, pairs.length - most));
  return pairs.slice(0, most);
}

function addBundleShorts(model: CircuitModel, add: AddFault, leaveOut: (count: number) => void): void {
  const wires = model.compiled.parts.filter(({ part }) => part.kind === 'wire' && part.bundle !== undefined);
  const beside = (one: CompiledPart, two: CompiledPart) => {
    if (one.part.kind !== 'wire' || two.part.kind !== 'wire' || one.part.bundle !== two.part.bundle)
      return false;
    const [from, to] = [one.branches[0]!, two.branches[0]!];
    return ![from.a, from.b].some((node) => node === to.a || node === to.b);
  };
  const range: SeverityRange = { unit: 'ohms', least: 0.01, most: 1e6, mainLeast: 0.01, mainMost: 100 };
  for (const [one, two] of nearPairs(wires, beside, MOST_BUNDLE_SHORTS, leaveOut)) {
    const [from, to] = [one, two].map(({ branches }) => ({ branch: branches[0]!.index, end: 'b' as const }));
    const bridge: FaultVariant = {
      weight: 1,
      edits: (ohms) => [{ type: 'bridge', from: from!, to: to!, ohms }],
    };
    add(one, 'shortBetween', PART_KINDS.wire.odds.shortBetween, range, [bridge], { other: two.part.ref });
  }
}

/** Connectors with the same number of pins and the same things on them can be plugged into each other's place: no bulkhead on a coil. */
function addSwappedConnectors(
  { compiled }: CircuitModel,
  add: AddFault,
  leaveOut: (count: number) => void,
): void {
  const plugs = compiled.connectors.map((connector) => ({
    connector,
    pins: compiled.parts.filter(({ part }) => part.kind === 'pin' && part.connector === connector),
  }));
  const hangs = new Map(plugs.map((plug) => [plug, hangingOn(compiled.parts, plug.pins)]));
  const alike = (one: (typeof plugs)[number], two: (typeof plugs)[number]) =>
    one.pins.length === two.pins.length && hangs.get(one) === hangs.get(two);
  for (const [ours, theirs] of nearPairs(plugs, alike, MOST_SWAPPED, leaveOut)) {
    const pairs = ours.pins.map(
      (pin, k) => [pin.branches[0]!.index, theirs.pins[k]!.branches[0]!.index] as const,
    );
    const crossed: Edit[] = [{ type: 'cross', pairs }];
    add(ours.pins[0]!, 'swapped', PART_KINDS.pin.odds.swapped, null, [{ weight: 1, edits: () => crossed }], {
      other: theirs.connector,
    });
  }
}

/** Kinds of what is joined to a plug without a wire between. */
function hangingOn(parts: readonly CompiledPart[], pins: readonly CompiledPart[]): string {
  const ends = new Set(pins.flatMap(({ nodes }) => nodes));
  const kinds = parts
    .filter(
      ({ part, nodes }) =>
        part.kind !== 'pin' && part.kind !== 'wire' && nodes.some((node) => ends.has(node)),
    )
    .map(({ part }) => part.kind);
  return [...new Set(kinds)].sort().join();
}
