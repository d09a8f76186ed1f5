import type { Branch } from './compile';
import { editKey, isClosedForm, type ClosedFormEdit, type Edit, type Terminal } from './edits';
import { ChangedNetwork, Network, type Coupling, type Delta, type Edge } from './network';
import type { Situation } from './situation';

/** Steady current above this share of its rating opens a fuse (contract). */
export const FUSE_LIMIT = 1.35;
/** Relay thresholds against the highest supply when the file gives none (common range, see reference section 10). */
const PICK_UP_SHARE = 0.6;
const DROP_OUT_SHARE = 0.15;
/** Open-circuit volts and series resistance of a meter on the diode range: about 1 mA into a junction. */
const DIODE_METER = { volts: 3, ohms: 3000 };
/** Series resistance of an insulation tester: limits it to about a milliampere. */
const TESTER_OHMS_PER_VOLT = 1000;
const MOST_PASSES = 40;
/** Scatter currents below this move no reading. */
const LEAST_SCATTER_AMPS = 1e-7;
/** A driver in current limit keeps this small conductance so that its node stays tied. */
const LIMIT_SIEMENS = 1e-6;

/** What drives the network. `live`: its sources. The others: sources off, the meter between two nodes. */
export type Drive =
  | { mode: 'live' }
  | { mode: 'ohms' }
  | { mode: 'diode'; from: number; to: number }
  | { mode: 'insulation'; from: number; to: number; testVolts: number };

export type Device =
  | { kind: 'fuse'; branch: number; amps: number; part: number }
  | { kind: 'diode'; branch: number; volts: number }
  | { kind: 'relay'; coil: number; pickUp: number; dropOut: number; part: number }
  | { kind: 'driver'; branch: number; limit: number; ohms: number };

/** A solved state of the circuit: one set-up, one set of faults. */
export interface World {
  situation: Situation;
  changed: ChangedNetwork;
  /** Branch whose conductance the closed-form change belongs to, or −1. */
  deltaBranch: number;
  devices: readonly Device[];
  /** Of each device: fuse blown, diode on, relay in, driver limiting. */
  state: Uint8Array;
  /** Highest current over rating each fuse saw before it opened, by part. */
  fuseLoad: Map<number, number>;
  /** No steady state was found: relays feed back on themselves. */
  chatters: boolean;
  /** Filled on first use by `scatterSources`. */
  scatter?: ScatterSource[];
}

/** What one part's spread does to the voltages: a current injected between its ends, amperes. */
export interface ScatterSource {
  a: number;
  b: number;
  amps: number;
}

/**
 * Solves one situation for any fault. Networks are kept per combination of discrete states and structural edits;
 * a fault that changes one conductance is answered on top of them in closed form.
 */
export class SituationSolver {
  /** By drive and structural edits, then by discrete state. */
  private readonly networks = new Map<string, Map<number | string, Network>>();
  private readonly devices: Device[];
  private readonly worlds = new Map<string, World>();
  private idleKnown: boolean | null = null;

  constructor(readonly situation: Situation) {
    this.devices = listDevices(situation);
  }

  /** No relay to hold and nothing flowing: a dead reading needs no live solution first. */
  private get idle(): boolean {
    if (this.idleKnown === null) {
      const world = this.solve({ mode: 'live' });
      this.idleKnown =
        this.devices.every(({ kind }) => kind !== 'relay') &&
        this.situation.compiled.branches.every(({ index }) => Math.abs(branchAmps(world, index)) < 1e-9);
    }
    return this.idleKnown;
  }

  /** State with the given structural edits, and at most one closed-form edit on top. */
  solve(drive: Drive, edits: readonly Edit[] = []): World {
    if (edits.length === 0 && (drive.mode === 'live' || drive.mode === 'ohms')) {
      let world = this.worlds.get(drive.mode);
      if (!world) {
        world = this.iterate(drive, [], null);
        this.worlds.set(drive.mode, world);
      }
      return world;
    }
    const last = edits.at(-1);
    if (last && isClosedForm(last)) return this.iterate(drive, edits.slice(0, -1), last);
    return this.iterate(drive, edits, null);
  }

