import { AcChangedNetwork, AcMatrix, AcNetwork } from './acNetwork';
import { groundOf } from './compile';
import { advanceDevices, listDevices, type DeviceFaults } from './devices';
import type { Device } from './deviceTypes';
import { editKey, isClosedForm, type ClosedFormEdit, type Edit, type Terminal } from './edits';
import { MIDWAY, MIDWAY_NARROWER, OPENING_STEPS } from '../kinds/part/branch';
import {
  BRIDGE_RELATIVE,
  ChangedNetwork,
  Matrix,
  Network,
  type Coupling,
  type Delta,
  type Edge,
  type Solved,
} from './network';
import type { Situation } from './situation';
import { branchAmps, type World } from './world';

/** Open-circuit volts and series resistance of a meter on the diode range: about 1 mA into a junction. */
const DIODE_METER = { volts: 3, ohms: 3000 };
/** Series resistance of an insulation tester: limits it to about a milliampere. */
const TESTER_OHMS_PER_VOLT = 1000;
const MOST_PASSES = 40;
/** Below this share of its conductance, what is left of a branch in closed form has lost too many digits. */
const ILL_RELATIVE = 1e-6;
/** A driver in current limit keeps this small conductance so that its node stays tied. */
const LIMIT_SIEMENS = 1e-6;

/** What drives the network. `live`: its sources. The others: sources off, the meter between two nodes. */
export type Drive =
  | { mode: 'live' }
  | { mode: 'ohms' }
  | { mode: 'diode'; from: number; to: number }
  | { mode: 'insulation'; from: number; to: number; testVolts: number };

interface Built {
  network: Network | AcNetwork;
  edges: readonly Edge[];
  couplings: readonly Coupling[];
  /** The same network with one branch taken out, where that cannot be had in closed form. */
  without: Map<number, Solved>;
}

/** What the fixed point is sought for: one drive and one list of faults. */
interface Question {
  drive: Drive;
  structural: readonly Edit[];
  closed: readonly ClosedFormEdit[];
  faults: DeviceFaults;
  jammed: ReadonlySet<number>;
  built: Map<number | string, Built>;
}

const NOTHING: ReadonlySet<number> = new Set();
const NO_FAULTS: DeviceFaults = { reversed: NOTHING, positions: new Map(), thresholds: new Map() };

/**
 * Solves one situation for any fault. Inverses are kept per combination of discrete states and structural edits; faults
 * that change a conductance, and the meter itself, are answered on top of them in closed form.
 */
export class SituationSolver {
  private readonly matrices = new Map<string, Matrix | AcMatrix>();
  /** By drive and structural edits, then by discrete state. */
  private readonly built = new Map<string, Map<number | string, Built>>();
  private readonly devices: Device[];
  private readonly worlds = new Map<string, World>();
  private idleKnown: boolean | null = null;
  /** Size of what is kept, in numbers. */
  kept = 0;

  constructor(readonly situation: Situation) {
    this.devices = listDevices(situation);
  }

  /** Nothing to hold and nothing flowing: a dead reading needs no live solution first. */
  private get idle(): boolean {
    if (this.idleKnown === null) {
      const moving = ['relay', 'valve', 'opening', 'regulator', 'pressureSwitch'];
      const world = this.solve({ mode: 'live' });
      this.idleKnown =
        this.devices.every(({ kind }) => !moving.includes(kind)) &&
        this.situation.compiled.branches.every(({ index }) => Math.abs(branchAmps(world, index)) < 1e-9);
    }
    return this.idleKnown;
  }

  /** Lets go of everything that can be worked out again. */
  forget(): void {
    this.matrices.clear();
    this.built.clear();
    this.worlds.clear();
    this.kept = 0;
  }

  /** State with the given faults. */
  solve(drive: Drive, edits: readonly Edit[] = []): World {
    if (edits.length === 0 && (drive.mode === 'live' || drive.mode === 'ohms')) {
      let world = this.worlds.get(drive.mode);
      if (!world) {
        world = this.iterate(this.question(drive, edits));
        this.worlds.set(drive.mode, world);
      }
      return world;
    }
    return this.iterate(this.question(drive, edits));
  }

