import type { CompiledCircuit, CompiledPart } from '../circuit/compile';
import { oncePerModel, type CircuitModel } from '../circuit/model';
import { nodeGroups } from '../circuit/nodeGroups';
import type { Reading, Test } from '../circuit/schema';
import { isDeadKind, nodesOfTest, partOfTest } from '../circuit/testPlace';
import { branchAmps, deviceState, relayIn, type World } from '../circuit/world';
import { bindTest, predict } from '../diagnosis/predict';
import { kindOf } from '../kinds/part/index';

/** Readings nearer to each other than this are one. */
const SAME_SHARE = 0.01;
/** Current below which a valve's coil does nothing, amperes. */
const FED_AMPS = 1e-4;

/** References of everything that feeds the circuit: sources, air, pumps. */
export function suppliesOf(model: CircuitModel): string[] {
  return supplyParts(model).map(({ part }) => part.ref);
}

/**
 * Supplies that have to be on for a test on the running machine: those that its points hang on, those that hold in the relays and
 * valves between, and no others. A reading on a 24 V circuit does not ask for the line supply beside it, a gauge for no
 * electricity that moves no valve. For a dead test what keeps pressure on the contacts that it reads, and nothing electrical.
 */
export function suppliesNeeded(model: CircuitModel, test: Test): readonly string[] {
  // Asked for every candidate after every reading; it depends on neither.
  const known = needed.get(model) ?? new WeakMap<Test, readonly string[]>();
  needed.set(model, known);
  const found = known.get(test) ?? workOut(model, test);
  known.set(test, found);
  return found;
}

const needed = new WeakMap<CircuitModel, WeakMap<Test, readonly string[]>>();

function workOut(model: CircuitModel, test: Test): string[] {
  const dead = isDeadKind(test.kind);
  const { compiled } = model;
  const group = groupsOf(compiled);
  const wanted = new Set<number>();
  const want = (nodes: readonly number[]) => {
    for (const node of nodes) if (!isZero(compiled, node)) wanted.add(group[node]!);
  };
  want(nodesOfTest(test).map((name) => compiled.nodeIndex.get(name)!));
  const ref = partOfTest(test);
  if (ref !== null) {
    const part = compiled.parts[compiled.partIndex.get(ref)!]!;
    // A click is its coil's doing; what its contacts carry does not matter to it.
    want(test.kind === 'click' ? [part.branches[0]!.a, part.branches[0]!.b] : part.nodes);
  }
  const world = model.situation(test.setup).solve({ mode: dead ? 'ohms' : 'live' });
  for (let before = -1; before !== wanted.size;) {
    before = wanted.size;
    for (const part of drivenParts(model)) {
      if (part.branches.some(({ a, b }) => within(a) || within(b))) want(drivenBy(model, world, part));
    }
  }
  function within(node: number): boolean {
    return !isZero(compiled, node) && wanted.has(group[node]!);
  }
  const off = new Set(test.setup.isolated ?? []);
  const feeding = supplyParts(model)
    .filter(({ part, nodes }) => !off.has(part.ref) && nodes.some(within))
    .map(({ part }) => part.ref);
  if (!dead) return feeding;
  return feeding.filter(
    (one) =>
      kindOf(compiled.parts[compiled.partIndex.get(one)!]!.part).traits.fluid && reads(model, test, one),
  );
}

/** Whether a dead reading of the sound machine is another one with this supply off. */
function reads(model: CircuitModel, test: Test, ref: string): boolean {
  const without = { ...test.setup, isolated: [...(test.setup.isolated ?? []), ref] };
  const [on, off] = [test.setup, without].map((setup) => predict(bindTest(model, { ...test, setup }), []));
  if (on!.type !== 'number' || off!.type !== 'number') return false;
  return on!.mean !== off!.mean && !(Math.abs(on!.mean - off!.mean) < SAME_SHARE * Math.abs(on!.mean));
}

const supplyParts = oncePerModel(({ compiled }) =>
  compiled.parts.filter(({ part }) => kindOf(part).traits.supply),
);

/** Parts that {@link drivenBy} may say something of. */
const drivenParts = oncePerModel(({ compiled }) =>
  compiled.parts.filter(({ part: { kind } }) =>
    ['relay', 'valve', 'proportionalValve', 'pressureSwitch'].includes(kind),
  ),
);

/** Nodes of what holds a part in another state than at rest: a relay's coil, a valve's, the pressure at a switch. */
function drivenBy(
  { compiled }: CircuitModel,
  world: World,
  { index, part, branches, nodes }: CompiledPart,
): number[] {
  switch (part.kind) {
    case 'relay':
      return relayIn(world, index) ? [branches[0]!.a, branches[0]!.b] : [];
    case 'valve':
      return [part.coil, part.coil2].flatMap((ref) => {
        const coil = ref === undefined ? undefined : compiled.parts[compiled.partIndex.get(ref)!];
        const body = coil?.branches[0];
        return body && Math.abs(branchAmps(world, body.index)) > FED_AMPS ? [body.a, body.b] : [];
      });
    case 'proportionalValve':
      return Math.abs(branchAmps(world, branches[0]!.index)) > FED_AMPS ? nodes : [];
    case 'pressureSwitch':
      return deviceState(world, index) === 1 ? nodes : [];
    default:
      return [];
  }
}

function isZero({ frame, atmosphere }: CompiledCircuit, node: number): boolean {
  return node === frame || node === atmosphere;
}

const groups = new WeakMap<CompiledCircuit, Int32Array>();

/** By node: number of what hangs together, whatever position it stands in; a transformer joins both its sides. */
function groupsOf(compiled: CompiledCircuit): Int32Array {
  const known = groups.get(compiled);
  if (known) return known;
  const found = nodeGroups(compiled.nodeNames.length, (node) => isZero(compiled, node), [
    ...compiled.branches.map(({ a, b }) => [a, b]),
    ...compiled.transformers.map(({ primary, secondary }) => [...primary, ...secondary]),
  ]);
  groups.set(compiled, found);
  return found;
}

/** Supplies that stand locked after the last of some readings: all that are electrical after a dead one, else what it had off. */
export function lockedAfter(model: CircuitModel, readings: readonly Reading[]): string[] {
  const last = readings.at(-1);
  if (!last) return [];
  if (!isDeadKind(last.kind)) return last.setup.isolated ?? [];
  return electricalSupplies(model);
}

/** Supplies that a meter proves dead. */
export function electricalSupplies({ compiled }: CircuitModel): string[] {
  return compiled.circuit.parts.filter(({ kind }) => kind === 'source').map(({ ref }) => ref);
}
