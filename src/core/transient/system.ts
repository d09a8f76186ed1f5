import {
  OWN_UNKNOWNS,
  type Contact,
  type Diode,
  type Element,
  type Filament,
  type Fuse,
  type Motor,
  type Solenoid,
  type Waveform,
} from './elements';
import {
  heldBack,
  LEAK,
  LEAST_AMPS,
  LEAST_METRES,
  LEAST_SHOWN,
  PlungerLaw,
  restOf,
  shockley,
  solenoidSizes,
  THERMAL_VOLTS,
} from './laws';
import type { InTime } from './run';
import type { Pattern } from './sparseLu';

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
  /** Place of a row's and column's slope in that order; -1 where there is none. */
  private readonly placeOf: Int32Array;
  /** Slopes that were met while the pattern was found; null once it is known. */
  private met: Set<number> | null = new Set();
  /** Slopes of what is straight and never changes; what is left is stamped at every state. */
  private readonly straightQ: Float64Array;
  private readonly straightF: Float64Array;
  private readonly bent: readonly number[];
  /** Row of each source, and what it gives over time. */
  private readonly sources: readonly (readonly [number, Waveform])[];
  /** Of each solenoid, by element. */
  private readonly laws: readonly (PlungerLaw | null)[];
  /** Junction volts of the last pass, which bound how far the next one goes. */
  private readonly junction: Float64Array;

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
    this.q = new Float64Array(size);
    this.f = new Float64Array(size);
    this.junction = new Float64Array(elements.length);
    elements.forEach((element, at) => this.markStores(element, this.own[at]!));
    this.laws = elements.map((element) => (element.kind === 'solenoid' ? new PlungerLaw(element) : null));
    this.sources = elements.flatMap((element, at) =>
      element.kind === 'source' ? [[this.own[at]!, element.volts] as const] : [],
    );
    this.placeOf = new Int32Array(size * size).fill(-1);
    this.jq = this.jf = new Float64Array(0);
    const all = [...elements.keys()];
    this.stampAll(all, new Float64Array(size), 0);
    const met = [...this.met!].sort((a, b) => a - b);
    this.met = null;
    met.forEach((key, place) => (this.placeOf[key] = place));
    const starts = new Int32Array(size + 1);
    for (const key of met) starts[Math.floor(key / size) + 1]!++;
    for (let row = 0; row < size; row++) starts[row + 1] = starts[row + 1]! + starts[row]!;
    this.pattern = { size, starts, columns: Int32Array.from(met, (key) => key % size) };
    this.jq = new Float64Array(met.length);
    this.jf = new Float64Array(met.length);
    this.bent = all.filter((at) => !STRAIGHT.includes(elements[at]!.kind));
    const straight = all.filter((at) => !this.bent.includes(at));
    this.stampAll(straight, new Float64Array(size), 0);
    this.straightQ = this.jq.slice();
    this.straightF = this.jf.slice();
  }

  /** Where everything stands before the first step. */
  start(): Float64Array {
    const y = new Float64Array(this.size);
    this.elements.forEach((element, at) => {
      const own = this.own[at]!;
      if (element.kind === 'inductor') y[own] = element.startAmps ?? 0;
      if (element.kind === 'solenoid' && !element.jammed) y[own + 1] = restOf(element);
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
    for (const at of this.bent) this.stamp(this.elements[at]!, at, y, t);
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
      if (element.kind === 'diode') this.junction[at] = y[this.own[at]!]!;
    });
  }

  /** Of these elements charges, flows and their slopes at a state. */
  private stampAll(which: readonly number[], y: Float64Array, t: number): void {
    // A hair of leakage keeps a node that floats from being anywhere.
    for (let node = 0; node < this.nodes; node++) this.slope(node, node, LEAK);
    for (const at of which) this.stamp(this.elements[at]!, at, y, t);
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
      case 'motor':
        this.stores.fill(1, own, own + 2);
        this.sizes[own] = LEAST_AMPS * element.henries;
        return;
      case 'resistor':
      case 'source':
      case 'switch':
      case 'contact':
      case 'diode':
        return;
      default:
        element satisfies never;
    }
  }

  private stamp(element: Element, at: number, y: Float64Array, t: number): void {
    const own = this.own[at]!;
    switch (element.kind) {
      case 'resistor':
        return this.conducts(element.a, element.b, 1 / element.ohms, y);
      case 'switch': {
        const ohms = element.schedule.closed(t) ? element.onOhms : element.offOhms;
        return this.conducts(element.a, element.b, 1 / ohms, y);
      }
      case 'contact':
        return this.makes(element, y);
      case 'capacitor':
        return this.charges(element.a, element.b, element.farads, y);
      case 'inductor':
        return this.winds(element.a, element.b, own, y, element.henries, element.ohms ?? 0);
      case 'source': {
        this.flows(element.a, element.b, own, y, -1);
        this.add(this.f, own, -(element.ohms ?? 0) * y[own]!);
        this.slope(own, own, -(element.ohms ?? 0));
        this.across(element.a, element.b, own, y, -1);
        return;
      }
      case 'diode':
        return this.junctionOf(element, at, own, y);
      case 'solenoid':
        return this.pulls(element, at, own, y);
      case 'motor':
        return this.turns(element, own, y);
      case 'filament':
        return this.glows(element, own, y);
      case 'fuse':
        return this.melts(element, own, y);
      default:
        return element satisfies never;
    }
  }

  private conducts(a: number, b: number, siemens: number, y: Float64Array): void {
    const amps = siemens * (volt(y, a) - volt(y, b));
    this.node(a, amps);
    this.node(b, -amps);
    this.nodeSlope(a, a, siemens);
    this.nodeSlope(b, b, siemens);
    this.nodeSlope(a, b, -siemens);
    this.nodeSlope(b, a, -siemens);
  }

  /** A contact conducts by where the plunger stands: the tenfolds from off to on go by over a hair of its stroke. */
  private makes(contact: Contact, y: Float64Array): void {
    const { a, b, onOhms, offOhms } = contact;
    const own = this.own[contact.of]! + 1;
    const coil = this.elements[contact.of] as Solenoid;
    const hair = CONTACT_HAIR * coil.strokeMetres;
    const way = Math.min(Math.max((y[own]! - contact.at * coil.strokeMetres) / hair + 0.5, 0), 1);
    const smooth = way * way * (3 - 2 * way);
    const made = contact.restsClosed ? 1 - smooth : smooth;
    const tenfolds = Math.log(offOhms / onOhms);
    const siemens = Math.exp(made * tenfolds) / offOhms;
    this.conducts(a, b, siemens, y);
    const steep = ((contact.restsClosed ? -1 : 1) * 6 * way * (1 - way)) / hair;
    const amps = siemens * tenfolds * steep * (volt(y, a) - volt(y, b));
    if (a > 0) this.slope(a - 1, own, amps);
    if (b > 0) this.slope(b - 1, own, -amps);
  }

  private charges(a: number, b: number, farads: number, y: Float64Array): void {
    const charge = farads * (volt(y, a) - volt(y, b));
    const { q } = this;
    for (const [node, sign] of [
      [a, 1],
      [b, -1],
    ] as const) {
      if (node === 0) continue;
      q[node - 1] = q[node - 1]! + sign * charge;
      for (const [other, way] of [
        [a, 1],
        [b, -1],
      ] as const)
        if (other > 0) this.stored(node - 1, other - 1, sign * way * farads);
    }
  }

  /** Row of a winding: d/dt (L i) = v − R i. */
  private winds(a: number, b: number, own: number, y: Float64Array, henries: number, ohms: number): void {
    const amps = y[own]!;
    this.flows(a, b, own, y, 1);
    this.add(this.q, own, henries * amps);
    this.stored(own, own, henries);
    this.add(this.f, own, ohms * amps);
    this.slope(own, own, ohms);
    this.across(a, b, own, y, -1);
  }

  private junctionOf(diode: Diode, at: number, own: number, y: Float64Array): void {
    const { anode, cathode, ohms } = diode;
    const thermal = THERMAL_VOLTS * diode.emission;
    const wanted = y[own]!;
    const v = heldBack(diode, wanted, this.junction[at]!, thermal);
    this.junction[at] = v;
    const [amps, siemens] = shockley(diode, v, thermal);
    // Linear beyond where the junction was held back, so that the pass goes on from there.
    const through = amps + siemens * (wanted - v);
    // The junction's own row: what flows through it flows through its resistance.
    const outer = (volt(y, anode) - volt(y, cathode) - wanted) / ohms;
    this.node(anode, outer);
    this.node(cathode, -outer);
    const g = 1 / ohms;
    this.nodeSlope(anode, anode, g);
    this.nodeSlope(cathode, cathode, g);
    this.nodeSlope(anode, cathode, -g);
    this.nodeSlope(cathode, anode, -g);
    if (anode > 0) this.slope(anode - 1, own, -g);
    if (cathode > 0) this.slope(cathode - 1, own, g);
    this.add(this.f, own, through - outer);
    this.slope(own, own, siemens + g);
    if (anode > 0) this.slope(own, anode - 1, -g);
    if (cathode > 0) this.slope(own, cathode - 1, g);
  }

  /** Rows of a solenoid: its flux, its plunger's place and its speed. */
  private pulls(coil: Solenoid, at: number, own: number, y: Float64Array): void {
    const [amps, place, speed] = [y[own]!, y[own + 1]!, y[own + 2]!];
    const law = this.laws[at]!;
    law.at(amps, place, speed);
    this.flows(coil.a, coil.b, own, y, 1);
    this.add(this.q, own, law.henries * amps);
    this.stored(own, own, law.henries);
    if (!coil.jammed) this.stored(own, own + 1, law.slope * amps);
    this.add(this.f, own, coil.ohms * amps);
    this.slope(own, own, coil.ohms);
    this.across(coil.a, coil.b, own, y, -1);
    this.add(this.q, own + 1, place);
    this.stored(own + 1, own + 1, 1);
    this.add(this.q, own + 2, coil.kilograms * speed);
    this.stored(own + 2, own + 2, coil.kilograms);
    if (coil.jammed) return;
    this.add(this.f, own + 1, -speed);
    this.slope(own + 1, own + 2, -1);
    this.add(this.f, own + 2, law.back);
    this.slope(own + 2, own, law.backByAmps);
    this.slope(own + 2, own + 1, law.backByPlace);
    this.slope(own + 2, own + 2, law.backBySpeed);
  }

  /** Rows of a motor: its winding with its own volts against it, and its speed. */
  private turns(motor: Motor, own: number, y: Float64Array): void {
    const [amps, speed] = [y[own]!, y[own + 1]!];
    this.winds(motor.a, motor.b, own, y, motor.henries, motor.ohms);
    this.add(this.q, own + 1, motor.inertia * speed);
    this.stored(own + 1, own + 1, motor.inertia);
    if (motor.locked) return;
    this.add(this.f, own, motor.constant * speed);
    this.slope(own, own + 1, motor.constant);
    // A load holds back while it turns; standing it is only what it must be turned against.
    const held = motor.loadNewtonMetres * Math.tanh(speed / STANDS);
    const heldSlope = (motor.loadNewtonMetres / STANDS) * (1 - Math.tanh(speed / STANDS) ** 2);
    this.add(this.f, own + 1, -(motor.constant * amps - held - motor.friction * speed));
    this.slope(own + 1, own, -motor.constant);
    this.slope(own + 1, own + 1, heldSlope + motor.friction);
  }

  /** Row of a filament: its share of the way from cold to hot. It radiates with the fourth power of what it has of its heat. */
  private glows(lamp: Filament, own: number, y: Float64Array): void {
    const share = Math.min(Math.max(y[own]!, -0.2), 3);
    const span = lamp.hotOhms - lamp.coldOhms;
    const ohms = lamp.coldOhms + span * share;
    const siemens = 1 / ohms;
    const v = volt(y, lamp.a) - volt(y, lamp.b);
    this.conducts(lamp.a, lamp.b, siemens, y);
    const bySpan = (-span / (ohms * ohms)) * v;
    if (lamp.a > 0) this.slope(lamp.a - 1, own, bySpan);
    if (lamp.b > 0) this.slope(lamp.b - 1, own, -bySpan);
    const rated = (lamp.ratedVolts * lamp.ratedVolts) / lamp.hotOhms;
    const gain = (v * v * siemens) / rated;
    this.add(this.q, own, share * lamp.seconds);
    this.stored(own, own, lamp.seconds);
    const lost = share * Math.abs(share) ** 3;
    this.add(this.f, own, -(gain - lost));
    this.slope(own, own, (v * v * span) / (ohms * ohms * rated) + 4 * Math.abs(share) ** 3);
    const byVolts = (2 * v * siemens) / rated;
    if (lamp.a > 0) this.slope(own, lamp.a - 1, -byVolts);
    if (lamp.b > 0) this.slope(own, lamp.b - 1, byVolts);
  }

  /** Row of a fuse: its share of the way to melting. Once it has melted it goes on by itself, and never comes back. */
  private melts(fuse: Fuse, own: number, y: Float64Array): void {
    const { a, b, ohms, ratedAmps, seconds } = fuse;
    const share = y[own]!;
    const way = Math.min(Math.max((share - 1) / MELT_HAIR, 0), 1);
    const open = way * way * (3 - 2 * way);
    const openSlope = (6 * way * (1 - way)) / MELT_HAIR;
    const tenfolds = Math.log(MELTED_OHMS / ohms);
    const siemens = Math.exp(-open * tenfolds) / ohms;
    const v = volt(y, a) - volt(y, b);
    this.conducts(a, b, siemens, y);
    const byShare = -siemens * tenfolds * openSlope * v;
    if (a > 0) this.slope(a - 1, own, byShare);
    if (b > 0) this.slope(b - 1, own, -byShare);
    const amps = siemens * v;
    const per = (MELTS_FROM * ratedAmps) ** 2;
    const warming = ((amps * amps) / per - share) / seconds;
    const parting = (MELTED - share) / PARTS_SECONDS;
    this.add(this.q, own, share);
    this.stored(own, own, 1);
    this.add(this.f, own, -((1 - open) * warming + open * parting));
    const warmSlope = ((2 * amps * byShare) / per - 1) / seconds;
    this.slope(own, own, -((1 - open) * warmSlope - open / PARTS_SECONDS + openSlope * (parting - warming)));
    const byVolts = -((1 - open) * 2 * amps * siemens) / (per * seconds);
    if (a > 0) this.slope(own, a - 1, byVolts);
    if (b > 0) this.slope(own, b - 1, -byVolts);
  }

  /** The amperes of an unknown, from one node to the other. */
  private flows(a: number, b: number, own: number, y: Float64Array, sign: number): void {
    this.node(a, sign * y[own]!);
    this.node(b, -sign * y[own]!);
    if (a > 0) this.slope(a - 1, own, sign);
    if (b > 0) this.slope(b - 1, own, -sign);
  }

  /** The volts from `b` up to `a`, in an unknown's row. */
  private across(a: number, b: number, own: number, y: Float64Array, sign: number): void {
    this.add(this.f, own, sign * (volt(y, a) - volt(y, b)));
    if (a > 0) this.slope(own, a - 1, sign);
    if (b > 0) this.slope(own, b - 1, -sign);
  }

  private node(at: number, amps: number): void {
    if (at > 0) this.f[at - 1] = this.f[at - 1]! + amps;
  }

  private nodeSlope(row: number, column: number, value: number): void {
    if (row > 0 && column > 0) this.slope(row - 1, column - 1, value);
  }

  private add(list: Float64Array, at: number, value: number): void {
    list[at] = list[at]! + value;
  }

  /** How what flows in a row changes with an unknown. */
  private slope(row: number, column: number, value: number): void {
    this.put(this.jf, row, column, value);
  }

  /** How what is stored in a row changes with an unknown. */
  private stored(row: number, column: number, value: number): void {
    this.put(this.jq, row, column, value);
  }

  private put(list: Float64Array, row: number, column: number, value: number): void {
    const key = row * this.size + column;
    if (this.met) {
      this.met.add(key);
      return;
    }
    const place = this.placeOf[key]!;
    if (place < 0) throw new Error(`slope of row ${row} in column ${column} was not met at the start`);
    list[place] = list[place]! + value;
  }
}

/** What flows in these follows from the state by slopes that never change; a source's volts come on top. */
const STRAIGHT: readonly Element['kind'][] = ['resistor', 'capacitor', 'inductor', 'source'];
/** Of its rating: from there on a fuse melts in the end. */
const MELTS_FROM = 1.2;
/** Share of the way over which it parts, where it stands then, and how quickly it goes there, seconds. */
const MELT_HAIR = 0.02;
const MELTED = 2;
const PARTS_SECONDS = 1e-3;
const MELTED_OHMS = 1e8;
/** Below this a motor counts as standing, radians a second. */
const STANDS = 0.5;
/** Share of the stroke over which a contact goes from off to on. */
const CONTACT_HAIR = 0.02;

function volt(y: Float64Array, node: number): number {
  return node > 0 ? y[node - 1]! : 0;
}