  private iterate(drive: Drive, edits: readonly Edit[], closed: ClosedFormEdit | null): World {
    const { situation, devices } = this;
    const networks = this.networksFor(drive, edits);
    const state = new Uint8Array(devices.length);
    const fuseLoad = new Map<number, number>();
    // Ohms readings: relays and fuses stand as the live set-up leaves them, silicon does not conduct at 0.3 V.
    if (drive.mode !== 'live' && !this.idle) {
      const live = this.iterate({ mode: 'live' }, edits, closed);
      devices.forEach((device, at) => {
        if (device.kind === 'relay' || device.kind === 'fuse') state[at] = live.state[at]!;
      });
    }
    const frozen = drive.mode !== 'live';
    const reversed = new Set(edits.flatMap((edit) => (edit.type === 'reverse' ? [edit.branch] : [])));
    devices.forEach((device, at) => {
      if (device.kind === 'relay' && situation.energised.has(device.part)) state[at] = 1;
    });
    let weak = 0;
    let before = stateKey(state, weak);
    let seen: Set<number | string> | null = null;
    let chatters = false;
    for (let pass = 0; ; pass++) {
      // The weak spot is a closed-form change, never part of the network.
      const structure = stateKey(state, 0);
      let network = networks.get(structure);
      if (!network) {
        network = this.build(state, edits, drive);
        networks.set(structure, network);
      }
      const delta = this.delta(closed, network, weak);
      const changed = new ChangedNetwork(network, delta);
      const world: World = {
        situation,
        changed,
        deltaBranch: closed && (closed.type === 'ohms' || closed.type === 'force') ? closed.branch : -1,
        devices,
        state,
        fuseLoad,
        chatters,
      };
      if (chatters || drive.mode === 'ohms' || pass >= MOST_PASSES) {
        world.chatters = chatters || pass >= MOST_PASSES;
        return world;
      }
      this.advance(world, state, reversed, frozen);
      // Once it has broken down a track keeps conducting, though the volts across it collapse.
      if (weak === 0 && closed?.type === 'leak' && closed.breakdownVolts !== undefined) {
        weak = this.breaksDown(world, closed) ? 1 : 0;
      }
      const after = stateKey(state, weak);
      if (after === before) return world;
      seen ??= new Set();
      if (seen.has(after)) chatters = true;
      seen.add(before);
      before = after;
    }
  }

  /** Moves every device to the state its own volts and amps ask for. One fuse at a time: the worst loaded goes first. */
  private advance(world: World, state: Uint8Array, reversed: ReadonlySet<number>, frozen: boolean): void {
    const { fuseLoad } = world;
    let worst = -1;
    let worstLoad = 1;
    this.devices.forEach((device, at) => {
      switch (device.kind) {
        case 'fuse': {
          if (frozen || state[at] === 1) return;
          const load = Math.abs(branchAmps(world, device.branch)) / (FUSE_LIMIT * device.amps);
          fuseLoad.set(device.part, Math.max(load, fuseLoad.get(device.part) ?? 0));
          if (load > worstLoad) {
            worst = at;
            worstLoad = load;
          }
          return;
        }
        case 'diode': {
          const sign = reversed.has(device.branch) ? -1 : 1;
          if (state[at] === 0) state[at] = sign * branchVolts(world, device.branch) > device.volts ? 1 : 0;
          else state[at] = sign * branchAmps(world, device.branch) < 0 ? 0 : 1;
          return;
        }
        case 'relay': {
          if (frozen || world.situation.energised.has(device.part)) return;
          const volts = Math.abs(branchVolts(world, device.coil));
          const flows = conductance(world, device.coil) > 0;
          if (state[at] === 0) state[at] = flows && volts >= device.pickUp ? 1 : 0;
          else state[at] = flows && volts >= device.dropOut ? 1 : 0;
          return;
        }
        case 'driver': {
          if (frozen) return;
          if (state[at] === 0) state[at] = branchAmps(world, device.branch) > device.limit ? 1 : 0;
          else state[at] = branchVolts(world, device.branch) < device.limit * device.ohms ? 0 : 1;
        }
      }
    });
    if (worst >= 0) state[worst] = 1;
  }

