import type { CompiledPart } from '../circuit/compile';
import type { Edit } from '../circuit/edits';
import type { CircuitModel } from '../circuit/model';
import type { Part } from '../circuit/schema';
import { PART_KINDS } from '../kinds/part/index';
import { FAINTEST_LEAK_OHMS } from './faultRanges';
import type { AddFault, FaultVariant, SeverityRange } from './faultTypes';

/** Faults of more than one part: wires of a bundle that touch, a wire on a live feed, plugs or pins in each other's place, a dead block of outputs. */
export function addPairFaults(model: CircuitModel, add: AddFault, leaveOut: (count: number) => void): void {
  addBundleShorts(model, add, leaveOut);
  addLiveFeeds(model, add);
  addSwappedConnectors(model, add, leaveOut);
  addCrossedPins(model, add, leaveOut);
  addDeadBlocks(model, add);
}

/** Neighbours looked at in a thick bundle, and plugs that might be mistaken for each other: near ones first. */
const MOST_BUNDLE_SHORTS = 160;
const MOST_SWAPPED = 12;
const MOST_CROSSED = 40;

/** Nearer than this to a supply or the frame, a wire hangs on it. */
const HANGS_ON_OHMS = 0.3;
/** Parts that work either way round. */
const WITHOUT_DIRECTION: readonly Part['kind'][] = ['coil', 'heater', 'lamp', 'resistor'];

