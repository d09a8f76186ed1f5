import { stateKey } from './stateKey';
import { AcChangedNetwork, AcMatrix, AcNetwork } from './acNetwork';
import { deltaOf, meterOf, terminalNode, type Drive } from './deltas';
import { advanceDevices, listDevices, type DeviceFaults } from './devices';
import { MOVES, type Device } from './deviceTypes';
import { editKey, isClosedForm, type ClosedFormEdit, type Edit, type Terminal } from './edits';
import { edgesOf } from './edgesOf';
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

const MOST_PASSES = 40;
/** Below this share of its conductance, what is left of a branch in closed form has lost too many digits. */
const ILL_RELATIVE = 1e-6;
/** Share of a conductance from which on its loss may cancel digits. */
const NEARLY_ALL = 0.99;
/** Volts (kPa) that are rounding. */
const NOTHING_VOLTS = 1e-10;

interface Built {
  network: Network | AcNetwork;
  edges: readonly Edge[];
  couplings: readonly Coupling[];
  /** The same network with some branches taken out, by their numbers, where that cannot be had in closed form. */
  without: Map<string, Solved>;
}

type BranchChange = World['deltas'][number];

/** What the fixed point is sought for: one drive and one list of faults. */
interface Question {
  drive: Drive;
  /** The meter's own branch, worked out once for all passes. */
  meter: ReturnType<typeof meterOf>;
  edits: readonly Edit[];
  structural: readonly Edit[];
  closed: readonly ClosedFormEdit[];
  faults: DeviceFaults;
  jammed: ReadonlySet<number>;
  built: Map<string, Built>;
}

const LIVE: Drive = { mode: 'live' };
const NO_EDITS: readonly Edit[] = [];
const NO_LOADS: number[] = [];
const NOTHING: ReadonlySet<number> = new Set();
const NO_FAULTS: DeviceFaults = { reversed: NOTHING, positions: new Map(), thresholds: new Map() };

/**
 * Solves one situation for any fault. Inverses are kept per combination of discrete states and structural edits; faults
 * that change a conductance, and the meter itself, are answered on top of them in closed form.
 */
export class SituationSolver {
  private readonly matrices = new Map<string, Matrix | AcMatrix>();
  /** By drive and structural edits, then by discrete state. */
  private readonly built = new Map<string, Map<string, Built>>();
  private readonly devices: Device[];
  private readonly worlds = new Map<string, World>();
  /** Networks that the sound live circuit went through, the last one standing. */
  private readonly onTheWay: Built[] = [];
  private idleKnown: boolean | null = null;
  /** Inverses with branches taken out; also among `Built.without`. */
  private readonly opened: Matrix[] = [];

  constructor(readonly situation: Situation) {
    this.devices = listDevices(situation);
  }

  /** Size of what is kept, in numbers. */
  get kept(): number {
    let kept = 0;
    for (const matrix of this.matrices.values()) kept += matrix.kept;
    for (const matrix of this.opened) kept += matrix.kept;
    return kept;
  }

  /** Nothing to hold and nothing flowing: a dead reading needs no live solution first. */
  private get idle(): boolean {
    if (this.idleKnown === null) {
      const world = this.solve(LIVE);
      this.idleKnown =
        this.devices.every(({ kind }) => !MOVES[kind]) &&
        this.situation.compiled.branches.every(({ index }) => Math.abs(branchAmps(world, index)) < 1e-9);
    }
    return this.idleKnown;
  }

  /** Lets go of everything that can be worked out again. */
  forget(): void {
    this.matrices.clear();
    this.built.clear();
    this.worlds.clear();
    this.onTheWay.length = 0;
    this.opened.length = 0;
  }

  /** State with the given faults. */
  solve(drive: Drive, edits: readonly Edit[] = []): World {
    if (edits.length === 0 && (drive.mode === 'live' || isOhms(drive))) {
      let world = this.worlds.get(drive.mode);
      if (!world) {
        world = this.iterate(this.question(drive, edits));
        this.worlds.set(drive.mode, world);
      }
      return world;
    }
    return this.leavesStill(drive, edits) ?? this.iterate(this.question(drive, edits));
  }

