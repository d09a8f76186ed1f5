import { DenseLu } from './denseLu';
import { OWN_UNKNOWNS, type Element } from './elements';
import { SparseLu, type Pattern } from './sparseLu';
import { TimeSystem } from './system';

/** A circuit's course: at each moment the volts of every node (the frame at 0), and what each element's own unknowns are. */
export interface Course {
  seconds: Float64Array;
  /** By node, then moment. */
  volts: readonly Float64Array[];
  /** By element: its own unknowns, each over the moments; none of what has none. See {@link OWN_UNKNOWNS}. */
  own: readonly (readonly Float64Array[])[];
  steps: number;
  /** Steps that were taken again, smaller. */
  rejected: number;
}

export interface RunOptions {
  /** Largest step, seconds; a thousandth of the run where nothing is said. */
  mostStep?: number;
  /** Share by which a step may be off. */
  tolerance?: number;
}

/** TR-BDF2 (Bank and others 1985): a trapezoid over the first part of a step, then a second-order backward formula, so that nothing rings. */
const GAMMA = 2 - Math.SQRT2;
const TRAPEZOID = GAMMA / 2;
const BACKWARD = (1 - GAMMA) / (2 - GAMMA);
const OF_MIDDLE = 1 / (GAMMA * (2 - GAMMA));
const OF_START = ((1 - GAMMA) * (1 - GAMMA)) / (GAMMA * (2 - GAMMA));
const ERROR = (-3 * GAMMA * GAMMA + 4 * GAMMA - 2) / (12 * (2 - GAMMA));

const USUAL_TOLERANCE = 1e-4;
const MOST_PASSES = 60;
/** Newton is done when nothing moves by more than this share, or by what is nothing for it. */
const SETTLED = 1e-5;
const LEAST_CHARGE = 1e-12;
/** A step this small is as good as none: the circuit has no course. */
const LEAST_STEP = 1e-13;
const MOST_STEPS = 400_000;
/** So few unknowns are eliminated whole. */
const DENSE_UP_TO = 8;
/** Of the step before it: as near to an edge as that still counts as before it. */
const BEFORE_EDGE = 1e-5;

/** What runs in time, as one system d/dt q(y) + f(y, t) = 0; rows in which nothing is stored are algebraic. */
export interface InTime {
  readonly size: number;
  /** Rows that store something. */
  readonly stores: Uint8Array;
  /** What a row stores at the least, of which a share may be off; 0 where nothing is known of it. */
  readonly sizes: Float64Array;
  /** By how much an unknown may be off and nothing shows it. */
  readonly least: Float64Array;
  /** Where slopes may stand, and those of what is stored and of what flows in that order. */
  readonly pattern: Pattern;
  readonly jq: Float64Array;
  readonly jf: Float64Array;
  /** What is stored and what flows. */
  readonly q: Float64Array;
  readonly f: Float64Array;
  /** Where everything stands before the first step. */
  start(): Float64Array;
  /** Works out what is stored, what flows and their slopes at a state. */
  evaluate(y: Float64Array, t: number): void;
  /** Forgets how far the passes of a step went: a new one begins here. */
  rest(y: Float64Array): void;
  /** The next moment after this one at which something breaks; infinite where all runs on. */
  nextBreak(t: number): number;
}

/** The states that a system went through. */
export interface Passed {
  times: readonly number[];
  states: readonly Float64Array[];
  steps: number;
  /** Steps that were taken again, smaller. */
  rejected: number;
}

/**
 * Runs a circuit from time 0 to `seconds`. Steps grow and shrink with how far a step is off; where a waveform or a switch breaks a step ends
 * and the next begins anew. Throws where no step, however small, leads on.
 *
 * @param nodes number of nodes, the frame at 0 included
 */
export function runInTime(
  nodes: number,
  elements: readonly Element[],
  seconds: number,
  options: RunOptions = {},
): Course {
  const system = new TimeSystem(nodes, elements);
  const { times, states, steps, rejected } = runSystem(system, seconds, options);
  const over = (row: number) => {
    const values = new Float64Array(states.length);
    states.forEach((y, at) => (values[at] = y[row]!));
    return values;
  };
  return {
    seconds: Float64Array.from(times),
    volts: [
      new Float64Array(times.length),
      ...Array.from({ length: system.nodes }, (_one, node) => over(node)),
    ],
    own: elements.map((element, at) => {
      const first = system.own[at]!;
      return OWN_UNKNOWNS[element.kind].map((_name, k) => over(first + k));
    }),
    steps,
    rejected,
  };
}

