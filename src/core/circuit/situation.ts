import type { CompiledCircuit } from './compile';
import { OTHER_WAY, SHIFTED } from '../kinds/part/branch';
import { kindOf } from '../kinds/part/index';
import { InputError } from './inputError';
import type { Setup } from './schema';

/** Contact resistance of a test jumper, ohms. */
const JUMPER_OHMS = 0.02;
/** An open port or hose end, kPa per L/min. */
const OPENING = 0.02;

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
  /** Open ports and hose ends: flow leaves to the atmosphere here. Also among `jumpers`. */
  openings: { node: number; ohms: number }[];
  /** Relays and coils held in by a bench supply or by hand, by part. */
  energised: ReadonlySet<number>;
  /** Spool positions set by hand, by valve. */
  overrides: ReadonlyMap<number, number>;
  /** Which part sits in each part's place: itself unless swapped with its twin. */
  inPlace: Int32Array;
}

/** What every set-up of a circuit begins with. */
interface AsDrawn {
  a: Int32Array;
  b: Int32Array;
  ohms: Float64Array;
  inPlace: Int32Array;
  /** Branches that conduct in some positions of the controls only; a timer's for so long after the command. */
  commanded: readonly {
    branch: number;
    conditions: readonly [string, readonly string[]][];
    seconds: number | null;
  }[];
  /** Halves of a potentiometer that a control moves. */
  wipers: readonly { branch: number; control: string; ohms: number; isLower: boolean }[];
}

const drawn = new WeakMap<CompiledCircuit, AsDrawn>();

function asDrawnOf(compiled: CompiledCircuit): AsDrawn {
  const known = drawn.get(compiled);
  if (known) return known;
  const { branches, parts } = compiled;
  const found: AsDrawn = {
    a: Int32Array.from(branches, ({ a }) => a),
    b: Int32Array.from(branches, ({ b }) => b),
    ohms: Float64Array.from(branches, ({ ohms }) => ohms),
    inPlace: Int32Array.from(parts, ({ index }) => index),
    commanded: branches.flatMap(({ index, part: own }) => {
      const { part } = parts[own]!;
      if (part.kind !== 'switch' && part.kind !== 'driver' && part.kind !== 'timer') return [];
      const conditions = Object.entries(part.kind === 'driver' ? part.onWhen : part.closedWhen);
      return [{ branch: index, conditions, seconds: part.kind === 'timer' ? part.seconds : null }];
    }),
    wipers: branches.flatMap(({ index, part: own, role }) => {
      const { part } = parts[own]!;
      if (part.kind !== 'sensor3' || role === 'wiper' || !part.control) return [];
      return [{ branch: index, control: part.control, ohms: part.ohms, isLower: role === 'lower' }];
    }),
  };
  drawn.set(compiled, found);
  return found;
}

