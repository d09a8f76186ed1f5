import type { CircuitModel } from '../circuit/model';
import { kindOf } from '../kinds/part/index';
import { readingKind } from '../kinds/reading/index';
import { controlPositions } from '../circuit/situation';
import { SUPPLY_ENERGIES, type SupplyEnergy } from '../circuit/energies';
import type { Part, Preferences, Setup, Test } from '../circuit/schema';
import { electricalSupplies, suppliesNeeded } from '../safety/suppliesNeeded';
import { isDeadKind, nodesOfTest, partOfTest } from '../circuit/testPlace';

/** Minutes that each change of a set-up costs. */
const CHANGE_MINUTES = {
  pulled: 0.5,
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
/** What is there for a moment only takes a second person at the control, a meter that holds its peak, and often a second try. */
const MOMENT_MINUTES = 1.5;

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
  const meter = readingKind(test.kind).shows.is === 'figure' && test.setup.afterSeconds !== undefined;
  const read = readingKind(test.kind).minutes + (meter ? MOMENT_MINUTES : 0);
  const nodes = nodesOfTest(test);
  if (nodes.length > 0) {
    return nodes.reduce((sum, name) => sum + access[compiled.nodeIndex.get(name)!]!, read);
  }
  const ref = partOfTest(test)!;
  return test.kind === 'amps'
    ? read + accessMinutes(compiled.parts[compiled.partIndex.get(ref)!]!.part)
    : read;
}

/**
 * Minutes to lock, tag and prove a supply dead, and to put it on again: rules of thumb, a shop's own stand over the first. A line
 * supply takes 5 to 10 with its live-dead-live proof.
 */
const LOCK_MINUTES: Readonly<Record<SupplyEnergy, { lock: number; open: number }>> = {
  line: { lock: 7, open: 2.5 },
  control: { lock: 4, open: 1.5 },
  battery: { lock: 1, open: 0.5 },
  air: { lock: 1.5, open: 0.5 },
  oil: { lock: 3, open: 1 },
  vacuum: { lock: 1.5, open: 0.5 },
  // Its valves are shut, and opened, by somebody licensed.
  refrigerant: { lock: 10, open: 5 },
};

/** What has to be locked, and what put on again, before a test may be taken. */
export interface EnergyChange {
  lock: string[];
  open: string[];
}

/** What stands between the supplies as they are now and a test: nothing that it does not need is opened for it. */
export function energyChange(model: CircuitModel, locked: ReadonlySet<string>, test: Test): EnergyChange {
  if (isDeadKind(test.kind)) {
    return {
      lock: electricalSupplies(model).filter((ref) => !locked.has(ref)),
      open: suppliesNeeded(model, test).filter((ref) => locked.has(ref)),
    };
  }
  return {
    lock: (test.setup.isolated ?? []).filter((ref) => !locked.has(ref)),
    open: suppliesNeeded(model, test).filter((ref) => locked.has(ref)),
  };
}

/** Minutes that the supplies cost before a test, each counted once. */
export function energyMinutes(
  { compiled }: CircuitModel,
  { lock, open }: EnergyChange,
  own: Preferences['lockMinutes'] = {},
): number {
  const energyOf = (ref: string): SupplyEnergy => {
    const { part } = compiled.parts[compiled.partIndex.get(ref)!]!;
    const energy = kindOf(part).energy(part);
    const found = SUPPLY_ENERGIES.find((one) => one === energy);
    if (!found) throw new Error(`${ref} brings ${energy ?? 'no energy'}: nothing that a supply is`);
    return found;
  };
  const sum = (refs: readonly string[], minutes: (energy: SupplyEnergy) => number) =>
    refs.reduce((total, ref) => total + minutes(energyOf(ref)), 0);
  return (
    sum(lock, (energy) => own[energy] ?? LOCK_MINUTES[energy].lock) +
    sum(open, (energy) => LOCK_MINUTES[energy].open)
  );
}

/** Minutes to bring the machine from one set-up to another, its supplies aside. */
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