/** Runs a system as {@link runInTime} does a circuit. */
export function runSystem(
  system: InTime,
  seconds: number,
  { mostStep = seconds / 1000, tolerance = USUAL_TOLERANCE }: RunOptions = {},
): Passed {
  return new Runner(system, tolerance).run(seconds, mostStep);
}

class Runner {
  /** What is stored and what flows at the state that stands, and in the middle of a step. */
  private readonly q0: Float64Array;
  private readonly f0: Float64Array;
  private readonly f1: Float64Array;
  /** What a stage has to come to. */
  private readonly known: Float64Array;
  private readonly figures: Float64Array;
  private readonly lu: DenseLu | SparseLu;
  /** The figures that stand are factored. */
  private factored = false;
  private readonly right: Float64Array;
  /** The most that each row has stored so far, and at the least what it is made for; of it a share may be off. */
  private readonly scale: Float64Array;

  constructor(
    private readonly system: InTime,
    private readonly tolerance: number,
  ) {
    const { size } = system;
    [this.q0, this.f0, this.f1, this.known, this.right] = Array.from(
      { length: 5 },
      () => new Float64Array(size),
    ) as [Float64Array, Float64Array, Float64Array, Float64Array, Float64Array];
    this.scale = system.sizes.slice();
    this.figures = new Float64Array(system.jf.length);
    this.lu = size <= DENSE_UP_TO ? new DenseLu(system.pattern) : new SparseLu(system.pattern);
  }

  run(seconds: number, mostStep: number): Passed {
    const times: number[] = [];
    const states: Float64Array[] = [];
    let t = 0;
    let y = this.settled();
    times.push(t);
    states.push(y);
    let step = mostStep / 100;
    let [steps, rejected] = [0, 0];
    let fresh = true;
    let edge = this.system.nextBreak(0);
    while (t < seconds * (1 - 1e-12)) {
      if (steps + rejected > MOST_STEPS) throw new Error(`no end after ${MOST_STEPS} steps, at ${t} s`);
      const last = Math.min(edge, seconds);
      step = Math.min(step, mostStep, last - t);
      // A sliver before an edge is taken with the step before it.
      if (last - t - step < 0.1 * step) step = last - t;
      // It ends before what breaks there, which the next step begins with.
      const end = t + step < last ? t + step : t + step - BEFORE_EDGE * step;
      const taken = this.take(y, t, step, end, fresh);
      if (taken === null || taken.off > 1) {
        rejected++;
        step *= taken === null ? 0.25 : Math.max(0.2, 0.9 / Math.cbrt(taken.off));
        if (step < LEAST_STEP) throw new Error(`no step leads on from ${t} s`);
        continue;
      }
      steps++;
      y = taken.y;
      t = Math.abs(t + step - last) < 1e-12 * last ? last : t + step;
      fresh = false;
      this.stand();
      times.push(t);
      states.push(y);
      step *= Math.min(3, Math.max(0.3, 0.9 / Math.cbrt(Math.max(taken.off, 1e-6))));
      if (t >= edge && t < seconds) {
        edge = this.system.nextBreak(t);
        // What is behind the edge begins as if nothing were known of it.
        step = Math.min(mostStep / 100, (edge - t) / 20);
        fresh = true;
      }
    }
    return { times, states, steps, rejected };
  }

  /** The first moment: what stores keeps what it has, the rest follows from it. */
  private settled(): Float64Array {
    const { system } = this;
    const start = system.start();
    system.evaluate(start, 0);
    this.stand();
    const y = this.backward(start, 0, LEAST_STEP * 1e3);
    if (!y) system.evaluate(start, 0);
    this.stand();
    return y ?? start;
  }

  /** What the system was last worked out at is where it stands. */
  private stand(): void {
    this.q0.set(this.system.q);
    this.f0.set(this.system.f);
  }

