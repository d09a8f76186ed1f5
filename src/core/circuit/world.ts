import type { Device } from './deviceTypes';
import { isNotKnown } from './windings';
import type { Delta, Edge, Solved } from './network';
import type { Situation } from './situation';

/** Scatter currents below this move no reading. */
const LEAST_SCATTER_AMPS = 1e-7;
const NONE: readonly number[] = [];
/**
 * What an output in its limit gives, as a share of the limit that stands for a tolerance: it folds back or tries again in pulses,
 * each maker's in its own way, so that nobody knows its volts to a few hundredths. Others shut off at once.
 */
export const LIMIT_SPREAD = 0.85;

/** A solved state of the circuit: one set-up, one set of faults. */
export interface World {
  situation: Situation;
  changed: Solved;
  /** By branch, then jumpers: the network before its closed-form changes. */
  edges: readonly Edge[];
  /** Closed-form changes of branches; how far what is there now may be off, a share, where that is not known exactly. */
  deltas: readonly { branch: number; delta: Delta; tolerance?: number }[];
  devices: readonly Device[];
  /** Of each device, see `Device`. */
  state: Uint8Array;
  /** Of each device that is a fuse, the highest current over what opens it that it saw while whole; empty where nothing drives. */
  fuseLoad: readonly number[];
  /** No steady state was found: relays feed back on themselves. */
  chatters: boolean;
  /** Pistons and plungers that do not move. */
  jammed: ReadonlySet<number>;
  /** Source in series with the meter's leads, where the meter drives. */
  meter: { siemens: number; emf: number } | null;
  /** Solved at the few tenths of a volt of an ohmmeter: nothing breaks down, no state changes. */
  steady: boolean;
  /** Every filament cold and every rotor standing, by usual figures. */
  resting: boolean;
  /** Filled on first use by `scatterSources`. */
  scatter?: ScatterSource[];
  /** Filled on first use by `notKnownSources`. */
  notKnown?: NotKnownSource[];
  /** Filled on first use by `limitedBranches`. */
  limited?: readonly number[];
}

/** What one part's spread does to the voltages: a current injected between its ends, amperes. */
export interface ScatterSource {
  a: number;
  b: number;
  amps: number;
}

/** Volts across a branch, its first node against its second; 0 where they float. On the fluid side: kPa. */
export function branchVolts(world: World, branch: number): number {
  const { a, b } = world.edges[branch]!;
  const volts = world.changed.pairVolts(a, b);
  return Number.isNaN(volts) ? 0 : volts;
}

/** Gauge pressure of a fluid node, kPa; 0 where it is shut off from everything. */
export function nodeKPa(world: World, node: number): number {
  const kPa = world.changed.pairVolts(node, world.situation.compiled.atmosphere);
  return Number.isNaN(kPa) ? 0 : kPa;
}

/** Fuses and breakers that this world has opened, by part. */
export function openedFuses(world: World): number[] {
  return world.devices.flatMap((device, at) =>
    device.kind === 'fuse' && world.state[at] === 1 ? [device.part] : [],
  );
}

/** Highest current over what opens it that a fuse or breaker saw while whole, by its part; 0 where nothing drives. */
export function fuseLoadOf({ devices, fuseLoad }: World, part: number): number {
  const at = devices.findIndex((device) => device.kind === 'fuse' && device.part === part);
  return fuseLoad[at] ?? 0;
}

/** Part of the first fuse or breaker that this world opens, be it after a while; -1 where none does. */
export function fuseTaken({ devices, fuseLoad }: World): number {
  for (let at = 0; at < fuseLoad.length; at++) {
    const device = devices[at]!;
    if (fuseLoad[at]! > 1 && device.kind === 'fuse') return device.part;
  }
  return -1;
}

/** Names of nodes that nothing ties to the frame (or the atmosphere) in this world: what reads there means little. */
export function floatingNodes(world: World): string[] {
  const { nodeNames, domains, frame, atmosphere } = world.situation.compiled;
  return nodeNames.filter(
    (_name, node) => !world.changed.joined(node, domains[node] === 'fluid' ? atmosphere : frame),
  );
}

/** Conductance of a branch in this world, with the fault in it, siemens. */
export function conductance(world: World, branch: number): number {
  let { siemens } = world.edges[branch]!;
  for (const one of world.deltas) if (one.branch === branch) siemens += one.delta.siemens;
  return Math.max(0, siemens);
}