  private question(drive: Drive, edits: readonly Edit[]): Question {
    const closed: ClosedFormEdit[] = [];
    const structural: Edit[] = [];
    for (const edit of edits) (isClosedForm(edit) ? closed : structural).push(edit as never);
    let [faults, jammed] = [NO_FAULTS, NOTHING];
    if (structural.length > 0) {
      const of = <T extends Edit['type']>(type: T) =>
        structural.filter((edit): edit is Extract<Edit, { type: T }> => edit.type === type);
      jammed = new Set(of('jam').map(({ part }) => part));
      faults = {
        reversed: new Set(of('reverse').map(({ branch }) => branch)),
        positions: new Map(of('position').map(({ part, position }) => [part, position])),
        thresholds: new Map(of('threshold').map(({ part, factor }) => [part, factor])),
      };
    }
    return { drive, structural, closed, faults, jammed, built: this.builtFor(drive, structural) };
  }

  private builtFor(drive: Drive, structural: readonly Edit[]): Map<number | string, Built> {
    // A supply's volts vary without end: its networks are cheap (the inverse is kept) and not worth keeping.
    if (structural.some(({ type }) => type === 'emf' || type === 'transformer')) return new Map();
    const acting = structural.filter(({ type }) => type === 'reverse' || type === 'cross');
    const mode = drive.mode === 'live' ? 'live' : 'dead';
    const key = acting.length === 0 ? mode : `${mode}|${editKey(acting)}`;
    let built = this.built.get(key);
    if (!built) {
      built = new Map();
      this.built.set(key, built);
    }
    return built;
  }

  private iterate(question: Question): World {
    const { situation, devices } = this;
    const { drive, closed, faults, jammed, built } = question;
    const state = new Uint8Array(devices.length);
    const fuseLoad = new Map<number, number>();
    const frozen = drive.mode !== 'live';
    // Dead readings: relays, fuses and valves stand as the set-up leaves them; silicon does not conduct at 0.3 V.
    if (frozen && !this.idle) {
      const { structural } = question;
      const live = this.iterate({
        ...question,
        drive: { mode: 'live' },
        built: this.builtFor({ mode: 'live' }, structural),
      });
      devices.forEach((device, at) => {
        if (device.kind !== 'diode' && device.kind !== 'driver') state[at] = live.state[at]!;
      });
    }
    devices.forEach((device, at) => {
      if (device.kind === 'relay' && situation.energised.has(device.part)) state[at] = 1;
    });
    const meter = meterOf(drive);
    const steady = drive.mode === 'ohms';
    let weak = 0;
    let before = stateKey(state, weak);
    let seen: Set<number | string> | null = null;
    let chatters = false;
    for (let pass = 0; ; pass++) {
      // The weak spot is a closed-form change, never part of the network.
      const structure = stateKey(state, 0);
      let ready = built.get(structure);
      if (!ready) {
        ready = this.build(state, question);
        built.set(structure, ready);
      }
      const { network, edges } = ready;
      let changed: Solved = network;
      const deltas: World['deltas'][number][] = [];
      for (let at = 0; at < closed.length; at++) {
        const edit = closed[at]!;
        const delta = this.delta(edit, edges, (weak >> at) & 1);
        if (!delta) continue;
        if (edit.type === 'ohms' || edit.type === 'force') {
          changed =
            deltas.length === 0 ? this.worsened(ready, edit.branch, delta) : changedBy(changed, delta);
          deltas.push({ branch: edit.branch, delta });
        } else changed = changedBy(changed, delta);
      }
      if (meter) changed = changedBy(changed, { a: meter.to, b: meter.from, ...meter });
      const world: World = {
        situation,
        changed,
        edges,
        deltas,
        devices,
        state,
        fuseLoad,
        chatters,
        jammed,
        meter,
        steady,
      };
      if (chatters || steady || pass >= MOST_PASSES) {
        world.chatters = chatters || pass >= MOST_PASSES;
        return world;
      }
      advanceDevices(world, state, faults, frozen);
      // Once it has broken down a track keeps conducting, though the volts across it collapse.
      for (let at = 0; at < closed.length; at++) {
        const edit = closed[at]!;
        if (edit.type === 'leak' && edit.breakdownVolts !== undefined) {
          if (this.breaksDown(world, edit.at, edit.breakdownVolts)) weak |= 1 << at;
        }
      }
      const after = stateKey(state, weak);
      if (after === before) return world;
      seen ??= new Set();
      if (seen.has(after)) chatters = true;
      seen.add(before);
      before = after;
    }
  }

