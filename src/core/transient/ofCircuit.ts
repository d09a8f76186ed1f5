import type { Branch, CompiledCircuit, CompiledPart, TransformerUnit } from '../circuit/compile';
import type { Edit } from '../circuit/edits';
import type { CircuitModel } from '../circuit/model';
import type { Setup } from '../circuit/schema';
import { applySetup, type Situation } from '../circuit/situation';
import { gapOf, holdAmps, pullInAmps } from '../kinds/part/coil';
import { listDevices } from '../circuit/devices';
import { conductance } from '../circuit/world';
import { constant, sine, type Element, type Schedule } from './elements';
import { alternatingCoil, plungerCoil, USUAL_IRON, type Iron } from './irons';

/** A set-up and when it begins, seconds; the first at 0. */
export interface Moment {
  seconds: number;
  setup: Setup;
}

/** A circuit as it runs in time. */
export interface TimeCircuit {
  nodes: number;
  elements: Element[];
  /** Number of a node of the circuit among those in time; the frame is 0. */
  nodeOf: (node: number) => number;
  /** Position of the element that stands for a branch; undefined where nothing does. */
  elementOf: ReadonlyMap<number, number>;
  /** Coils of whose iron and plunger the drawing says nothing: what they do in time is of the usual kind, not of this machine. */
  usual: string[];
  /** Largest step with which a supply's own period is followed, seconds; infinite on direct volts. */
  mostStep: number;
}

/** A motor of the usual kind: its winding's time, and how it runs up. */
const USUAL_MOTOR = { windingSeconds: 2e-3, seconds: 0.15, radiansPerSecond: 150 };
/** Time that a lamp's wire takes to half of its heat. */
const FILAMENT_SECONDS = 0.05;
/** Of its ohms running, on alternating volts: what a rotor lets through that stands; and what it takes of power to run up. */
const LOCKED_SHARE = 1 / 6;
const RUN_UP_SECONDS = 0.8;
/** Steps in a period of an alternating supply. */
const STEPS_A_PERIOD = 40;
/** Time of a blade fuse's warmth: with it a fuse opens within the bounds of ISO 8820-3 from 135 % of its rating to 600 %. */
const FUSE_SECONDS = 2.2;
/** A fuse with more ohms than this has gone before. */
const BLOWN_OHMS = 100;
/** An open contact, and what has been cut off. */
const OFF_OHMS = 1e8;
/** Of a diode of silicon: 0.7 V at half an ampere. */
const SILICON = { saturationAmps: 1.5e-7, emission: 1.8, at: 0.7 };
/** Share of the stroke at which contacts of a relay make, and at which its resting ones break. */
const MAKES_AT = 0.8;
const BREAKS_AT = 0.2;

/**
 * The electrical side of a circuit in time, under set-ups that follow each other and with faults in it.
 *
 * @param irons iron and plunger of coils and relays by name, where something is known of them
 */
export function timeCircuit(
  model: CircuitModel,
  moments: readonly Moment[],
  edits: readonly Edit[] = [],
  irons: ReadonlyMap<string, Iron> = new Map(),
): TimeCircuit {
  return new Builder(model, moments, edits, irons).build();
}

class Builder {
  private readonly situations: readonly Situation[];
  private readonly elements: Element[] = [];
  private readonly elementOf = new Map<number, number>();
  private readonly usual: string[] = [];
  /** Ends of every branch, with those that a fault exchanges. */
  private readonly ends: readonly { a: number; b: number }[];
  private nodes: number;
  private readonly compiled: CompiledCircuit;

  constructor(
    private readonly model: CircuitModel,
    private readonly moments: readonly Moment[],
    private readonly edits: readonly Edit[],
    private readonly irons: ReadonlyMap<string, Iron>,
  ) {
    const { compiled } = model;
    this.compiled = compiled;
    this.situations = moments.map(({ setup }) => applySetup(compiled, setup));
    const [first] = this.situations as [Situation];
    this.nodes = first.nodeCount;
    this.ends = compiled.branches.map(({ index }) => ({ a: first.a[index]!, b: first.b[index]! }));
    for (const edit of edits)
      if (edit.type === 'cross')
        for (const [one, two] of edit.pairs) {
          const [here, there] = [this.ends[one.branch]!, this.ends[two.branch]!];
          [here[one.end], there[two.end]] = [there[two.end], here[one.end]];
        }
  }