/** Pairs of a list, near neighbours first, at most so many; how many more there were goes to `leaveOut`. */
export function nearPairs<T>(
  list: readonly T[],
  fits: (one: T, two: T) => boolean,
  most: number,
  leaveOut: (count: number) => void = () => undefined,
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

/** Two wires of one bundle that have no place in common. */
export function runBeside(one: CompiledPart, two: CompiledPart): boolean {
  if (one.part.kind !== 'wire' || two.part.kind !== 'wire') return false;
  if (one.part.bundle === undefined || one.part.bundle !== two.part.bundle) return false;
  const [from, to] = [one.branches[0]!, two.branches[0]!];
  return ![from.a, from.b].some((node) => node === to.a || node === to.b);
}

/** Up to where an insulation tester still finds it; what changes the function is far below. */
const BETWEEN_WIRES: SeverityRange = {
  unit: 'ohms',
  least: 0.01,
  most: FAINTEST_LEAK_OHMS,
  mainLeast: 0.01,
  mainMost: 100,
};

function addBundleShorts(model: CircuitModel, add: AddFault, leaveOut: (count: number) => void): void {
  const wires = model.compiled.parts.filter(({ part }) => part.kind === 'wire' && part.bundle !== undefined);
  for (const [one, two] of nearPairs(wires, runBeside, MOST_BUNDLE_SHORTS, leaveOut)) {
    const [from, to] = [one, two].map(({ branches }) => ({ branch: branches[0]!.index, end: 'b' as const }));
    const bridge: FaultVariant = {
      weight: 1,
      edits: (ohms) => [{ type: 'bridge', from: from!, to: to!, ohms }],
    };
    add(one, 'shortBetween', PART_KINDS.wire.odds.shortBetween, BETWEEN_WIRES, [bridge], {
      other: two.part.ref,
    });
  }
}

/** A wire of a vehicle that touches a live feed, from whatever loom: of one that hangs on the battery at rest nobody would notice. */
function addLiveFeeds(model: CircuitModel, add: AddFault): void {
  const { compiled } = model;
  const battery = compiled.parts.find(({ part }) => part.kind === 'source' && !part.hz);
  if (!battery) return;
  const plus = battery.branches[0]!.a;
  // With the battery off its terminal the feed is still there: what is touched is whatever else hangs on it.
  const feed = compiled.branches.find(
    ({ a, b, part }) => part !== battery.index && (a === plus || b === plus),
  );
  if (!feed) return;
  const rest = model.situation({}).solve({ mode: 'ohms' });
  for (const wire of compiled.parts) {
    const own = wire.branches[0]!;
    if (wire.part.kind !== 'wire' || rest.changed.pairOhms(own.b, plus) < HANGS_ON_OHMS) continue;
    if (own.b === compiled.frame || rest.changed.pairOhms(own.b, compiled.frame) < HANGS_ON_OHMS) continue;
    const touching: FaultVariant = {
      weight: 1,
      edits: (ohms) => [
        {
          type: 'bridge',
          from: { branch: own.index, end: 'b' },
          to: { branch: feed.index, end: feed.a === plus ? 'a' : 'b' },
          ohms,
        },
      ],
    };
    add(wire, 'shortToSupply', PART_KINDS.wire.odds.shortToSupply, BETWEEN_WIRES, [touching], {
      other: battery.part.ref,
    });
  }
}

/** Two pins of one plug in each other's place, neighbours first; not those of a winding alone, which does not mind. */
function addCrossedPins({ compiled }: CircuitModel, add: AddFault, leaveOut: (count: number) => void): void {
  const pins = compiled.parts.filter(({ part }) => part.kind === 'pin');
  const inOnePlug = (one: CompiledPart, two: CompiledPart) => {
    if (one.part.kind !== 'pin' || two.part.kind !== 'pin' || one.part.connector !== two.part.connector)
      return false;
    const turned = standTurned(compiled.parts, one, two);
    return (['a', 'b'] as const).every((end) => {
      const [own, other] = [one.branches[0]![end], two.branches[0]![opposite(end, turned)]];
      return !endsInOneWinding(compiled.parts, own, other);
    });
  };
  for (const [one, two] of nearPairs(pins, inOnePlug, MOST_CROSSED, leaveOut)) {
    const end = opposite('b', standTurned(compiled.parts, one, two));
    const pair = [
      { branch: one.branches[0]!.index, end: 'b' },
      { branch: two.branches[0]!.index, end },
    ] as const;
    const crossed: Edit[] = [{ type: 'cross', pairs: [pair] }];
    add(one, 'crossedPins', PART_KINDS.pin.odds.crossedPins, null, [{ weight: 1, edits: () => crossed }], {
      other: two.part.ref,
    });
  }
}

/** Outputs that share their supply and return: the controller's block behind them gives nothing on any. */
function addDeadBlocks({ compiled }: CircuitModel, add: AddFault): void {
  const blocks = new Map<string, CompiledPart[]>();
  for (const one of compiled.parts) {
    if (one.part.kind !== 'driver') continue;
    const { supply, return: back } = one.part.nodes;
    const key = JSON.stringify([supply, back, one.part.side ?? 'high']);
    blocks.set(key, [...(blocks.get(key) ?? []), one]);
  }
  for (const outputs of blocks.values()) {
    const [first, second] = outputs;
    if (!first || !second) continue;
    const dead: Edit[] = outputs.map(({ branches }) => ({
      type: 'force',
      branch: branches[0]!.index,
      on: false,
    }));
    add(first, 'blockDead', PART_KINDS.driver.odds.blockDead, null, [{ weight: 1, edits: () => dead }], {
      other: second.part.ref,
    });
  }
}

function opposite(end: 'a' | 'b', turned: boolean): 'a' | 'b' {
  return turned === (end === 'a') ? 'b' : 'a';
}

/** Whether two pins of one plug are drawn in opposite directions: what is fed over one comes home over the other. */
function standTurned(parts: readonly CompiledPart[], one: CompiledPart, two: CompiledPart): boolean {
  const [own, other] = [one.branches[0]!, two.branches[0]!];
  const joined = (from: number, to: number) =>
    parts.some(({ part, nodes }) => part.kind !== 'pin' && nodes.includes(from) && nodes.includes(to));
  return (
    (joined(own.b, other.a) || joined(own.a, other.b)) && !joined(own.a, other.a) && !joined(own.b, other.b)
  );
}

/** Whether nothing but one part without a direction hangs between two places. */
function endsInOneWinding(parts: readonly CompiledPart[], one: number, two: number): boolean {
  const touching = parts.filter(
    ({ part, nodes }) => part.kind !== 'pin' && (nodes.includes(one) || nodes.includes(two)),
  );
  return (
    one === two ||
    (touching.length === 1 &&
      WITHOUT_DIRECTION.includes(touching[0]!.part.kind) &&
      touching[0]!.nodes.length === 2)
  );
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
    const far = ({ branches }: CompiledPart) => ({ branch: branches[0]!.index, end: 'b' }) as const;
    const pairs = ours.pins.map((pin, k) => [far(pin), far(theirs.pins[k]!)] as const);
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