  private question(drive: Drive, edits: readonly Edit[]): Question {
    const closed = edits.filter(isClosedForm);
    const structural =
      closed.length === edits.length ? NO_EDITS : edits.filter((edit) => !isClosedForm(edit));
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
    const built = this.builtFor(drive, structural);
    return { drive, meter: meterOf(drive), edits, structural, closed, faults, jammed, built };
  }

  private builtFor(drive: Drive, structural: readonly Edit[]): Map<string, Built> {
    // A supply's volts vary without end: its networks are cheap (the inverse is kept) and not worth keeping.
    if (structural.some(({ type }) => type === 'emf' || type === 'transformer')) return new Map();
    const acting = structural.filter(({ type }) => type === 'reverse' || type === 'cross');
    const mode = drive.mode === 'live' || drive.mode === 'resting' ? drive.mode : 'dead';
    const key = acting.length === 0 ? mode : `${mode}|${editKey(acting)}`;
    let built = this.built.get(key);
    if (!built) {
      built = new Map();
      this.built.set(key, built);
    }
    return built;
  }

  /** Where the devices stand before the first pass. */
  private startingState(question: Question): Uint8Array {
    const { situation, devices } = this;
    const state = new Uint8Array(devices.length);
    // Dead readings: relays, fuses and valves stand as the set-up leaves them; silicon does not conduct at 0.3 V.
    if (question.drive.mode !== 'live' && !this.idle) {
      const live = this.solve(LIVE, question.edits);
      devices.forEach((device, at) => {
        if (device.kind !== 'diode' && device.kind !== 'driver') state[at] = live.state[at]!;
      });
    }
    devices.forEach((device, at) => {
      if (device.kind === 'relay' && situation.energised.has(device.part)) state[at] = 1;
    });
    return state;
  }

  /** The closed-form faults and the meter on top of a built network; `weak` has a bit for each spot that broke down. */
  private changesOn(
    ready: Built,
    { closed, meter, drive }: Question,
    weak: number,
  ): Pick<World, 'changed' | 'deltas'> {
    const deltas: BranchChange[] = [];
    const onTerminals: Delta[] = [];
    for (let at = 0; at < closed.length; at++) {
      const edit = closed[at]!;
      const held = edit.type === 'ohms' ? edit.held : undefined;
      if (held !== undefined && drive.mode !== 'live') continue;
      const delta = deltaOf(this.situation, edit, ready.edges, ((weak >> at) & 1) === 1);
      if (!delta) continue;
      if (edit.type === 'ohms' || edit.type === 'force' || edit.type === 'gap') {
        deltas.push({ branch: edit.branch, delta, ...(held !== undefined && { tolerance: held }) });
      } else onTerminals.push(delta);
    }
    let changed = this.changedBranches(ready, deltas);
    for (const delta of onTerminals) changed = changedBy(changed, delta);
    if (meter) changed = changedBy(changed, { a: meter.to, b: meter.from, ...meter });
    return { changed, deltas };
  }

  private iterate(question: Question): World {
    const { situation, devices } = this;
    const { drive, meter, closed, faults, jammed, built } = question;
    const frozen = drive.mode !== 'live';
    const unedited = !frozen && closed.length + question.structural.length === 0;
    if (unedited) this.onTheWay.length = 0;
    const state = this.startingState(question);
    const fuseLoad = frozen ? NO_LOADS : new Array<number>(devices.length).fill(0);
    const steady = isOhms(drive);
    const resting = drive.mode === 'resting';
    let weak = 0;
    let seen: Set<string> | null = null;
    let chatters = false;
    let was: Uint8Array | null = null;
    let world: World | null = null;
    for (let pass = 0; ; pass++) {
      // The weak spot is a closed-form change, never part of the network.
      const structure = stateKey(state);
      let ready = built.get(structure);
      if (!ready) {
        ready = this.build(state, question);
        built.set(structure, ready);
      }
      if (unedited) this.onTheWay.push(ready);
      const { edges } = ready;
      const { changed, deltas } = this.changesOn(ready, question, weak);
      world ??= {
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
        resting,
      };
      world.changed = changed;
      world.edges = edges;
      world.deltas = deltas;
      world.chatters = chatters;
      if (chatters || steady || pass >= MOST_PASSES) {
        world.chatters = chatters || pass >= MOST_PASSES;
        return world;
      }
      was ??= new Uint8Array(state.length);
      was.set(state);
      const wasWeak = weak;
      advanceDevices(world, state, fuseLoad, faults, frozen);
      // Once it has broken down a track keeps conducting, though the volts across it collapse.
      for (let at = 0; at < closed.length; at++) {
        const edit = closed[at]!;
        if (edit.type === 'leak' && edit.breakdownVolts !== undefined) {
          if (this.breaksDown(world, edit.at, edit.breakdownVolts)) weak |= 1 << at;
        }
      }
      if (weak === wasWeak && isSameState(state, was)) return world;
      seen ??= new Set();
      seen.add(`${wasWeak}.${structure}`);
      if (seen.has(`${weak}.${stateKey(state)}`)) chatters = true;
    }
  }

