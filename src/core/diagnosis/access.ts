import type { CircuitModel } from '../circuit/model';
import { kindOf } from '../kinds/part/index';
import { readingKind } from '../kinds/reading/index';
import { controlPositions } from '../circuit/situation';
import type { Part, Setup, Test } from '../circuit/schema';
import { nodesOfTest, partOfTest } from '../circuit/testPlace';

/** Minutes that each change of a set-up costs. */
const CHANGE_MINUTES = {
  pulled: 0.5,
  isolated: 0.7,
  unplugged: 1.2,
  removed: 2.5,
  lifted: 2,
  jumpers: 1,
  energised: 1.5,
  override: 0.3,
  plugged: 0.4,
  open: 1.5,
  secured: 3,
  swapped: 4,
} as const;
/** A control held away from rest takes a hand, or a second person, for as long as the reading lasts. */
const HELD_MINUTES = 0.12;
const MOVED_MINUTES = 0.05;
const FRAME_MINUTES = 0.2;

export function accessMinutes(part: Part): number {
  return part.accessMinutes ?? kindOf(part).accessMinutes;
}

/** Minutes to get at each node: the easiest of the parts on it. */
export function nodeAccess({ compiled }: CircuitModel): Float64Array {
  const minutes = new Float64Array(compiled.nodeNames.length).fill(Infinity);
  for (const { part, nodes } of compiled.parts) {
    for (const node of nodes) minutes[node] = Math.min(minutes[node]!, accessMinutes(part));
  }
  minutes[compiled.frame] = FRAME_MINUTES;
  return minutes;
}

/** Minutes to reach a test's points and read, in the set-up it wants. */
export function testMinutes({ compiled }: CircuitModel, test: Test, access: Float64Array): number {
  const read = readingKind(test.kind).minutes;
  const nodes = nodesOfTest(test);
  if (nodes.length > 0) {
    return nodes.reduce((sum, name) => sum + access[compiled.nodeIndex.get(name)!]!, read);
  }
  const ref = partOfTest(test)!;
  return test.kind === 'amps'
    ? read + accessMinutes(compiled.parts[compiled.partIndex.get(ref)!]!.part)
    : read;
}

/** Minutes to bring the machine from one set-up to another. */
export function setupMinutes(model: CircuitModel, from: Setup, to: Setup): number {
  const [before, after] = [controlPositions(model.compiled, from), controlPositions(model.compiled, to)];
  let minutes = 0;
  for (const [control, position] of after) {
    if (position !== model.compiled.circuit.controls[control]![0]) minutes += HELD_MINUTES;
    if (before.get(control) !== position) minutes += MOVED_MINUTES;
  }
  for (const [key, each] of Object.entries(CHANGE_MINUTES)) {
    const [a, b] = [entries(from, key), entries(to, key)];
    if (a.length === 0 && b.length === 0) continue;
    const changes = a.filter((one) => !b.includes(one)).length + b.filter((one) => !a.includes(one)).length;
    minutes += each * changes;
  }
  return minutes;
}

function entries(setup: Setup, key: string): readonly string[] {
  const list = setup[key as keyof typeof CHANGE_MINUTES] ?? [];
  return list.map((one) =>
    typeof one === 'string' ? one : Array.isArray(one) ? one.join('~') : `${one.part}@${one.node}`,
  );
}