  build(): TimeCircuit {
    const { compiled } = this;
    const parts = compiled.parts.filter(({ branches }) =>
      branches.some(({ domain }) => domain === 'electrical'),
    );
    // What moves contacts comes before them.
    for (const part of parts)
      for (const branch of part.branches) if (this.isWinding(part, branch)) this.wind(part, branch);
    for (const part of parts)
      for (const branch of part.branches) if (!this.isWinding(part, branch)) this.place(part, branch);
    for (const unit of compiled.transformers) this.transform(unit);
    for (const { a, b, ohms } of this.situations[0]!.jumpers) this.join(a, b, ohms);
    this.leaks();
    const fastest = Math.max(0, ...compiled.hertz);
    return {
      nodes: this.nodes,
      elements: this.elements,
      nodeOf: (node) => this.nodeOf(node),
      elementOf: this.elementOf,
      usual: this.usual,
      mostStep: fastest > 0 ? 1 / (STEPS_A_PERIOD * fastest) : Infinity,
    };
  }

  private nodeOf(node: number): number {
    const { frame } = this.compiled;
    return node === frame ? 0 : node < frame ? node + 1 : node;
  }

  private isWinding({ part }: CompiledPart, { role }: Branch): boolean {
    return (part.kind === 'coil' || part.kind === 'relay') && role === 'body';
  }

  private push(element: Element): number {
    this.elements.push(element);
    return this.elements.length - 1;
  }

  private join(a: number, b: number, ohms: number): void {
    this.push({ kind: 'resistor', a: this.nodeOf(a), b: this.nodeOf(b), ohms });
  }

  private endsOf({ index }: Branch): { a: number; b: number } {
    const { a, b } = this.ends[index]!;
    return { a: this.nodeOf(a), b: this.nodeOf(b) };
  }

  /** When a branch is in place and told to conduct; a fault that holds it one way has the last word. */
  private scheduleOf({ index, part }: Branch): boolean | Schedule {
    const timed = this.compiled.parts[part]!.part;
    if (timed.kind === 'timer') return this.timerOf(index, timed.seconds);
    const present = this.situations.map((one) => one.present[index] === 1);
    if (!present.some(Boolean)) return false;
    const held = this.edits.find((edit) => edit.type === 'force' && edit.branch === index);
    const on = this.situations.map(
      ({ commanded }, at) =>
        present[at]! &&
        (held?.type === 'force' ? held.on : commanded[index] === 1) &&
        (this.compiled.parts[part]!.part.kind !== 'pressureSwitch' || this.isOperated(index, at)),
    );
    if (on.every((one) => one === on[0])) return on[0]!;
    const { moments } = this;
    return {
      closed: (t) => on[moments.findLastIndex(({ seconds }) => seconds <= t)] ?? on[0]!,
      nextBreak: (t) =>
        moments.find(({ seconds }, at) => seconds > t && at > 0 && on[at] !== on[at - 1])?.seconds ??
        Infinity,
    };
  }

  /** A timer conducts for its seconds from each moment at which it is told to; a fault that holds it one way has the last word. */
  private timerOf(index: number, seconds: number): boolean | Schedule {
    const held = this.edits.find((edit) => edit.type === 'force' && edit.branch === index);
    if (held?.type === 'force') return held.on;
    const { moments } = this;
    // How long it has run is this run's own business: only whether it is told to counts.
    const told = moments.map(({ setup }) => {
      const { present, commanded } = applySetup(this.compiled, { ...setup, afterSeconds: 0 });
      return present[index] === 1 && commanded[index] === 1;
    });
    // It starts where it is told and was not before; a position that only goes on starts nothing.
    const starts = moments.flatMap(({ seconds: at }, k) => (told[k] && !told[k - 1] ? [at] : []));
    const ends = starts.map((at) => {
      const dropped = moments.find(({ seconds: later }, k) => later > at && !told[k])?.seconds ?? Infinity;
      return Math.min(at + seconds, dropped);
    });
    return {
      closed: (t) => starts.some((at, k) => t >= at && t < ends[k]!),
      nextBreak: (t) => Math.min(Infinity, ...[...starts, ...ends].filter((at) => at > t)),
    };
  }

