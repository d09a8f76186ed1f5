import { OWN_UNKNOWNS, type Element, type Waveform } from './elements';
import { LEAST_AMPS, LEAST_METRES, LEAST_SHOWN, PlungerLaw, restOf, solenoidSizes } from './laws';
import type { InTime } from './run';
import { Slots } from './slots';
import type { Pattern } from './sparseLu';
import { stamp, type Standing } from './stamps';

/**
 * A circuit in time as one system d/dt q(y) + f(y, t) = 0: node volts first, then the amperes of what has inductance or is a source, then
 * what moves or warms. Rows in which nothing is stored are algebraic.
 */
export class TimeSystem implements InTime {
  readonly size: number;
  readonly nodes: number;
  /** Where each element's own unknowns begin; -1 where it has none. */
  readonly own: Int32Array;
  /** Rows that store something. */
  readonly stores: Uint8Array;
  /** What a row stores at the least, of which a share may be off; 0 where nothing is known of it. */
  readonly sizes: Float64Array;
  readonly least: Float64Array;
  readonly q: Float64Array;
  readonly f: Float64Array;
  /** Where slopes may stand, and those of what is stored and of what flows in that order. */
  readonly pattern: Pattern;
  readonly jq: Float64Array;
  readonly jf: Float64Array;
  private readonly slots: Slots;
  /** Slopes of what is straight and never changes; what is left is stamped at every state. */
  private readonly straightQ: Float64Array;
  private readonly straightF: Float64Array;
  private readonly bent: readonly number[];
  /** Row of each source, and what it gives over time. */
  private readonly sources: readonly (readonly [number, Waveform])[];
  private readonly standing: Standing;

  /** @param nodes number of nodes, the frame at 0 included */
  constructor(
    nodes: number,
    private readonly elements: readonly Element[],
  ) {
    this.nodes = nodes - 1;
    this.own = new Int32Array(elements.length).fill(-1);
    let size = this.nodes;
    elements.forEach((element, at) => {
      const count = OWN_UNKNOWNS[element.kind].length;
      if (count > 0) this.own[at] = size;
      size += count;
    });
    this.size = size;
    this.stores = new Uint8Array(size);
    this.sizes = new Float64Array(size);
    this.least = new Float64Array(size).fill(LEAST_SHOWN);
    elements.forEach((element, at) => this.markStores(element, this.own[at]!));
    this.standing = {
      at: 0,
      own: 0,
      y: new Float64Array(size),
      t: 0,
      elements,
      owns: this.own,
      laws: elements.map((element) => (hasPlunger(element) ? new PlungerLaw(element) : null)),
      junction: new Float64Array(elements.length),
    };
    this.sources = elements.flatMap((element, at) =>
      element.kind === 'source' ? [[this.own[at]!, element.volts] as const] : [],
    );
    const all = [...elements.keys()];
    this.slots = new Slots(size, this.nodes);
    this.stampAll(all);
    this.slots.settle();
    this.bent = all.filter((at) => !STRAIGHT.includes(elements[at]!.kind));
    this.stampAll(all.filter((at) => !this.bent.includes(at)));
    ({ q: this.q, f: this.f, jq: this.jq, jf: this.jf, pattern: this.pattern } = this.slots);
    this.straightQ = this.jq.slice();
    this.straightF = this.jf.slice();
  }

  /** Where everything stands before the first step. */
  start(): Float64Array {
    const y = new Float64Array(this.size);
    this.elements.forEach((element, at) => {
      const own = this.own[at]!;
      if (element.kind === 'inductor') y[own] = element.startAmps ?? 0;
      if (hasPlunger(element) && !element.jammed) y[own + 1] = restOf(element);
      if (element.kind === 'capacitor' && element.startVolts !== undefined) {
        // A start that the rest of the circuit contradicts is put right by the first step.
        if (element.a > 0) y[element.a - 1] = element.startVolts + (element.b > 0 ? y[element.b - 1]! : 0);
        else if (element.b > 0) y[element.b - 1] = -element.startVolts;
      }
    });
    return y;
  }

  evaluate(y: Float64Array, t: number): void {
    const { q, f, jq, jf, straightQ, straightF } = this;
    const { starts, columns } = this.pattern;
    jq.set(straightQ);
    jf.set(straightF);
    for (let row = 0; row < this.size; row++) {
      let [stored, flow] = [0, 0];
      for (let at = starts[row]!; at < starts[row + 1]!; at++) {
        const value = y[columns[at]!]!;
        stored += straightQ[at]! * value;
        flow += straightF[at]! * value;
      }
      q[row] = stored;
      f[row] = flow;
    }
    for (const [own, volts] of this.sources) f[own] = f[own]! + volts.at(t);
    this.standing.y = y;
    this.standing.t = t;
    for (const at of this.bent) this.stampOne(at);
  }

  nextBreak(t: number): number {
    let next = Infinity;
    for (const element of this.elements) {
      if (element.kind === 'source') next = Math.min(next, element.volts.nextBreak(t));
      if (element.kind === 'switch') next = Math.min(next, element.schedule.nextBreak(t));
    }
    return next;
  }

  /** Forgets how far junctions went: a new step begins. */
  rest(y: Float64Array): void {
    this.elements.forEach((element, at) => {
      if (element.kind === 'diode') this.standing.junction[at] = y[this.own[at]!]!;
    });
  }

  /** Of these elements charges, flows and their slopes where nothing flows yet. */
  private stampAll(which: readonly number[]): void {
    this.slots.leak();
    for (const at of which) this.stampOne(at);
  }

  private stampOne(at: number): void {
    const { standing } = this;
    standing.at = at;
    standing.own = this.own[at]!;
    stamp(this.slots, this.elements[at]!, standing);
  }

  private markStores(element: Element, own: number): void {
    const node = (at: number) => {
      if (at > 0) this.stores[at - 1] = 1;
    };
    switch (element.kind) {
      case 'capacitor':
        node(element.a);
        node(element.b);
        return;
      case 'inductor':
        this.stores[own] = 1;
        this.sizes[own] = LEAST_AMPS * element.henries;
        return;
      case 'filament':
      case 'fuse':
        this.stores[own] = 1;
        return;
      case 'solenoid':
        this.stores.fill(1, own, own + 3);
        this.sizes.set(solenoidSizes(element), own);
        this.least[own + 1] = LEAST_METRES;
        return;
      case 'acSolenoid':
        this.stores.fill(1, own, own + 4);
        this.sizes.set(solenoidSizes(element), own);
        this.sizes[own + 3] = element.ringSeconds * LEAST_SQUARE;
        this.least[own + 1] = LEAST_METRES;
        return;
      case 'motor':
        this.stores.fill(1, own, own + 2);
        this.sizes[own] = LEAST_AMPS * element.henries;
        return;
      case 'resistor':
      case 'source':
      case 'switch':
      case 'contact':
      case 'limiter':
      case 'transformer':
      case 'diode':
        return;
      default:
        element satisfies never;
    }
  }
}

/** A winding that moves something. */
function hasPlunger(element: Element): element is Extract<Element, { kind: 'solenoid' | 'acSolenoid' }> {
  return element.kind === 'solenoid' || element.kind === 'acSolenoid';
}

/** What flows in these follows from the state by slopes that never change; a source's volts come on top. */
const STRAIGHT: readonly Element['kind'][] = ['resistor', 'capacitor', 'inductor', 'source', 'transformer'];
/** Of what pulls a plunger: a winding that has never had more than a milliampere pulls nothing, A². */
const LEAST_SQUARE = LEAST_AMPS * LEAST_AMPS;