  /**
   * The sound circuit's own state with one conductance changed that carries nothing and has nothing across it, on the way to that state
   * too: no voltage moves, so that no device does. Null where that cannot be said beforehand.
   */
  private leavesStill(drive: Drive, edits: readonly Edit[]): World | null {
    if (drive.mode !== 'live' || edits.length !== 1) return null;
    const edit = edits[0]!;
    if (!isClosedForm(edit) && edit.type !== 'reverse') return null;
    const sound = this.solve(drive);
    if (sound.chatters || sound.changed instanceof AcNetwork) return null;
    if (edit.type === 'reverse') return this.neverBiased(edit.branch) ? sound : null;
    if (edit.type === 'leak' && edit.breakdownVolts !== undefined) return null;
    let last: Delta | null = null;
    for (const { network, edges } of this.onTheWay) {
      last = deltaOf(this.situation, edit, edges, false);
      if (last && !movesNothing(network, last)) return null;
    }
    if (!last) return sound;
    const deltas = 'branch' in edit ? [{ branch: edit.branch, delta: last }] : [];
    return { ...sound, changed: new ChangedNetwork(sound.changed, last), deltas };
  }

  /** Whether nothing was ever across a diode: turned round it stands off as well. A supply turned round is no diode. */
  private neverBiased(branch: number): boolean {
    const diode = this.devices.find((device) => device.kind === 'diode' && device.branch === branch);
    if (diode?.kind !== 'diode' || diode.from >= 0) return false;
    return this.onTheWay.every(({ network, edges }) => {
      const { a, b } = edges[branch]!;
      const volts = network.pairVolts(a, b);
      return Number.isNaN(volts) || Math.abs(volts) < NOTHING_VOLTS;
    });
  }

  /** Whether a weak spot at a terminal conducts at the volts it sees. Never in ohms: the meter's 0.3 V are too few. */
  breaksDown(world: World, at: Terminal, volts: number): boolean {
    if (world.steady) return false;
    const seen = world.changed.pairVolts(terminalNode(this.situation, at), this.situation.compiled.frame);
    return Math.abs(seen) > volts;
  }

  /**
   * Closed-form changes of branches. Nearly all of a conductance taken away where little else joins its ends cancels
   * digits: then the branch is taken out exactly and what is left of it put back.
   */
  private changedBranches(ready: Built, changes: readonly BranchChange[]): Solved {
    let changed: Solved = ready.network;
    let isBarelyLeft = false;
    for (const one of changes) {
      const { a, b, siemens } = one.delta;
      const own = ready.edges[one.branch]!.siemens;
      if (isLost(one, ready.edges) && !(ready.network instanceof AcNetwork) && changed.joined(a, b)) {
        const left = 1 - own * changed.transfer(a, b, a, b);
        const remains = own + siemens > 0;
        // Among others, all of it taken from where nothing else joins the two halves is exact as it stands.
        const cutsExactly = changes.length > 1 && left < BRIDGE_RELATIVE && !remains && !isBarelyLeft;
        if (left <= ILL_RELATIVE && !cutsExactly) return this.takenOut(ready, changes);
        isBarelyLeft ||= remains;
      }
      changed = changedBy(changed, one.delta);
    }
    return changed;
  }

