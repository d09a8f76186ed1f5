import {
  BRIDGE_RELATIVE,
  islands,
  MAGNETISING,
  type Coupling,
  type Delta,
  type Edge,
  type Effect,
  type Solved,
} from './network';
import type { Spread } from './spread';

/** A complex number: real and imaginary part. */
export interface Phasor {
  re: number;
  im: number;
}

const ZERO: Phasor = { re: 0, im: 0 };
const plus = (a: Phasor, b: Phasor): Phasor => ({ re: a.re + b.re, im: a.im + b.im });
const minus = (a: Phasor, b: Phasor): Phasor => ({ re: a.re - b.re, im: a.im - b.im });
const times = (a: Phasor, b: Phasor): Phasor => ({
  re: a.re * b.re - a.im * b.im,
  im: a.re * b.im + a.im * b.re,
});
const size = ({ re, im }: Phasor): number => Math.hypot(re, im);
const over = (a: Phasor, b: Phasor): Phasor => {
  const square = b.re * b.re + b.im * b.im;
  return { re: (a.re * b.re + a.im * b.im) / square, im: (a.im * b.re - a.re * b.im) / square };
};

/** Phasor answers behind the magnitudes of {@link Solved}; what stacked changes are worked out from. */
interface AcSolved extends Solved {
  phasorVolts(i: number, j: number): Phasor;
  phasorTransfer(i: number, j: number, p: number, q: number): Phasor;
  /** Node stands on an alternating supply: its volts are a magnitude. */
  alternates(node: number): boolean;
}

/** Admittances of a single-frequency network, inverted. */
export class AcMatrix {
  readonly island: Int32Array;
  readonly re: Float64Array;
  readonly im: Float64Array;
  /** Numbers kept. */
  readonly kept: number;

  constructor(
    readonly nodeCount: number,
    references: readonly number[],
    edges: readonly Edge[],
    couplings: readonly Coupling[],
    readonly alternating: Uint8Array,
  ) {
    this.island = islands(nodeCount, references, edges, couplings);
    const { re, im } = invertComplex(nodeCount, this.island, edges, couplings);
    this.re = re;
    this.im = im;
    this.kept = re.length + im.length;
  }
}

/** The same questions as `Network`, on alternating current with reactance. */
export class AcNetwork implements AcSolved {
  spreads: Map<number, Spread> | null = null;
  private readonly voltsRe: Float64Array;
  private readonly voltsIm: Float64Array;

  constructor(
    private readonly matrix: AcMatrix,
    edges: readonly Edge[],
  ) {
    const { nodeCount: n, re, im } = matrix;
    this.voltsRe = new Float64Array(n);
    this.voltsIm = new Float64Array(n);
    for (const { a, b, siemens, emf, susceptance = 0 } of edges) {
      if (emf === 0 || (siemens === 0 && susceptance === 0)) continue;
      const [real, imaginary] = [siemens * emf, susceptance * emf];
      for (let i = 0; i < n; i++) {
        const zRe = re[b * n + i]! - re[a * n + i]!;
        const zIm = im[b * n + i]! - im[a * n + i]!;
        this.voltsRe[i] = this.voltsRe[i]! + zRe * real - zIm * imaginary;
        this.voltsIm[i] = this.voltsIm[i]! + zRe * imaginary + zIm * real;
      }
    }
  }

  alternates(node: number): boolean {
    return this.matrix.alternating[node] === 1;
  }

  sideOf(node: number): number {
    return this.matrix.island[node]!;
  }

  joined(i: number, j: number): boolean {
    return this.matrix.island[i] === this.matrix.island[j];
  }

  phasorVolts(i: number, j: number): Phasor {
    return {
      re: this.voltsRe[i]! - this.voltsRe[j]!,
      im: this.voltsIm[i]! - this.voltsIm[j]!,
    };
  }

  phasorTransfer(i: number, j: number, p: number, q: number): Phasor {
    const { nodeCount: n, re, im } = this.matrix;
    const pick = (z: Float64Array) => z[i * n + p]! - z[i * n + q]! - z[j * n + p]! + z[j * n + q]!;
    return { re: pick(re), im: pick(im) };
  }

  pairVolts(i: number, j: number): number {
    return shownVolts(this, i, j);
  }

  pairOhms(i: number, j: number): number {
    return this.joined(i, j) ? size(this.phasorTransfer(i, j, i, j)) : Infinity;
  }

  transfer(i: number, j: number, p: number, q: number): number {
    return size(this.phasorTransfer(i, j, p, q));
  }

  drawnDown(i: number, j: number, p: number, q: number): number {
    return shownDown(this, i, j, p, q);
  }

  below(): AcSolved {
    return this;
  }

  amps(a: number, b: number, siemens: number, emf: number, susceptance: number): number {
    return phasorAmps(this, a, b, { re: siemens, im: susceptance }, emf);
  }
}