  /** Pressures have no course of their own yet: a switch stands where they settle. */
  private isOperated(branch: number, moment: number): boolean {
    const world = this.model.situation(this.moments[moment]!.setup).solve({ mode: 'live' }, this.edits);
    return conductance(world, branch) > 0;
  }

  private ohmsOf({ index }: Branch): number {
    const edit = this.edits.findLast((one) => one.type === 'ohms' && one.branch === index);
    return edit?.type === 'ohms' ? edit.ohms : this.situations[0]!.ohms[index]!;
  }

  /** A branch between ends of its own, behind a switch where it is not there all the time; its far end. */
  private behind(branch: Branch, a: number): number | null {
    const schedule = this.scheduleOf(branch);
    if (schedule === false) return null;
    if (schedule === true) return a;
    const between = this.nodes++;
    this.push({ kind: 'switch', a, b: between, schedule, onOhms: 1e-4, offOhms: OFF_OHMS });
    return between;
  }

  private wind(compiled: CompiledPart, branch: Branch): void {
    const { part } = compiled;
    if (part.kind !== 'coil' && part.kind !== 'relay') return;
    const ohms = this.ohmsOf(branch);
    if (!Number.isFinite(ohms)) return;
    const { a, b } = this.endsOf(branch);
    const from = this.behind(branch, a);
    if (from === null) return;
    if (branch.reactance > 0) return this.windAlternating(compiled, branch, from, b, ohms);
    const nominal = branch.ohms;
    const pull =
      part.kind === 'coil'
        ? pullInAmps(branch, part)
        : pickUpOf(this.situations[0]!, branch.index).pickUp / nominal;
    const hold =
      part.kind === 'coil'
        ? holdAmps(branch, part)
        : pickUpOf(this.situations[0]!, branch.index).dropOut / nominal;
    const known = this.irons.get(part.ref);
    if (part.henries === undefined && !known) this.usual.push(part.ref);
    const iron = known ?? USUAL_IRON;
    const jammed = this.edits.some((edit) => edit.type === 'jam' && edit.part === compiled.index);
    const at = this.push({
      ...plungerCoil(
        from,
        b,
        { ohms: nominal, watts: wattsOf(branch), pull, hold, henries: part.henries },
        iron,
        ohms,
      ),
      ...(jammed ? { jammed } : {}),
    });
    this.elementOf.set(branch.index, at);
  }

  /** A coil on alternating volts, by what its label or its circuit says of its armature closed and open. */
  private windAlternating(compiled: CompiledPart, branch: Branch, a: number, b: number, ohms: number): void {
    const { part } = compiled;
    if (part.kind !== 'coil' && part.kind !== 'relay') return;
    const { reactance } = branch;
    const turning = 2 * Math.PI * Math.max(this.compiled.hertz[branch.a]!, this.compiled.hertz[branch.b]!);
    const gap = gapOf(branch, part.inrushAmps);
    const open = gap.type === 'gap' ? gap.share * reactance : reactance;
    // Points are said of it closed; what pulls it in is what the same volts drive through it open.
    const closedImpedance = Math.hypot(branch.ohms, reactance);
    const openImpedance = Math.hypot(branch.ohms, open);
    const points =
      part.kind === 'coil'
        ? { pull: pullInAmps(branch, part) * closedImpedance, hold: holdAmps(branch, part) * closedImpedance }
        : (({ pickUp, dropOut }) => ({ pull: pickUp, hold: dropOut }))(
            pickUpOf(this.situations[0]!, branch.index),
          );
    const known = this.irons.get(part.ref);
    if (!branch.impedanceKnown && !known) this.usual.push(part.ref);
    const fault = this.edits.find((edit) => edit.type === 'gap' && edit.branch === branch.index);
    const jams = this.edits.some((edit) => edit.type === 'jam' && edit.part === compiled.index);
    const at = this.push(
      alternatingCoil(
        a,
        b,
        {
          ohms: branch.ohms,
          openHenries: (fault?.type === 'gap' ? fault.share * reactance : open) / turning,
          closedHenries: reactance / turning,
          pull: points.pull / openImpedance,
          hold: points.hold / closedImpedance,
        },
        { ...(known ?? USUAL_IRON), ...(jams || fault ? { jammed: 'out' as const } : {}) },
        ohms,
      ),
    );
    this.elementOf.set(branch.index, at);
  }