/** Whether a closed-form change sits on a branch. */
export function hasDelta(world: World, branch: number): boolean {
  for (const one of world.deltas) if (one.branch === branch) return true;
  return false;
}

/** How far what a branch has may be off, a share: its own spread, or that of the change that sits on it. */
export function toleranceOf(world: World, branch: number, own: number): number {
  const change = world.deltas.find((one) => one.branch === branch);
  return change ? (change.tolerance ?? 0) : own;
}

/** Current through a branch from its first node to its second, amperes (L/min); its size only on alternating current with reactance. */
export function branchAmps(world: World, branch: number): number {
  const { a, b, emf, siemens: own, susceptance: across = 0 } = world.edges[branch]!;
  let siemens = own;
  let susceptance = across;
  for (const one of world.deltas) {
    if (one.branch !== branch) continue;
    siemens = Math.max(0, siemens + one.delta.siemens);
    susceptance += one.delta.susceptance ?? 0;
  }
  return siemens === 0 ? 0 : world.changed.amps(a, b, siemens, emf, susceptance);
}

/**
 * Currents that stand for the spread of resistances and supplies in this world, one standard unit of tolerance each.
 * Their effect on a pair is `transfer(i, j, a, b) · amps`. Worked out once a world: most parts carry no current.
 */
export function scatterSources(world: World): readonly ScatterSource[] {
  if (world.scatter) return world.scatter;
  const found: ScatterSource[] = [];
  const dead = world.steady || world.meter !== null;
  for (const { index, tolerance: cold, liveTolerance, emfTolerance } of world.situation.compiled.scattering) {
    const tolerance = dead ? cold : liveTolerance;
    const siemens = conductance(world, index);
    if (siemens === 0) continue;
    const { a, b, emf } = world.edges[index]!;
    const own = branchAmps(world, index) * toleranceOf(world, index, tolerance);
    const amps = Math.sqrt(own * own + (siemens * emf * emfTolerance) ** 2);
    if (amps > LEAST_SCATTER_AMPS) found.push({ a, b, amps });
  }
  for (const branch of limitedBranches(world)) {
    const { a, b } = world.edges[branch]!;
    found.push({ a, b, amps: LIMIT_SPREAD * branchAmps(world, branch) });
  }
  world.scatter = found;
  return found;
}

/** A branch of which nobody has said what it takes, at work. */
export interface NotKnownSource {
  branch: number;
  a: number;
  b: number;
  /** What it takes here, with its sign where that has one. */
  amps: number;
  /** Of what it would take by itself, the share that the rest of its circuit would keep from it: `|Y|·|Z|` at its ends. */
  bend: number;
}

/** Branches of {@link scatterSources} of which nobody has said what they take. A fault that sits on one says it. */
export function notKnownSources(world: World): readonly NotKnownSource[] {
  world.notKnown ??= world.situation.compiled.notKnown.flatMap(({ index, liveTolerance }) => {
    const amps = branchAmps(world, index);
    if (!isNotKnown(liveTolerance) || hasDelta(world, index) || Math.abs(amps) < LEAST_SCATTER_AMPS)
      return [];
    const { a, b, siemens, susceptance = 0 } = world.edges[index]!;
    const bend = Math.min(Math.hypot(siemens, susceptance) * world.changed.pairOhms(a, b), 1);
    return [{ branch: index, a, b, amps, bend }];
  });
  return world.notKnown;
}

/** Driver branches that stand in their current limit in this world. Worked out once a world. */
export function limitedBranches(world: World): readonly number[] {
  if (world.limited) return world.limited;
  let found: number[] | null = null;
  world.devices.forEach((device, at) => {
    if (device.kind === 'driver' && world.state[at] === 1) (found ??= []).push(device.branch);
  });
  world.limited = found ?? NONE;
  return world.limited;
}

/** What outputs in their limit put on a pair, volts: without them, shut off, it stands that much lower. */
export function limitedVolts(world: World, i: number, j: number): number {
  return limitedBranches(world).reduce((sum, branch) => {
    const { a, b } = world.edges[branch]!;
    return sum + branchAmps(world, branch) * world.changed.transfer(i, j, b, a);
  }, 0);
}

/** State of the device of a part: relay in, spool position, switch operated; 0 where it has none. */
export function deviceState(world: World, part: number): number {
  const at = world.devices.findIndex((device) => 'part' in device && device.part === part);
  return at >= 0 ? world.state[at]! : 0;
}

/** Whether a relay is held in. */
export function relayIn(world: World, part: number): boolean {
  return deviceState(world, part) === 1;
}