  /** Whether a weak spot at a terminal conducts at the volts it sees. Never in ohms: the meter's 0.3 V are too few. */
  breaksDown(world: World, at: Terminal, volts: number): boolean {
    if (world.steady) return false;
    const seen = world.changed.pairVolts(terminalNode(this.situation, at), this.situation.compiled.frame);
    return Math.abs(seen) > volts;
  }

  /**
   * The first closed-form change of a branch. Nearly all of a conductance taken away where little else joins its ends
   * cancels digits: then the branch is taken out exactly and what is left of it put back.
   */
  private worsened({ network, edges, couplings, without }: Built, branch: number, delta: Delta): Solved {
    const { a, b, siemens, emf = 0 } = delta;
    const own = edges[branch]!.siemens;
    if (network instanceof AcNetwork || -siemens < 0.99 * own || !network.joined(a, b)) {
      return changedBy(network, delta);
    }
    const left = 1 - own * network.transfer(a, b, a, b);
    if (left > ILL_RELATIVE) return changedBy(network, delta);
    let open = without.get(branch);
    if (!open) {
      if (left < BRIDGE_RELATIVE) open = changedBy(network, { a, b, siemens: -own, emf });
      else {
        const rest = edges.map((edge, at) => (at === branch ? { ...edge, siemens: 0 } : edge));
        open = new Network(new Matrix(this.situation.nodeCount, this.references(), rest, couplings), rest);
        this.kept += this.situation.nodeCount ** 2;
      }
      without.set(branch, open);
    }
    const remains = Math.max(0, own + siemens);
    return remains > 0 ? changedBy(open, { a, b, siemens: remains, emf }) : open;
  }

  private references(): number[] {
    const { frame, atmosphere } = this.situation.compiled;
    return atmosphere < 0 ? [frame] : [frame, atmosphere];
  }

  private delta(edit: ClosedFormEdit, edges: readonly Edge[], weak: number): Delta | null {
    const { situation } = this;
    switch (edit.type) {
      case 'leak': {
        // A part that is out of the circuit takes its leak with it.
        if (!situation.present[edit.at.branch]) return null;
        if (edit.breakdownVolts !== undefined && weak === 0) return null;
        const ground = groundOf(situation.compiled, situation.compiled.branches[edit.at.branch]!);
        return { a: terminalNode(situation, edit.at), b: ground, siemens: 1 / edit.ohms };
      }
      case 'bridge':
        if (!situation.present[edit.from.branch] || !situation.present[edit.to.branch]) return null;
        return {
          a: terminalNode(situation, edit.from),
          b: terminalNode(situation, edit.to),
          siemens: 1 / edit.ohms,
        };
      case 'ohms': {
        const { a, b, siemens, emf, susceptance = 0 } = edges[edit.branch]!;
        if (siemens === 0) return null;
        if (susceptance === 0) return { a, b, siemens: 1 / edit.ohms - siemens, emf };
        // Fewer turns: inductance falls with their square, resistance with their number.
        const { ohms, reactance } = situation.compiled.branches[edit.branch]!;
        const wanted = admittance(edit.ohms, reactance * (edit.ohms / ohms) ** 2);
        return {
          a,
          b,
          siemens: wanted.siemens - siemens,
          susceptance: wanted.susceptance - susceptance,
          emf,
        };
      }
      case 'force': {
        const { a, b, siemens, emf } = edges[edit.branch]!;
        const wanted = edit.on && situation.present[edit.branch] ? 1 / situation.ohms[edit.branch]! : 0;
        return { a, b, siemens: wanted - siemens, emf };
      }
    }
  }