  /** On direct volts, or with one winding open, its windings know nothing of each other. */
  private transform({ part, primary, secondary, ratio: drawn, ohms: copper }: TransformerUnit): void {
    const { setup } = this.moments[0]!;
    const { ref } = this.compiled.parts[part]!.part;
    if (setup.removed?.includes(ref) || setup.isolated?.includes(ref)) return;
    const edit = this.edits.find((one) => one.type === 'transformer' && one.part === part);
    const change: { ohms?: number; factor?: number } = edit?.type === 'transformer' ? edit : {};
    const ohms = change.ohms ?? copper;
    if (!Number.isFinite(ohms)) return;
    const ratio = drawn / (change.factor ?? 1);
    const [p, s] = [primary, secondary].map(([one, two]) => [this.nodeOf(one), this.nodeOf(two)] as const);
    if (primary.some((node) => this.compiled.alternating[node] === 1)) {
      this.push({ kind: 'transformer', primary: p!, secondary: s!, ratio, ohms });
    } else {
      this.push({ kind: 'resistor', a: p![0], b: p![1], ohms: ohms * ratio * ratio });
      this.push({ kind: 'resistor', a: s![0], b: s![1], ohms });
    }
  }

  private place(compiled: CompiledPart, branch: Branch): void {
    const { a, b } = this.endsOf(branch);
    const ohms = this.ohmsOf(branch);
    if (!Number.isFinite(ohms)) return;
    const { part } = compiled;
    if (part.kind === 'relay') return this.contact(compiled, branch, a, b, ohms);
    const from = this.behind(branch, a);
    if (from === null) return;
    if (part.kind === 'diode') {
      const turned = this.edits.some((edit) => edit.type === 'reverse' && edit.branch === branch.index);
      const share = -branch.emf / SILICON.at;
      const at = this.push({
        kind: 'diode',
        anode: turned ? b : from,
        cathode: turned ? from : b,
        saturationAmps: SILICON.saturationAmps,
        emission: SILICON.emission * Math.max(share, 0.1),
        ohms,
      });
      this.elementOf.set(branch.index, at);
      return;
    }
    if (branch.emf !== 0) {
      const factor = this.edits.reduce(
        (all, edit) => (edit.type === 'emf' && edit.branch === branch.index ? all * edit.factor : all),
        1,
      );
      const volts = -branch.emf * factor;
      const hz = part.kind === 'source' ? (part.hz ?? 0) : 0;
      const wave = hz > 0 ? sine(Math.SQRT2 * volts, hz) : constant(volts);
      this.elementOf.set(branch.index, this.push({ kind: 'source', a: from, b, volts: wave, ohms }));
      return;
    }
    const isDrawn = ohms === this.situations[0]!.ohms[branch.index]!;
    if (isDrawn && branch.rest && branch.rest.ohms < ohms && branch.volts > 0) {
      const alternating = this.compiled.alternating[branch.a] === 1;
      if (part.kind === 'lamp') return this.rises(branch, from, b, branch.rest.ohms, ohms, FILAMENT_SECONDS);
      if (part.kind === 'motor' && !alternating) return this.turn(compiled, branch, from, b, ohms);
      if (part.kind === 'motor') {
        this.usual.push(part.ref);
        return this.rises(
          branch,
          from,
          b,
          Math.max(LOCKED_SHARE * ohms, branch.rest.ohms),
          ohms,
          RUN_UP_SECONDS,
        );
      }
    }
    if (part.kind === 'driver' && part.limitAmps !== undefined) {
      const limited: Element = { kind: 'limiter', a: from, b, ohms, limitAmps: part.limitAmps };
      this.elementOf.set(branch.index, this.push(limited));
      return;
    }
    if (part.kind === 'fuse' && ohms < BLOWN_OHMS) {
      this.elementOf.set(
        branch.index,
        this.push({ kind: 'fuse', a: from, b, ohms, ratedAmps: part.amps, seconds: FUSE_SECONDS }),
      );
      return;
    }
    this.elementOf.set(branch.index, this.push({ kind: 'resistor', a: from, b, ohms }));
  }

