import { OWN_UNKNOWNS, type Element } from './elements';
import { SparseLu } from './sparseLu';
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
/** Newton is done when nothing moves by more than this share, or this much. */
const SETTLED = 1e-5;
const LEAST = { volts: 1e-7, charge: 1e-12 };
/** A step this small is as good as none: the circuit has no course. */
const LEAST_STEP = 1e-13;
const MOST_STEPS = 400_000;

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
  { mostStep = seconds / 1000, tolerance = USUAL_TOLERANCE }: RunOptions = {},
): Course {
  return new Runner(new TimeSystem(nodes, elements), elements, tolerance).run(seconds, mostStep);
}

class Runner {
  private readonly q0: Float64Array;
  private readonly f0: Float64Array;
  private readonly q1: Float64Array;
  private readonly f1: Float64Array;
  private readonly figures: Float64Array;
  private readonly lu: SparseLu;
  private readonly right: Float64Array;

  constructor(
    private readonly system: TimeSystem,
    private readonly elements: readonly Element[],
    private readonly tolerance: number,
  ) {
    const { size } = system;
    [this.q0, this.f0, this.q1, this.f1, this.right] = Array.from(
      { length: 5 },
      () => new Float64Array(size),
    ) as [Float64Array, Float64Array, Float64Array, Float64Array, Float64Array];
    this.scale = system.sizes.slice();
    this.figures = new Float64Array(system.jf.length);
    this.lu = new SparseLu(system.pattern);
  }

  run(seconds: number, mostStep: number): Course {
    const { system } = this;
    const times: number[] = [];
    const states: Float64Array[] = [];
    const keep = (t: number, y: Float64Array) => {
      times.push(t);
      states.push(y.slice());
    };
    let y: Float64Array = system.start();
    let t = 0;
    let step = mostStep / 100;
    let [steps, rejected] = [0, 0];
    let fresh = true;
    let edge = this.nextBreak(0);
    keep(0, this.settle(y, 0));
    y = states[0]!.slice();
    while (t < seconds * (1 - 1e-12)) {
      if (steps + rejected > MOST_STEPS) throw new Error(`no end after ${MOST_STEPS} steps, at ${t} s`);
      const last = Math.min(edge, seconds);
      step = Math.min(step, mostStep, last - t);
      // A sliver before an edge is taken with the step before it.
      if (last - t - step < 0.1 * step) step = last - t;
      const taken = this.take(y, t, step, fresh);
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
      keep(t, y);
      step *= Math.min(3, Math.max(0.3, 0.9 / Math.cbrt(Math.max(taken.off, 1e-6))));
      if (t >= edge && t < seconds) {
        edge = this.nextBreak(t);
        // What is behind the edge begins as if nothing were known of it.
        step = Math.min(mostStep / 100, (edge - t) / 20);
        fresh = true;
      }
    }
    return this.courseOf(times, states, steps, rejected);
  }

  private nextBreak(t: number): number {
    let next = Infinity;
    for (const element of this.elements) {
      if (element.kind === 'source') next = Math.min(next, element.volts.nextBreak(t));
      if (element.kind === 'switch') next = Math.min(next, element.schedule.nextBreak(t));
    }
    return next;
  }

  /** The first moment: what stores keeps what it has, the rest follows from it. */
  private settle(y: Float64Array, t: number): Float64Array {
    return this.implicit(y, t, LEAST_STEP * 1e3, 1) ?? y;
  }

