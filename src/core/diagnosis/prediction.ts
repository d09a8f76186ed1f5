import type { Common } from '../circuit/spread';

/** A figure that is due. */
export interface NumberDue {
  type: 'number';
  /** Volts, amperes, ohms or kPa; `Infinity` is over-range. */
  mean: number;
  /** Scatter from part tolerances, without the meter's own. */
  sigma: number;
  /** The pair floats, or the circuit chatters: the display wanders, the figure says little. */
  loose: boolean;
  /**
   * What it shows instead as often as not, where nobody can know which: an output in its limit that shuts off, a filament that is cold, a
   * rotor that stands.
   */
  instead?: Instead;
  /** How the one branch that nobody has said and that moves it most does so: it moves every reading of its circuit. */
  common?: Common;
}

/** The other figure of two that may be due. */
export type Instead = Pick<NumberDue, 'mean' | 'sigma'>;

/** What a meter or a person would find in one world. */
export type Prediction = NumberDue | { type: 'choice'; odds: Readonly<Record<string, number>> };

/** Share of the other figure where two may be due: nothing says which is the likelier. */
export const INSTEAD_SHARE = 0.5;

/** Softness of thresholds (fuse, pull-in, works or weak), relative. */
const THRESHOLD_SOFTNESS = 0.06;

/** Probability that a quantity is above its threshold, from the logarithm of their ratio. */
export function soft(logRatio: number, softness = THRESHOLD_SOFTNESS): number {
  return 1 / (1 + Math.exp(-logRatio / softness));
}

/** Many predictions of one question, packed: thousands of small objects would cost more than the arithmetic. */
export class PackedPredictions {
  private readonly means: Float64Array;
  private readonly sigmas: Float64Array;
  private readonly loose: Uint8Array;
  /** Part of the fuse that running it would have taken, by place; -1 where none. */
  readonly takes: Int16Array;
  /** Whether it would have taken one anywhere. */
  takesAny = false;
  /** By row: it shows the same at each of its severities. */
  readonly flat: Uint8Array;
  /** Odds of choices; null for numbers. Equal neighbours share one object. */
  private odds: (Readonly<Record<string, number>> | null)[] | null = null;
  /** The other figure and its scatter, two by two; NaN where only one is due, null as long as there is none. */
  private instead: Float64Array | null = null;
  private readonly other = { mean: 0, sigma: 0 };
  /** Branch that nobody has said, -1 where there is none, and how it moves the figure, two by two; null as long as there is none. */
  private commonBranch: Int32Array | null = null;
  private commonCourse: Float64Array | null = null;
  private readonly shared = { branch: 0, slope: 0, bend: 0 };
  private readonly number: NumberDue = {
    type: 'number',
    mean: 0,
    sigma: 0,
    loose: false,
  };
  private readonly choice = { type: 'choice' as const, odds: {} as Readonly<Record<string, number>> };

  constructor(
    readonly length: number,
    rows: number,
  ) {
    this.flat = new Uint8Array(rows);
    this.means = new Float64Array(length);
    this.sigmas = new Float64Array(length);
    this.loose = new Uint8Array(length);
    this.takes = new Int16Array(length).fill(-1);
  }

  set(at: number, prediction: Prediction): void {
    if (prediction.type === 'number') {
      this.means[at] = prediction.mean;
      this.sigmas[at] = prediction.sigma;
      this.loose[at] = prediction.loose ? 1 : 0;
      if (prediction.instead) {
        this.instead ??= new Float64Array(2 * this.length).fill(NaN);
        this.instead[2 * at] = prediction.instead.mean;
        this.instead[2 * at + 1] = prediction.instead.sigma;
      }
      if (prediction.common) {
        this.commonBranch ??= new Int32Array(this.length).fill(-1);
        this.commonCourse ??= new Float64Array(2 * this.length);
        this.commonBranch[at] = prediction.common.branch;
        this.commonCourse[2 * at] = prediction.common.slope;
        this.commonCourse[2 * at + 1] = prediction.common.bend;
      }
    } else {
      this.odds ??= new Array<Readonly<Record<string, number>> | null>(this.length).fill(null);
      this.odds[at] = prediction.odds;
    }
  }

  /** The prediction at a place. The object is used again by the next call: read it, do not keep it. */
  peek(at: number): Prediction {
    if (this.odds) {
      this.choice.odds = this.odds[at]!;
      return this.choice;
    }
    this.number.mean = this.means[at]!;
    this.number.sigma = this.sigmas[at]!;
    this.number.loose = this.loose[at] === 1;
    const other = this.instead ? this.instead[2 * at]! : NaN;
    if (Number.isNaN(other)) delete this.number.instead;
    else {
      this.other.mean = other;
      this.other.sigma = this.instead![2 * at + 1]!;
      this.number.instead = this.other;
    }
    const branch = this.commonBranch ? this.commonBranch[at]! : -1;
    if (branch < 0) delete this.number.common;
    else {
      this.shared.branch = branch;
      this.shared.slope = this.commonCourse![2 * at]!;
      this.shared.bend = this.commonCourse![2 * at + 1]!;
      this.number.common = this.shared;
    }
    return this.number;
  }

  /** Puts what stands at one place at another too. */
  copy(from: number, to: number): void {
    this.set(to, this.peek(from));
    this.takes[to] = this.takes[from]!;
  }

  /** Whether two places show the same and take the same fuse. */
  same(one: number, two: number): boolean {
    if (this.takes[one] !== this.takes[two]) return false;
    if (this.odds) return areSameOdds(this.odds[one]!, this.odds[two]!);
    return (
      this.means[one] === this.means[two] &&
      this.sigmas[one] === this.sigmas[two] &&
      this.loose[one] === this.loose[two] &&
      (this.commonBranch === null ||
        (this.commonBranch[one] === this.commonBranch[two] &&
          this.commonCourse![2 * one] === this.commonCourse![2 * two] &&
          this.commonCourse![2 * one + 1] === this.commonCourse![2 * two + 1])) &&
      (this.instead === null ||
        (Object.is(this.instead[2 * one], this.instead[2 * two]) &&
          Object.is(this.instead[2 * one + 1], this.instead[2 * two + 1])))
    );
  }
}

function areSameOdds(
  one: Readonly<Record<string, number>>,
  other: Readonly<Record<string, number>>,
): boolean {
  if (one === other) return true;
  for (const key in one) if (one[key] !== other[key]) return false;
  for (const key in other) if (!(key in one)) return false;
  return true;
}