  /** A load whose ohms rise as it comes to work: a wire that grows warm; on alternating volts a rotor that runs up, which a field carries along. */
  private rises(
    branch: Branch,
    a: number,
    b: number,
    coldOhms: number,
    hotOhms: number,
    seconds: number,
  ): void {
    const ratedVolts = branch.volts;
    this.elementOf.set(
      branch.index,
      this.push({ kind: 'filament', a, b, coldOhms, hotOhms, ratedVolts, seconds }),
    );
  }

  /** A motor that runs as the drawing's ohms say, and takes what its winding lets it while it stands. */
  private turn({ part }: CompiledPart, branch: Branch, a: number, b: number, ohms: number): void {
    this.usual.push(part.ref);
    const winding = branch.rest!.ohms;
    // It is held by what grows with its speed: at any volts it comes to the drawing's own current.
    const constant = branch.volts > 0 ? branch.volts / USUAL_MOTOR.radiansPerSecond : 1;
    const at = this.push({
      kind: 'motor',
      a,
      b,
      ohms: winding,
      henries: winding * USUAL_MOTOR.windingSeconds,
      constant,
      inertia: (USUAL_MOTOR.seconds * constant * constant) / winding,
      loadNewtonMetres: 0,
      friction: (constant * constant) / (ohms - winding),
    });
    this.elementOf.set(branch.index, at);
  }

  private contact(compiled: CompiledPart, branch: Branch, a: number, b: number, ohms: number): void {
    const restsClosed = branch.role === 'resting';
    const held = this.edits.find((edit) => edit.type === 'force' && edit.branch === branch.index);
    const coil = this.elementOf.get(compiled.branches[0]!.index);
    const present = this.situations[0]!.present[branch.index] === 1;
    const isHeld = held?.type === 'force' ? held.on : coil === undefined ? restsClosed : null;
    if (!present || isHeld === false) return;
    const element: Element =
      isHeld === true
        ? { kind: 'resistor', a, b, ohms }
        : {
            kind: 'contact',
            a,
            b,
            of: coil!,
            at: restsClosed ? BREAKS_AT : MAKES_AT,
            restsClosed,
            onOhms: ohms,
            offOhms: OFF_OHMS,
          };
    this.elementOf.set(branch.index, this.push(element));
  }

  private leaks(): void {
    const at = ({ branch, end }: { branch: number; end: 'a' | 'b' }) => this.ends[branch]![end];
    for (const edit of this.edits) {
      // A weak spot gives way to a tester's volts, not to the supply's.
      if (
        edit.type === 'leak' &&
        this.compiled.branches[edit.at.branch]!.domain === 'electrical' &&
        (edit.breakdownVolts ?? 0) <= this.compiled.supplyVolts
      )
        this.join(at(edit.at), this.compiled.frame, edit.ohms);
      if (edit.type === 'bridge') this.join(at(edit.from), at(edit.to), edit.ohms);
    }
  }
}

const wattsOf = ({ volts, ohms }: Branch) => (volts * volts) / ohms;

/** Volts at which a relay pulls in and drops out, in a situation. */
export function pickUpOf(situation: Situation, coil: number): { pickUp: number; dropOut: number } {
  const device = listDevices(situation).find((one) => one.kind === 'relay' && one.coil === coil);
  if (device?.kind !== 'relay') throw new RangeError('a relay without its points');
  return device;
}
