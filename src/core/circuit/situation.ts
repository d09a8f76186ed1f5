import type { CompiledCircuit } from './compile';
import { InputError } from './inputError';
import type { Setup } from './schema';

/** Contact resistance of a test jumper, ohms. */
const JUMPER_OHMS = 0.02;

/** A circuit put into one set-up: where every branch ends and whether its control lets it conduct. */
export interface Situation {
  compiled: CompiledCircuit;
  setup: Setup;
  nodeCount: number;
  /** Nodes of each branch, with lifted ends moved to nodes of their own. */
  a: Int32Array;
  b: Int32Array;
  /** Resistance while conducting; differs from nominal only for sensor wipers. */
  ohms: Float64Array;
  /** In place: not pulled, unplugged, removed or isolated. */
  present: Uint8Array;
  /** Control wants it conducting. */
  commanded: Uint8Array;
  jumpers: { a: number; b: number; ohms: number }[];
  /** Relays held in by a bench supply or by hand, by part. */
  energised: ReadonlySet<number>;
}

/** Applies a set-up. Throws {@link InputError} for a name the circuit does not know. */
export function applySetup(compiled: CompiledCircuit, setup: Setup, field = 'setup'): Situation {
  const { circuit, branches } = compiled;
  const count = branches.length;
  const situation: Situation = {
    compiled,
    setup,
    nodeCount: compiled.nodeNames.length,
    a: Int32Array.from(branches, (branch) => branch.a),
    b: Int32Array.from(branches, (branch) => branch.b),
    ohms: Float64Array.from(branches, (branch) => branch.ohms),
    present: new Uint8Array(count).fill(1),
    commanded: new Uint8Array(count).fill(1),
    jumpers: [],
    energised: new Set(named(compiled, setup.energised, `${field}.energised`)),
  };
  const positions = controlPositions(compiled, setup, field);
  for (const branch of branches) {
    const { part } = compiled.parts[branch.part]!;
    if (part.kind === 'switch' || part.kind === 'driver' || part.kind === 'timer') {
      const conditions = part.kind === 'driver' ? part.onWhen : part.closedWhen;
      const matched = Object.entries(conditions).every(([control, ok]) =>
        ok.includes(positions.get(control)!),
      );
      const running = part.kind !== 'timer' || (setup.afterSeconds ?? Infinity) < part.seconds;
      situation.commanded[branch.index] = matched && running ? 1 : 0;
    }
    if (part.kind === 'sensor3' && branch.role !== 'wiper' && part.control) {
      const list = circuit.controls[part.control] ?? [];
      const at = list.indexOf(positions.get(part.control) ?? '');
      const fraction = list.length > 1 && at >= 0 ? 0.1 + (0.8 * at) / (list.length - 1) : 0.5;
      situation.ohms[branch.index] = part.ohms * (branch.role === 'lower' ? fraction : 1 - fraction);
    }
  }
  const takeOut = (part: number) => {
    for (const branch of compiled.parts[part]!.branches) situation.present[branch.index] = 0;
  };
  for (const key of ['isolated', 'pulled', 'removed'] as const) {
    for (const part of named(compiled, setup[key], `${field}.${key}`)) takeOut(part);
  }
  for (const connector of setup.unplugged ?? []) {
    if (!compiled.connectors.includes(connector)) {
      const known = compiled.connectors.join(', ') || 'none';
      throw new InputError(`${field}.unplugged`, `unknown connector "${connector}"; known: ${known}`);
    }
    for (const { index, part } of compiled.parts) {
      if (part.kind === 'pin' && part.connector === connector) takeOut(index);
    }
  }
  for (const { part, node } of setup.lifted ?? []) {
    const [index] = named(compiled, [part], `${field}.lifted`);
    const at = compiled.nodeIndex.get(node);
    if (at === undefined || !compiled.parts[index!]!.nodes.includes(at)) {
      throw new InputError(`${field}.lifted`, `"${part}" has no end on node "${node}"`);
    }
    const free = situation.nodeCount++;
    for (const branch of compiled.parts[index!]!.branches) {
      if (situation.a[branch.index] === at) situation.a[branch.index] = free;
      if (situation.b[branch.index] === at) situation.b[branch.index] = free;
    }
  }
  for (const [from, to] of setup.jumpers ?? []) {
    situation.jumpers.push({
      a: findNode(compiled, from, `${field}.jumpers`),
      b: findNode(compiled, to, `${field}.jumpers`),
      ohms: JUMPER_OHMS,
    });
  }
  return situation;
}

/** Number of a node by name. Throws {@link InputError} naming close matches. */
export function findNode(compiled: CompiledCircuit, name: string, field: string): number {
  const at = compiled.nodeIndex.get(name);
  if (at === undefined) {
    throw new InputError(field, `unknown node "${name}"; known: ${shortList(compiled.nodeNames)}`);
  }
  return at;
}

/** Number of a part by reference. Throws {@link InputError}. */
export function findPart(compiled: CompiledCircuit, ref: string, field: string): number {
  const at = compiled.partIndex.get(ref);
  if (at === undefined) {
    throw new InputError(field, `unknown part "${ref}"; known: ${shortList([...compiled.partIndex.keys()])}`);
  }
  return at;
}

/** Every control's position in a set-up; one that is not named stands at its first. */
export function controlPositions(
  compiled: CompiledCircuit,
  setup: Setup,
  field = 'setup',
): Map<string, string> {
  const { controls } = compiled.circuit;
  const positions = new Map(Object.entries(controls).map(([control, list]) => [control, list[0]!]));
  for (const [control, position] of Object.entries(setup.controls ?? {})) {
    const list = controls[control];
    if (!list) {
      const known = Object.keys(controls).join(', ') || 'none';
      throw new InputError(`${field}.controls`, `unknown control "${control}"; known: ${known}`);
    }
    if (!list.includes(position)) {
      throw new InputError(
        `${field}.controls.${control}`,
        `unknown position "${position}"; it has ${list.join(', ')}`,
      );
    }
    positions.set(control, position);
  }
  return positions;
}

function named(compiled: CompiledCircuit, refs: readonly string[] | undefined, field: string): number[] {
  return (refs ?? []).map((ref) => findPart(compiled, ref, field));
}

function shortList(names: readonly string[]): string {
  return names.length > 12
    ? `${names.slice(0, 12).join(', ')} and ${names.length - 12} more`
    : names.join(', ');
}