  /** The same with each branch that loses nearly all out of the network as it is built, and what is left of it put back. */
  private takenOut(ready: Built, changes: readonly BranchChange[]): Solved {
    const { edges, without } = ready;
    const out = changes.filter((one) => isLost(one, edges)).map(({ branch }) => branch);
    const key = [...out].sort((one, other) => one - other).join();
    let open = without.get(key);
    if (!open) {
      open = this.openedAt(ready, out);
      without.set(key, open);
    }
    return changes.reduce<Solved>((changed, one) => {
      if (!isLost(one, edges)) return changedBy(changed, one.delta);
      const siemens = Math.max(0, edges[one.branch]!.siemens + one.delta.siemens);
      return siemens > 0 ? changedBy(changed, { ...one.delta, siemens }) : changed;
    }, open);
  }

  private openedAt({ network, edges, couplings }: Built, out: readonly number[]): Solved {
    if (out.length === 1) {
      const { a, b, siemens, emf } = edges[out[0]!]!;
      const left = 1 - siemens * network.transfer(a, b, a, b);
      if (left < BRIDGE_RELATIVE) return changedBy(network, { a, b, siemens: -siemens, emf });
    }
    const rest = edges.map((edge, at) => (out.includes(at) ? { ...edge, siemens: 0 } : edge));
    const matrix = new Matrix(this.situation.nodeCount, this.references(), rest, couplings);
    this.opened.push(matrix);
    return new Network(matrix, rest);
  }

  private references(): number[] {
    const { frame, atmosphere } = this.situation.compiled;
    return atmosphere < 0 ? [frame] : [frame, atmosphere];
  }

  private build(state: Uint8Array, { drive, structural }: Question): Built {
    const { edges, couplings } = edgesOf(this.situation, this.devices, state, drive.mode, structural);
    const network = this.networkOf(edges, couplings, state, structural, drive.mode);
    return { network, edges, couplings, without: new Map() };
  }

  private networkOf(
    edges: readonly Edge[],
    couplings: readonly Coupling[],
    state: Uint8Array,
    structural: readonly Edit[],
    mode: Drive['mode'],
  ): Network | AcNetwork {
    const { compiled, nodeCount } = this.situation;
    const live = mode === 'live';
    const shaping = structural.filter(({ type }) => type === 'cross' || type === 'transformer');
    const apart = live && (compiled.transformers.length > 0 || compiled.reactive || compiled.restSaid);
    const key = `${apart ? 'l' : mode === 'resting' ? 'r' : ''}${stateKey(state)}|${editKey(shaping)}`;
    let matrix = this.matrices.get(key);
    if (!matrix) {
      const references = this.references();
      matrix =
        live && compiled.reactive
          ? new AcMatrix(nodeCount, references, edges, couplings, this.alternating())
          : new Matrix(nodeCount, references, edges, couplings);
      if (!shaping.some(({ type }) => type === 'transformer')) this.matrices.set(key, matrix);
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

function isSameState(state: Uint8Array, was: Uint8Array): boolean {
  for (let at = 0; at < state.length; at++) if (state[at] !== was[at]) return false;
  return true;
}

/** A meter's few tenths of a volt drive, and nothing else. */
function isOhms({ mode }: Drive): boolean {
  return mode === 'ohms' || mode === 'resting';
}

/** Whether a changed conductance inside one island carries nothing and leaves enough beside it to be had in closed form. */
function movesNothing(network: Solved, { a, b, siemens, emf = 0 }: Delta): boolean {
  if (network.sideOf(a) !== network.sideOf(b)) return false;
  if (!(Math.abs(network.pairVolts(a, b) + emf) < NOTHING_VOLTS)) return false;
  return 1 + siemens * network.transfer(a, b, a, b) > ILL_RELATIVE;
}

/** Whether a change takes nearly all of a branch's conductance. */
function isLost({ branch, delta }: BranchChange, edges: readonly Edge[]): boolean {
  return -delta.siemens >= NEARLY_ALL * edges[branch]!.siemens;
}

function changedBy(solved: Solved, delta: Delta): Solved {
  return solved instanceof AcNetwork || solved instanceof AcChangedNetwork
    ? new AcChangedNetwork(solved, delta)
    : new ChangedNetwork(solved, delta);
}