  private build(state: Uint8Array, { drive, structural }: Question): Built {
    const { situation, devices } = this;
    const { compiled } = situation;
    const live = drive.mode === 'live';
    const conducting = Uint8Array.from(situation.commanded);
    const stateOfPart = new Map<number, number>();
    const edges = compiled.branches.map((branch): Edge => {
      const source = compiled.parts[branch.part]!.part.kind === 'source';
      const ohms = situation.ohms[branch.index]!;
      return {
        a: situation.a[branch.index]!,
        b: situation.b[branch.index]!,
        ...admittance(ohms, live ? branch.reactance : 0),
        emf: !live && source ? 0 : branch.emf,
      };
    });
    devices.forEach((device, at) => {
      const on = state[at] === 1;
      if (device.kind === 'fuse') conducting[device.branch] = on ? 0 : 1;
      else if (device.kind === 'diode') conducting[device.branch] = on ? 1 : 0;
      else if (device.kind === 'driver') {
        if (!on || !conducting[device.branch]) return;
        edges[device.branch]!.siemens = LIMIT_SIEMENS;
        edges[device.branch]!.emf = device.limit / LIMIT_SIEMENS;
      } else stateOfPart.set(device.part, state[at]!);
    });
    for (const { index, role, part, positions } of compiled.branches) {
      const now = stateOfPart.get(part) ?? 0;
      if (role === 'seal') conducting[index] = 0;
      else if (role === 'opening') {
        conducting[index] = now > 0 ? 1 : 0;
        edges[index]!.siemens *= Math.max(now, 1) / OPENING_STEPS;
      } else if (role === 'made') conducting[index] = now;
      else if (role === 'resting') conducting[index] = 1 - now;
      else if (positions) {
        conducting[index] = positions.includes(now) ? 1 : 0;
        if (now === MIDWAY) edges[index]!.siemens /= MIDWAY_NARROWER;
      } else {
        const item = compiled.parts[part]!.part;
        if (item.kind === 'regulator') conducting[index] = role === 'wideOpen' ? now : 1 - now;
        if (item.kind === 'pressureSwitch') conducting[index] = item.contact === 'NC' ? 1 - now : now;
      }
    }
    const couplings: Coupling[] = [];
    for (const unit of compiled.transformers) {
      const { part } = compiled.parts[unit.part]!;
      const out = [...(situation.setup.removed ?? []), ...(situation.setup.isolated ?? [])].includes(
        part.ref,
      );
      const edit = structural.find((one) => one.type === 'transformer' && one.part === unit.part);
      const change: { ohms?: number; factor?: number } = edit?.type === 'transformer' ? edit : {};
      const ohms = change.ohms ?? unit.ohms;
      if (out || ohms === Infinity) continue;
      const ratio = unit.ratio / (change.factor ?? 1);
      if (live && unit.primary.some((node) => compiled.alternating[node] === 1)) {
        couplings.push({ primary: unit.primary, secondary: unit.secondary, ratio, siemens: 1 / ohms });
      } else {
        // A meter's direct current sees two windings that know nothing of each other.
        const [p, s] = [unit.primary, unit.secondary];
        edges.push({ a: p[0], b: p[1], siemens: 1 / (ohms * ratio * ratio), emf: 0 });
        edges.push({ a: s[0], b: s[1], siemens: 1 / ohms, emf: 0 });
      }
    }
    applyStructural(structural, edges);
    compiled.branches.forEach(({ index }) => {
      if (situation.present[index] && conducting[index]) return;
      edges[index]!.siemens = 0;
      edges[index]!.susceptance = 0;
    });
    for (const { a, b, ohms } of situation.jumpers) edges.push({ a, b, siemens: 1 / ohms, emf: 0 });
    const network = this.networkOf(edges, couplings, state, structural, live);
    return { network, edges, couplings, without: new Map() };
  }