/** Applies a set-up. Throws {@link InputError} for a name the circuit does not know. */
export function applySetup(compiled: CompiledCircuit, setup: Setup, field = 'setup'): Situation {
  const { circuit, branches } = compiled;
  const asDrawn = asDrawnOf(compiled);
  const situation: Situation = {
    compiled,
    setup,
    nodeCount: compiled.nodeNames.length,
    a: asDrawn.a.slice(),
    b: asDrawn.b.slice(),
    ohms: asDrawn.ohms.slice(),
    present: new Uint8Array(branches.length).fill(1),
    commanded: new Uint8Array(branches.length).fill(1),
    jumpers: [],
    openings: [],
    overrides: overridden(compiled, setup, `${field}.override`),
    inPlace: asDrawn.inPlace.slice(),
    energised: new Set(named(compiled, setup.energised, `${field}.energised`)),
  };
  const positions = controlPositions(compiled, setup, field);
  const elapsed = setup.afterSeconds ?? Infinity;
  for (const { branch, conditions, seconds } of asDrawn.commanded) {
    const matched = conditions.every(([control, ok]) => ok.includes(positions.get(control)!));
    situation.commanded[branch] = matched && (seconds === null || elapsed < seconds) ? 1 : 0;
  }
  for (const { branch, control, ohms, isLower } of asDrawn.wipers) {
    const list = circuit.controls[control] ?? [];
    const at = list.indexOf(positions.get(control) ?? '');
    const fraction = list.length > 1 && at >= 0 ? 0.1 + (0.8 * at) / (list.length - 1) : 0.5;
    situation.ohms[branch] = ohms * (isLower ? fraction : 1 - fraction);
  }
  swapTwins(situation, field);
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
    if (compiled.domains[at] === 'fluid') {
      openAt(situation, free);
      if (!setup.plugged?.includes(node)) openAt(situation, at);
    }
  }
  for (const name of setup.open ?? []) openAt(situation, fluidNode(compiled, name, `${field}.open`));
  for (const name of setup.plugged ?? []) {
    const at = fluidNode(compiled, name, `${field}.plugged`);
    // The plug sits on the end that is off; a valve's own exhaust behind it stays free.
    if (setup.lifted?.some(({ node }) => node === name)) continue;
    for (const { index, role } of branches) {
      if (role === 'vent' && (situation.a[index] === at || situation.b[index] === at)) {
        situation.present[index] = 0;
      }
    }
  }
  for (const part of named(compiled, setup.secured, `${field}.secured`)) {
    const { kind, ref } = compiled.parts[part]!.part;
    if (kind !== 'coil' && !kindOf({ kind }).traits.actuator)
      throw new InputError(
        `${field}.secured`,
        `"${ref}" is a ${kind}; name the coil or actuator that holds the load`,
      );
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

function openAt(situation: Situation, node: number): void {
  situation.openings.push({ node, ohms: OPENING });
  situation.jumpers.push({ a: node, b: situation.compiled.atmosphere, ohms: OPENING });
}

/** Number of a fluid node. Throws {@link InputError}. */
export function fluidNode(compiled: CompiledCircuit, name: string, field: string): number {
  const at = findNode(compiled, name, field);
  if (compiled.domains[at] === 'fluid') return at;
  throw new InputError(field, `node "${name}" is electrical; name a node of the air, oil or vacuum side`);
}

function overridden(compiled: CompiledCircuit, setup: Setup, field: string): Map<number, number> {
  const positions = new Map<number, number>();
  for (const text of setup.override ?? []) {
    const other = text.endsWith(':12') && !compiled.partIndex.has(text);
    const ref = other ? text.slice(0, -3) : text;
    const [part] = named(compiled, [ref], field);
    const { kind } = compiled.parts[part!]!.part;
    if (kind !== 'valve') throw new InputError(field, `"${ref}" is a ${kind}; only a valve has an override`);
    positions.set(part!, other ? OTHER_WAY : SHIFTED);
  }
  return positions;
}

/** Puts two alike parts into each other's place: each takes the other's ends, and its own fault with it. */
function swapTwins(situation: Situation, field: string): void {
  const { compiled, setup, a, b, inPlace } = situation;
  for (const pair of setup.swapped ?? []) {
    const [one, two] = named(compiled, pair, `${field}.swapped`).map((part) => compiled.parts[part]!);
    if (one!.part.kind !== two!.part.kind || one!.branches.length !== two!.branches.length) {
      throw new InputError(
        `${field}.swapped`,
        `"${pair[0]}" and "${pair[1]}" are not alike; swap parts of one kind`,
      );
    }
    one!.branches.forEach(({ index }, at) => {
      const twin = two!.branches[at]!.index;
      [a[index], a[twin]] = [a[twin]!, a[index]!];
      [b[index], b[twin]] = [b[twin]!, b[index]!];
    });
    inPlace[one!.index] = two!.index;
    inPlace[two!.index] = one!.index;
  }
}

function named(compiled: CompiledCircuit, refs: readonly string[] | undefined, field: string): number[] {
  return (refs ?? []).map((ref) => findPart(compiled, ref, field));
}

function shortList(names: readonly string[]): string {
  return names.length > 12
    ? `${names.slice(0, 12).join(', ')} and ${names.length - 12} more`
    : names.join(', ');
}