  /** One step; how far it is off, 1 being as far as it may. Null where no solution was found. */
  private take(
    y0: Float64Array,
    t: number,
    step: number,
    fresh: boolean,
  ): { y: Float64Array; off: number } | null {
    const { system, q0, f0, q1, f1 } = this;
    if (fresh) {
      // Right behind an edge the old flows mean nothing: a backward step needs none of them.
      const y = this.implicit(y0, t + step, step, 1);
      return y && { y, off: this.jumpOff(y0, y, step) };
    }
    system.evaluate(y0, t);
    q0.set(system.q);
    f0.set(system.f);
    const middle = this.newton(
      y0,
      t + GAMMA * step,
      TRAPEZOID * step,
      (row) => q0[row]! - TRAPEZOID * step * f0[row]!,
    );
    if (!middle) return null;
    system.evaluate(middle, t + GAMMA * step);
    q1.set(system.q);
    f1.set(system.f);
    const y = this.newton(
      middle,
      t + step,
      BACKWARD * step,
      (row) => OF_MIDDLE * q1[row]! - OF_START * q0[row]!,
    );
    if (!y) return null;
    system.evaluate(y, t + step);
    let off = 0;
    for (let row = 0; row < system.size; row++) {
      if (system.stores[row] === 0) continue;
      const error =
        2 *
        ERROR *
        step *
        (f0[row]! / GAMMA - f1[row]! / (GAMMA * (1 - GAMMA)) + system.f[row]! / (1 - GAMMA));
      const size = Math.max(Math.abs(system.q[row]!), Math.abs(q0[row]!), this.scale[row]!);
      off = Math.max(off, Math.abs(error) / (this.tolerance * size + LEAST.charge));
    }
    this.grow(system.q);
    return { y, off };
  }

  /** The most that each row has stored so far, and at the least what it is made for; of it a share may be off. */
  private readonly scale: Float64Array;
  private grow(q: Float64Array): void {
    for (let row = 0; row < q.length; row++)
      this.scale[row] = Math.max(this.scale[row]!, 0.05 * Math.abs(q[row]!));
  }

  /** A backward step is good where it changes little: its error is of the order of what it moved by. */
  private jumpOff(y0: Float64Array, y: Float64Array, step: number): number {
    const { system, q0 } = this;
    system.evaluate(y0, 0);
    q0.set(system.q);
    system.evaluate(y, step);
    let off = 0;
    for (let row = 0; row < system.size; row++) {
      if (system.stores[row] === 0) continue;
      const size = Math.max(Math.abs(system.q[row]!), this.scale[row]!);
      off = Math.max(off, (Math.abs(system.q[row]! - q0[row]!) / (20 * (size + 1e-9))) ** 2);
    }
    return off;
  }

  private implicit(y0: Float64Array, t: number, step: number, weight: number): Float64Array | null {
    const { system } = this;
    system.evaluate(y0, t);
    const stored = system.q.slice();
    return this.newton(y0, t, weight * step, (row) => stored[row]!);
  }

  /** Solves q(y) + h f(y, t) = known in rows that store, f = 0 in the others. */
  private newton(
    from: Float64Array,
    t: number,
    h: number,
    known: (row: number) => number,
  ): Float64Array | null {
    const { system, figures, lu, right } = this;
    const { size, starts } = system.pattern;
    const y = from.slice();
    system.rest(y);
    for (let pass = 0; pass < MOST_PASSES; pass++) {
      system.evaluate(y, t);
      for (let row = 0; row < size; row++) {
        const stores = system.stores[row] === 1;
        right[row] = stores ? known(row) - system.q[row]! - h * system.f[row]! : -system.f[row]!;
        for (let at = starts[row]!; at < starts[row + 1]!; at++)
          figures[at] = stores ? system.jq[at]! + h * system.jf[at]! : system.jf[at]!;
      }
      if (!lu.factor(figures)) return null;
      lu.solve(right);
      let worst = 0;
      for (let row = 0; row < size; row++) {
        const change = right[row]!;
        if (!Number.isFinite(change)) return null;
        y[row] = y[row]! + change;
        worst = Math.max(worst, Math.abs(change) / (SETTLED * Math.abs(y[row]!) + LEAST.volts));
      }
      if (worst < 1) return y;
    }
    return null;
  }

  private courseOf(times: number[], states: Float64Array[], steps: number, rejected: number): Course {
    const { system } = this;
    const over = (row: number) => Float64Array.from(states, (y) => y[row]!);
    return {
      seconds: Float64Array.from(times),
      volts: [
        new Float64Array(times.length),
        ...Array.from({ length: system.nodes }, (_one, node) => over(node)),
      ],
      own: this.elements.map((element, at) => {
        const first = system.own[at]!;
        return OWN_UNKNOWNS[element.kind].map((_name, k) => over(first + k));
      }),
      steps,
      rejected,
    };
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