  private networkOf(
    edges: readonly Edge[],
    couplings: readonly Coupling[],
    state: Uint8Array,
    structural: readonly Edit[],
    live: boolean,
  ): Network | AcNetwork {
    const { compiled, nodeCount } = this.situation;
    const shaping = structural.filter(({ type }) => type === 'cross' || type === 'transformer');
    const apart = live && (compiled.transformers.length > 0 || compiled.reactive);
    const key = `${apart ? 'l' : ''}${stateKey(state, 0)}|${editKey(shaping)}`;
    let matrix = this.matrices.get(key);
    if (!matrix) {
      const references = this.references();
      matrix =
        live && compiled.reactive
          ? new AcMatrix(nodeCount, references, edges, couplings, this.alternating())
          : new Matrix(nodeCount, references, edges, couplings);
      if (!shaping.some(({ type }) => type === 'transformer')) {
        this.matrices.set(key, matrix);
        this.kept += nodeCount * nodeCount;
      }
    }
    return matrix instanceof AcMatrix ? new AcNetwork(matrix, edges) : new Network(matrix, edges);
  }

  /** By node of this situation: a lifted end stands on the supply of the branch it belongs to. */
  private alternating(): Uint8Array {
    const { compiled, nodeCount, a, b } = this.situation;
    const found = new Uint8Array(nodeCount);
    found.set(compiled.alternating);
    for (const branch of compiled.branches) {
      for (const [now, was] of [
        [a[branch.index]!, branch.a],
        [b[branch.index]!, branch.b],
      ] as const) {
        if (now >= compiled.nodeNames.length) found[now] = compiled.alternating[was]!;
      }
    }
    return found;
  }
}

function changedBy(solved: Solved, delta: Delta): Solved {
  return solved instanceof AcNetwork || solved instanceof AcChangedNetwork
    ? new AcChangedNetwork(solved, delta)
    : new ChangedNetwork(solved, delta);
}

function meterOf(drive: Drive): { from: number; to: number; siemens: number; emf: number } | null {
  if (drive.mode === 'diode') {
    return { from: drive.from, to: drive.to, siemens: 1 / DIODE_METER.ohms, emf: DIODE_METER.volts };
  }
  if (drive.mode !== 'insulation') return null;
  const { from, to, testVolts } = drive;
  return { from, to, siemens: 1 / (TESTER_OHMS_PER_VOLT * testVolts), emf: testVolts };
}

/** Key of a combination of device states: a number while it fits into one, text beyond. */
function stateKey(state: Uint8Array, weak: number): number | string {
  if (state.length > 22) return `${weak}.${state.join('')}`;
  let key = weak;
  for (let at = 0; at < state.length; at++) key = key * 4 + state[at]!;
  return key;
}

function terminalNode(situation: Situation, { branch, end }: Terminal): number {
  return end === 'a' ? situation.a[branch]! : situation.b[branch]!;
}

/** Admittance of a resistance and a reactance in series; none for an infinite resistance. */
function admittance(ohms: number, reactance: number): { siemens: number; susceptance: number } {
  if (ohms === Infinity) return { siemens: 0, susceptance: 0 };
  if (reactance === 0) return { siemens: 1 / ohms, susceptance: 0 };
  const square = ohms * ohms + reactance * reactance;
  return { siemens: ohms / square, susceptance: -reactance / square };
}

function applyStructural(edits: readonly Edit[], edges: Edge[]): void {
  for (const edit of edits) {
    if (edit.type === 'emf') edges[edit.branch]!.emf *= edit.factor;
    else if (edit.type === 'reverse') edges[edit.branch]!.emf *= -1;
    else if (edit.type === 'cross') {
      for (const [p, q] of edit.pairs) [edges[p]!.b, edges[q]!.b] = [edges[q]!.b, edges[p]!.b];
    }
  }
}