  private breaksDown(world: World, leak: Extract<Edit, { type: 'leak' }>): boolean {
    const { situation } = this;
    const volts = world.changed.pairVolts(terminalNode(situation, leak.at), situation.compiled.frame);
    return Math.abs(volts) > leak.breakdownVolts!;
  }

  private delta(edit: ClosedFormEdit | null, network: Network, weak: number): Delta | null {
    if (edit === null) return null;
    const { situation } = this;
    switch (edit.type) {
      case 'leak': {
        // A part that is out of the circuit takes its leak with it.
        if (!situation.present[edit.at.branch]) return null;
        if (edit.breakdownVolts !== undefined && weak === 0) return null;
        return {
          a: terminalNode(situation, edit.at),
          b: situation.compiled.frame,
          siemens: 1 / edit.ohms,
        };
      }
      case 'bridge':
        if (!situation.present[edit.from.branch] || !situation.present[edit.to.branch]) return null;
        return {
          a: terminalNode(situation, edit.from),
          b: terminalNode(situation, edit.to),
          siemens: 1 / edit.ohms,
        };
      case 'ohms': {
        const now = network.edges[edit.branch]!.siemens;
        if (now === 0) return null;
        return {
          ...ends(situation, edit.branch),
          siemens: 1 / edit.ohms - now,
          emf: network.edges[edit.branch]!.emf,
        };
      }
      case 'force': {
        const now = network.edges[edit.branch]!.siemens;
        const wanted = edit.on && situation.present[edit.branch] ? 1 / situation.ohms[edit.branch]! : 0;
        return {
          ...ends(situation, edit.branch),
          siemens: wanted - now,
          emf: network.edges[edit.branch]!.emf,
        };
      }
    }
  }

  private networksFor(drive: Drive, edits: readonly Edit[]): Map<number | string, Network> {
    const driveKey =
      drive.mode === 'diode'
        ? `d${drive.from}.${drive.to}`
        : drive.mode === 'insulation'
          ? `i${drive.from}.${drive.to}.${drive.testVolts}`
          : drive.mode;
    const key = edits.length === 0 ? driveKey : `${driveKey}|${editKey(edits)}`;
    let networks = this.networks.get(key);
    if (!networks) {
      networks = new Map();
      this.networks.set(key, networks);
    }
    return networks;
  }