  /** One step, at its end as all stands at `end`; how far it is off, 1 being as far as it may. Null where no solution was found. */
  private take(
    y0: Float64Array,
    t: number,
    step: number,
    end: number,
    fresh: boolean,
  ): { y: Float64Array; off: number } | null {
    const { system, q0, f0, f1, known, scale } = this;
    const { size, stores } = system;
    if (fresh) {
      // Right behind an edge the old flows mean nothing: a backward step needs none of them.
      const y = this.backward(y0, end, step);
      return y && { y, off: this.jumpOff() };
    }
    for (let row = 0; row < size; row++) known[row] = q0[row]! - TRAPEZOID * step * f0[row]!;
    const middle = this.newton(y0, t + GAMMA * step, TRAPEZOID * step);
    if (!middle) return null;
    f1.set(system.f);
    for (let row = 0; row < size; row++) known[row] = OF_MIDDLE * system.q[row]! - OF_START * q0[row]!;
    const y = this.newton(middle, end, BACKWARD * step);
    if (!y) return null;
    let off = 0;
    for (let row = 0; row < size; row++) {
      if (stores[row] === 0) continue;
      const error =
        2 *
        ERROR *
        step *
        (f0[row]! / GAMMA - f1[row]! / (GAMMA * (1 - GAMMA)) + system.f[row]! / (1 - GAMMA));
      const most = Math.max(Math.abs(system.q[row]!), Math.abs(q0[row]!), scale[row]!);
      off = Math.max(off, Math.abs(error) / (this.tolerance * most + LEAST_CHARGE));
    }
    for (let row = 0; row < size; row++) scale[row] = Math.max(scale[row]!, 0.05 * Math.abs(system.q[row]!));
    return { y, off };
  }

  /** A backward step is good where it changes little: its error is of the order of what it moved by. */
  private jumpOff(): number {
    const { system, q0, scale } = this;
    let off = 0;
    for (let row = 0; row < system.size; row++) {
      if (system.stores[row] === 0) continue;
      const size = Math.max(Math.abs(system.q[row]!), scale[row]!);
      off = Math.max(off, (Math.abs(system.q[row]! - q0[row]!) / (20 * (size + 1e-9))) ** 2);
    }
    return off;
  }

  private backward(y0: Float64Array, t: number, step: number): Float64Array | null {
    this.known.set(this.q0);
    return this.newton(y0, t, step);
  }

  /** Solves q(y) + h f(y, t) = known in rows that store, f = 0 in the others; the system is left as it is at what was found. */
  private newton(from: Float64Array, t: number, h: number): Float64Array | null {
    const { system, figures, lu, right, known } = this;
    const { stores, least, q, f, jq, jf } = system;
    const { size, starts } = system.pattern;
    const y = from.slice();
    system.rest(y);
    for (let pass = 0; pass < MOST_PASSES; pass++) {
      system.evaluate(y, t);
      let same = true;
      for (let row = 0; row < size; row++) {
        const stored = stores[row]!;
        const reach = stored === 1 ? h : 1;
        right[row] = stored * (known[row]! - q[row]!) - reach * f[row]!;
        for (let at = starts[row]!; at < starts[row + 1]!; at++) {
          const figure = stored * jq[at]! + reach * jf[at]!;
          same &&= figure === figures[at];
          figures[at] = figure;
        }
      }
      // Where nothing bends and the step stays, what was factored stands.
      if (!(same && this.factored)) this.factored = lu.factor(figures);
      if (!this.factored) return null;
      lu.solve(right);
      let worst = 0;
      for (let row = 0; row < size; row++) {
        const change = right[row]!;
        if (!Number.isFinite(change)) return null;
        y[row] = y[row]! + change;
        worst = Math.max(worst, Math.abs(change) / (SETTLED * Math.abs(y[row]!) + least[row]!));
      }
      if (worst < 1) {
        this.followOn();
        return y;
      }
    }
    return null;
  }

  /** What is stored and what flows after the last pass, by their slopes: it moved by a hair. */
  private followOn(): void {
    const { q, f, jq, jf, pattern } = this.system;
    const { right } = this;
    for (let row = 0; row < pattern.size; row++) {
      let [stored, flow] = [0, 0];
      for (let at = pattern.starts[row]!; at < pattern.starts[row + 1]!; at++) {
        const change = right[pattern.columns[at]!]!;
        stored += jq[at]! * change;
        flow += jf[at]! * change;
      }
      q[row] = q[row]! + stored;
      f[row] = f[row]! + flow;
    }
  }
}

/** A course's value at a moment, straight between the two around it; its ends beyond them. */
export function valueAt(seconds: ArrayLike<number>, values: ArrayLike<number>, at: number): number {
  let [low, high] = [0, seconds.length - 1];
  if (at <= seconds[0]!) return values[0]!;
  if (at >= seconds[high]!) return values[high]!;
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (seconds[middle]! <= at) low = middle;
    else high = middle;
  }
  const share = (at - seconds[low]!) / (seconds[high]! - seconds[low]!);
  return values[low]! + share * (values[high]! - values[low]!);
}