/** One admittance of an alternating network changed; the complex twin of `ChangedNetwork`. */
export class AcChangedNetwork implements AcSolved {
  spreads: Map<number, Spread> | null = null;
  private readonly effect: Effect;
  private readonly scale: Phasor;
  private readonly drop: Phasor;
  private readonly a: number;
  private readonly b: number;
  private readonly admittance: Phasor;
  private readonly emf: number;
  private readonly sideA: number;
  private readonly sideB: number;

  constructor(
    private readonly base: AcSolved,
    { a, b, siemens, emf = 0, susceptance = 0 }: Delta,
  ) {
    this.a = a;
    this.b = b;
    this.admittance = { re: siemens, im: susceptance };
    this.emf = emf;
    this.sideA = base.sideOf(a);
    this.sideB = base.sideOf(b);
    this.scale = ZERO;
    this.drop = ZERO;
    if ((siemens === 0 && susceptance === 0) || a === b) {
      this.effect = 'none';
    } else if (this.sideA !== this.sideB) {
      this.effect = siemens > 0 ? 'join' : 'none';
    } else {
      const denominator = plus({ re: 1, im: 0 }, times(this.admittance, base.phasorTransfer(a, b, a, b)));
      this.effect = size(denominator) > BRIDGE_RELATIVE ? 'inside' : 'cut';
      if (this.effect === 'inside') {
        this.scale = over(this.admittance, denominator);
        this.drop = plus(base.phasorVolts(a, b), { re: emf, im: 0 });
      }
    }
  }

  alternates(node: number): boolean {
    return this.base.alternates(node);
  }

  sideOf(node: number): number {
    const home = this.base.sideOf(node);
    if (this.effect === 'join' && home === this.sideB) return this.sideA;
    if (this.effect === 'cut' && home === this.sideA) {
      const lift = times(this.admittance, this.base.phasorTransfer(node, home, this.a, this.b));
      if (size(lift) < 0.5) return home;
      return lift.re < 0 ? this.a : this.b;
    }
    return home;
  }

  joined(i: number, j: number): boolean {
    if (i === j) return true;
    if (this.effect === 'none' || this.effect === 'inside') return this.base.joined(i, j);
    return this.sideOf(i) === this.sideOf(j);
  }

  phasorVolts(i: number, j: number): Phasor {
    const { base } = this;
    if (this.effect === 'inside') {
      const reach = base.phasorTransfer(i, j, this.a, this.b);
      return minus(base.phasorVolts(i, j), times(times(this.scale, this.drop), reach));
    }
    if (this.effect === 'join' && !base.joined(i, j)) {
      const nearA = base.sideOf(i) === this.sideA;
      const [near, far] = nearA ? [this.a, this.b] : [this.b, this.a];
      const step = { re: nearA ? -this.emf : this.emf, im: 0 };
      return plus(plus(base.phasorVolts(i, near), step), base.phasorVolts(far, j));
    }
    return base.phasorVolts(i, j);
  }

  phasorTransfer(i: number, j: number, p: number, q: number): Phasor {
    const { base } = this;
    if (this.effect === 'inside') {
      const reach = times(this.scale, base.phasorTransfer(i, j, this.a, this.b));
      return minus(base.phasorTransfer(i, j, p, q), times(reach, base.phasorTransfer(this.a, this.b, p, q)));
    }
    if (this.effect === 'join') return this.acrossJoin(i, j, p, q);
    return base.phasorTransfer(i, j, p, q);
  }

  pairVolts(i: number, j: number): number {
    return shownVolts(this, i, j);
  }

  private acrossJoin(i: number, j: number, p: number, q: number): Phasor {
    const { base } = this;
    if (!base.joined(i, j)) {
      const fromA = base.sideOf(i) === this.sideA;
      const [near, far] = fromA ? [this.a, this.b] : [this.b, this.a];
      const legs = plus(this.acrossJoin(i, near, p, q), this.acrossJoin(far, j, p, q));
      if (base.joined(p, q)) return legs;
      const along = (base.sideOf(p) === this.sideA) === fromA ? 1 : -1;
      return plus(legs, over({ re: along, im: 0 }, this.admittance));
    }
    if (base.joined(p, q)) return base.phasorTransfer(i, j, p, q);
    const [near, far] = base.sideOf(p) === this.sideA ? [this.a, this.b] : [this.b, this.a];
    return plus(base.phasorTransfer(i, j, p, near), base.phasorTransfer(i, j, far, q));
  }

  pairOhms(i: number, j: number): number {
    if (i === j) return 0;
    return this.joined(i, j) ? size(this.phasorTransfer(i, j, i, j)) : Infinity;
  }

  transfer(i: number, j: number, p: number, q: number): number {
    return size(this.phasorTransfer(i, j, p, q));
  }

  drawnDown(i: number, j: number, p: number, q: number): number {
    return shownDown(this, i, j, p, q);
  }

  below(): AcSolved {
    return this;
  }