  private build(state: Uint8Array, edits: readonly Edit[], drive: Drive): Network {
    const { situation, devices } = this;
    const { compiled } = situation;
    const conducting = Uint8Array.from(situation.commanded);
    const stateOfPart = new Map<number, number>();
    const edges: Edge[] = compiled.branches.map((branch) => ({
      a: situation.a[branch.index]!,
      b: situation.b[branch.index]!,
      siemens: 1 / situation.ohms[branch.index]!,
      emf: drive.mode !== 'live' && compiled.parts[branch.part]!.part.kind === 'source' ? 0 : branch.emf,
    }));
    devices.forEach((device, at) => {
      const on = state[at] === 1;
      if (device.kind === 'fuse') conducting[device.branch] = on ? 0 : 1;
      else if (device.kind === 'diode') conducting[device.branch] = on ? 1 : 0;
      else if (device.kind === 'relay') stateOfPart.set(device.part, state[at]!);
      else if (on && conducting[device.branch]) {
        edges[device.branch]!.siemens = LIMIT_SIEMENS;
        edges[device.branch]!.emf = device.limit / LIMIT_SIEMENS;
      }
    });
    for (const branch of compiled.branches) {
      if (branch.role === 'made') conducting[branch.index] = stateOfPart.get(branch.part) ?? 0;
      if (branch.role === 'resting') conducting[branch.index] = 1 - (stateOfPart.get(branch.part) ?? 0);
    }
    const couplings: Coupling[] = [];
    for (const unit of compiled.transformers) {
      const { part } = compiled.parts[unit.part]!;
      const out = [...(situation.setup.removed ?? []), ...(situation.setup.isolated ?? [])].includes(
        part.ref,
      );
      const edit = edits.find((one) => one.type === 'transformer' && one.part === unit.part);
      const change: { ohms?: number; factor?: number } = edit?.type === 'transformer' ? edit : {};
      const ohms = change.ohms ?? unit.ohms;
      if (out || ohms === Infinity) continue;
      const ratio = unit.ratio / (change.factor ?? 1);
      if (drive.mode === 'live' && compiled.alternating) {
        couplings.push({ primary: unit.primary, secondary: unit.secondary, ratio, siemens: 1 / ohms });
      } else {
        // A meter's direct current sees two windings that know nothing of each other.
        const [p, s] = [unit.primary, unit.secondary];
        edges.push({ a: p[0], b: p[1], siemens: 1 / (ohms * ratio * ratio), emf: 0 });
        edges.push({ a: s[0], b: s[1], siemens: 1 / ohms, emf: 0 });
      }
    }
    applyEdits(edits, edges, conducting, situation);
    compiled.branches.forEach(({ index }) => {
      if (!situation.present[index] || !conducting[index]) edges[index]!.siemens = 0;
    });
    for (const { a, b, ohms } of situation.jumpers) edges.push({ a, b, siemens: 1 / ohms, emf: 0 });
    if (drive.mode === 'diode') {
      const { volts, ohms } = DIODE_METER;
      edges.push({ a: drive.to, b: drive.from, siemens: 1 / ohms, emf: volts });
    } else if (drive.mode === 'insulation') {
      const siemens = 1 / (TESTER_OHMS_PER_VOLT * drive.testVolts);
      edges.push({ a: drive.to, b: drive.from, siemens, emf: drive.testVolts });
    }
    return new Network(situation.nodeCount, compiled.frame, edges, couplings);
  }
}

/** Volts across a branch, its first node against its second; 0 where they float. */
export function branchVolts(world: World, branch: number): number {
  const { a, b } = world.changed.base.edges[branch]!;
  const volts = world.changed.pairVolts(a, b);
  return Number.isNaN(volts) ? 0 : volts;
}

/** Conductance of a branch in this world, with the fault in it, siemens. */
export function conductance(world: World, branch: number): number {
  const { base, delta } = world.changed;
  const own = world.deltaBranch === branch && delta ? delta.siemens : 0;
  return Math.max(0, base.edges[branch]!.siemens + own);
}

/** Current through a branch from its first node to its second, amperes. */
export function branchAmps(world: World, branch: number): number {
  const siemens = conductance(world, branch);
  if (siemens === 0) return 0;
  return siemens * (branchVolts(world, branch) + world.changed.base.edges[branch]!.emf);
}

/**
 * Currents that stand for the spread of resistances and supplies in this world, one standard unit of tolerance each.
 * Their effect on a pair is `transfer(i, j, a, b) · amps`. Worked out once a world: most parts carry no current.
 */
export function scatterSources(world: World): readonly ScatterSource[] {
  if (world.scatter) return world.scatter;
  const found: ScatterSource[] = [];
  for (const { index, tolerance, emfTolerance } of world.situation.compiled.scattering) {
    const siemens = conductance(world, index);
    if (siemens === 0) continue;
    const { a, b, emf } = world.changed.base.edges[index]!;
    const own = world.deltaBranch === index ? 0 : siemens * (branchVolts(world, index) + emf) * tolerance;
    const amps = Math.sqrt(own * own + (siemens * emf * emfTolerance) ** 2);
    if (amps > LEAST_SCATTER_AMPS) found.push({ a, b, amps });
  }
  world.scatter = found;
  return found;
}