  amps(a: number, b: number, siemens: number, emf: number, susceptance: number): number {
    return phasorAmps(this, a, b, { re: siemens, im: susceptance }, emf);
  }
}

function shownVolts(solved: AcSolved, i: number, j: number): number {
  if (!solved.joined(i, j)) return NaN;
  const volts = solved.phasorVolts(i, j);
  return solved.alternates(i) || solved.alternates(j) ? size(volts) : volts.re;
}

/** The size of what is drawn down is that of the transfer, its phase being nobody's; its sign is that of what stands across what draws. */
function shownDown(solved: AcSolved, i: number, j: number, p: number, q: number): number {
  if (!solved.joined(i, j) || !solved.joined(p, q)) return 0;
  const transfer = solved.phasorTransfer(i, j, p, q);
  const drawn = times(transfer, solved.phasorVolts(p, q));
  const { re, im } = solved.phasorVolts(i, j);
  const isSize = solved.alternates(i) || solved.alternates(j);
  return Math.sign(isSize ? re * drawn.re + im * drawn.im : drawn.re) * size(transfer);
}

function phasorAmps(solved: AcSolved, a: number, b: number, admittance: Phasor, emf: number): number {
  if ((admittance.re === 0 && admittance.im === 0) || !solved.joined(a, b)) return 0;
  const amps = times(admittance, plus(solved.phasorVolts(a, b), { re: emf, im: 0 }));
  return solved.alternates(a) || solved.alternates(b) ? size(amps) : amps.re;
}

/**
 * Inverse of the complex symmetric admittance matrix by Gauss and Jordan. Conductance is positive definite island by
 * island, so the diagonal carries every pivot and no rows change places.
 */
function invertComplex(
  n: number,
  island: Int32Array,
  edges: readonly Edge[],
  couplings: readonly Coupling[],
): { re: Float64Array; im: Float64Array } {
  const unknown: number[] = [];
  const slot = new Int32Array(n).fill(-1);
  for (let i = 0; i < n; i++) {
    if (island[i] === i) continue;
    slot[i] = unknown.length;
    unknown.push(i);
  }
  const m = unknown.length;
  const re = new Float64Array(m * m);
  const im = new Float64Array(m * m);
  const add = (i: number, j: number, real: number, imaginary: number) => {
    const [p, q] = [slot[i]!, slot[j]!];
    if (p < 0 || q < 0) return;
    re[p * m + q] = re[p * m + q]! + real;
    im[p * m + q] = im[p * m + q]! + imaginary;
  };
  const stamp = (a: number, b: number, g: number, s: number) => {
    add(a, a, g, s);
    add(b, b, g, s);
    add(a, b, -g, -s);
    add(b, a, -g, -s);
  };
  for (const { a, b, siemens, susceptance = 0 } of edges) {
    if ((siemens > 0 || susceptance !== 0) && a !== b) stamp(a, b, siemens, susceptance);
  }
  for (const { primary, secondary, ratio, siemens } of couplings) {
    const nodes = [primary[0], primary[1], secondary[0], secondary[1]];
    const weights = [1 / ratio, -1 / ratio, -1, 1];
    nodes.forEach((i, x) => nodes.forEach((j, y) => add(i, j, siemens * weights[x]! * weights[y]!, 0)));
    stamp(primary[0], primary[1], (siemens * MAGNETISING) / (ratio * ratio), 0);
  }
  for (let k = 0; k < m; k++) {
    const pivot = over({ re: 1, im: 0 }, { re: re[k * m + k]!, im: im[k * m + k]! });
    re[k * m + k] = 1;
    im[k * m + k] = 0;
    for (let j = 0; j < m; j++) scale(re, im, k * m + j, pivot);
    for (let i = 0; i < m; i++) {
      if (i === k) continue;
      const factor = { re: re[i * m + k]!, im: im[i * m + k]! };
      if (factor.re === 0 && factor.im === 0) continue;
      re[i * m + k] = 0;
      im[i * m + k] = 0;
      for (let j = 0; j < m; j++) {
        const [r, s] = [re[k * m + j]!, im[k * m + j]!];
        re[i * m + j] = re[i * m + j]! - (factor.re * r - factor.im * s);
        im[i * m + j] = im[i * m + j]! - (factor.re * s + factor.im * r);
      }
    }
  }
  const full = { re: new Float64Array(n * n), im: new Float64Array(n * n) };
  for (let p = 0; p < m; p++) {
    for (let q = 0; q < m; q++) {
      full.re[unknown[p]! * n + unknown[q]!] = re[p * m + q]!;
      full.im[unknown[p]! * n + unknown[q]!] = im[p * m + q]!;
    }
  }
  return full;
}

function scale(re: Float64Array, im: Float64Array, at: number, by: Phasor): void {
  const [r, s] = [re[at]!, im[at]!];
  re[at] = r * by.re - s * by.im;
  im[at] = r * by.im + s * by.re;
}