/** Whether a relay is held in. */
export function relayIn(world: World, part: number): boolean {
  const at = world.devices.findIndex((device) => device.kind === 'relay' && device.part === part);
  return at >= 0 && world.state[at] === 1;
}

/** Key of a combination of device states: a number while it fits into one, text beyond. */
function stateKey(state: Uint8Array, weak: number): number | string {
  if (state.length > 30) return `${weak}${state.join('')}`;
  let key = weak;
  for (let at = 0; at < state.length; at++) key = key * 2 + state[at]!;
  return key;
}

function ends(situation: Situation, branch: number): { a: number; b: number } {
  return { a: situation.a[branch]!, b: situation.b[branch]! };
}

function terminalNode(situation: Situation, { branch, end }: Terminal): number {
  return end === 'a' ? situation.a[branch]! : situation.b[branch]!;
}

function applyEdits(
  edits: readonly Edit[],
  edges: Edge[],
  conducting: Uint8Array,
  situation: Situation,
): void {
  const frame = situation.compiled.frame;
  for (const edit of edits) {
    switch (edit.type) {
      case 'ohms':
        edges[edit.branch]!.siemens = edit.ohms === Infinity ? 0 : 1 / edit.ohms;
        break;
      case 'force':
        conducting[edit.branch] = edit.on ? 1 : 0;
        break;
      case 'leak':
        if (!situation.present[edit.at.branch]) break;
        // As a structural edit a weak spot is taken as broken down: the state loop follows one weak spot only.
        edges.push({ a: terminalNode(situation, edit.at), b: frame, siemens: 1 / edit.ohms, emf: 0 });
        break;
      case 'bridge': {
        if (!situation.present[edit.from.branch] || !situation.present[edit.to.branch]) break;
        const [a, b] = [terminalNode(situation, edit.from), terminalNode(situation, edit.to)];
        edges.push({ a, b, siemens: 1 / edit.ohms, emf: 0 });
        break;
      }
      case 'emf':
        edges[edit.branch]!.emf *= edit.factor;
        break;
      case 'reverse': {
        const edge = edges[edit.branch]!;
        edge.emf = -edge.emf;
        break;
      }
      case 'transformer':
        break;
      case 'cross':
        for (const [p, q] of edit.pairs) {
          [edges[p]!.b, edges[q]!.b] = [edges[q]!.b, edges[p]!.b];
        }
    }
  }
}

function listDevices(situation: Situation): Device[] {
  const { compiled } = situation;
  const devices: Device[] = [];
  const body = (branches: readonly Branch[]) => branches[0]!.index;
  for (const { part, branches, index } of compiled.parts) {
    switch (part.kind) {
      case 'fuse':
      case 'breaker':
        devices.push({ kind: 'fuse', branch: body(branches), amps: part.amps, part: index });
        break;
      case 'diode':
        devices.push({
          kind: 'diode',
          branch: body(branches),
          volts: part.forwardVolts ?? 0.7,
        });
        break;
      case 'relay':
        devices.push({
          kind: 'relay',
          coil: body(branches),
          pickUp: part.pickUpVolts ?? PICK_UP_SHARE * compiled.supplyVolts,
          dropOut: part.dropOutVolts ?? DROP_OUT_SHARE * compiled.supplyVolts,
          part: index,
        });
        break;
      case 'driver':
        if (part.limitAmps !== undefined) {
          const branch = body(branches);
          devices.push({ kind: 'driver', branch, limit: part.limitAmps, ohms: branches[0]!.ohms });
        }
    }
  }
  return devices;
}
