import type { Spread } from './spread';
import { StarMesh } from './starMesh';

/**
 * A linear resistive network, inverted once and asked often.
 *
 * Nodes are numbered; edges carry a conductance and an electromotive force in series. Galvanic islands (sets of
 * nodes joined by conductance) are kept apart: inside an island every voltage is exact, between islands there is
 * none, and the answer is `NaN` (volts) or `Infinity` (ohms) instead of a number made from rounding noise.
 */
export interface Edge {
  /** Node the current enters. */
  a: number;
  /** Node the current leaves. */
  b: number;
  siemens: number;
  /** Current a to b is `siemens · (v_a − v_b + emf)`. Volts. */
  emf: number;
  /** Imaginary part of the admittance on alternating current, siemens. */
  susceptance?: number;
}

/** An ideal transformer with its copper resistance seen at the secondary. */
export interface Coupling {
  primary: readonly [number, number];
  secondary: readonly [number, number];
  /** Primary volts over secondary volts. */
  ratio: number;
  siemens: number;
}

/** A change of one conductance between two nodes, answered in closed form. */
export interface Delta {
  a: number;
  b: number;
  siemens: number;
  /** Electromotive force in series with the changed conductance, volts. */
  emf?: number;
  /** Change of the imaginary part of the admittance, siemens. */
  susceptance?: number;
}

/**
 * A solved network that answers questions between pairs of nodes. Alternating networks answer with rms magnitudes;
 * everything else carries its sign.
 */
export interface Solved {
  /**
   * What the resistance of pairs of nodes scatters, by `ohmsScatter`, as far as it was asked for: whatever changes beside a network leaves
   * it as it is.
   */
  spreads: Map<number, Spread> | null;
  /** A node standing for all that hang together with this one. */
  sideOf(node: number): number;
  joined(i: number, j: number): boolean;
  /** Open-circuit volts from `i` to `j`; `NaN` where the two float against each other. */
  pairVolts(i: number, j: number): number;
  /** Resistance (size of the impedance) seen between two nodes; `Infinity` where nothing joins them. */
  pairOhms(i: number, j: number): number;
  /** `(e_i − e_j)ᵀ Z (e_p − e_q)`, ohms, for `i`, `j` joined. */
  transfer(i: number, j: number, p: number, q: number): number;
  /** How much lower `i` stands against `j`, as it is shown, for each ampere that is drawn from `p` to `q` by what lies between, ohms. */
  drawnDown(i: number, j: number, p: number, q: number): number;
  /** The network below the changes that current between two nodes knows nothing of; its transfers from that pair are the same. */
  below(i: number, j: number): Solved;
  /** Current from `a` to `b` through an admittance with a source in series, amperes. 0 where the two float. */
  amps(a: number, b: number, siemens: number, emf: number, susceptance: number): number;
}

/** Below this relative size `1 + Δg·z` has vanished: the edge was the only way between two halves. */
export const BRIDGE_RELATIVE = 1e-9;

/** Conductances of a network, inverted as far as it is asked for: everything but the sources. */
export class Matrix {
  /** Reference node of the island each node belongs to. */
  readonly island: Int32Array;
  private readonly mesh: StarMesh | null;
  private readonly columns: (Float64Array | undefined)[];
  /** Numbers kept. */
  kept = 0;

  /** `references` are the nodes that count as zero of their island wherever they stand. */
  constructor(
    readonly nodeCount: number,
    references: readonly number[],
    edges: readonly Edge[],
    couplings: readonly Coupling[] = [],
  ) {
    this.island = islands(nodeCount, references, edges, couplings);
    this.columns = new Array<Float64Array | undefined>(nodeCount).fill(undefined);
    this.mesh = couplings.length === 0 ? new StarMesh(nodeCount, this.island, edges) : null;
    if (this.mesh) return;
    const z = invert(nodeCount, this.island, edges, couplings);
    for (let k = 0; k < nodeCount; k++) this.columns[k] = z.subarray(k * nodeCount, (k + 1) * nodeCount);
    this.kept = z.length;
  }

  /** Column (or row) of the inverse of the conductance matrix, zero at reference nodes. Ohms. */
  column(node: number): Float64Array {
    const known = this.columns[node];
    if (known) return known;
    const column = this.mesh!.column(node);
    this.columns[node] = column;
    this.kept += this.nodeCount;
    return column;
  }

  /** `(e_i − e_j)ᵀ Z (e_p − e_q)`, ohms, for nodes of one island each side. */
  transfer(i: number, j: number, p: number, q: number): number {
    const { columns } = this;
    const [fromI, fromJ] = [columns[i], columns[j]];
    // The matrix is symmetric: whichever side is known already serves.
    if (fromI && fromJ) return fromI[p]! - fromI[q]! - fromJ[p]! + fromJ[q]!;
    const [fromP, fromQ] = [this.column(p), this.column(q)];
    return fromP[i]! - fromP[j]! - fromQ[i]! + fromQ[j]!;
  }
}

export class Network implements Solved {
  spreads: Map<number, Spread> | null = null;
  /** Volts against the island's own reference. */
  readonly volts: Float64Array;
  private readonly island: Int32Array;

  constructor(
    private readonly matrix: Matrix,
    edges: readonly Edge[],
  ) {
    const { nodeCount } = matrix;
    this.island = matrix.island;
    this.volts = new Float64Array(nodeCount);
    for (const { a, b, siemens, emf } of edges) {
      if (siemens === 0 || emf === 0 || a === b) continue;
      const amps = siemens * emf;
      const [fromA, fromB] = [matrix.column(a), matrix.column(b)];
      for (let i = 0; i < nodeCount; i++) this.volts[i] = this.volts[i]! + (fromB[i]! - fromA[i]!) * amps;
    }
  }

  sideOf(node: number): number {
    return this.island[node]!;
  }

  joined(i: number, j: number): boolean {
    return this.island[i] === this.island[j];
  }

  pairVolts(i: number, j: number): number {
    return this.island[i] === this.island[j] ? this.volts[i]! - this.volts[j]! : NaN;
  }

  pairOhms(i: number, j: number): number {
    return this.island[i] === this.island[j] ? this.transfer(i, j, i, j) : Infinity;
  }

  transfer(i: number, j: number, p: number, q: number): number {
    return this.matrix.transfer(i, j, p, q);
  }

  drawnDown(i: number, j: number, p: number, q: number): number {
    return this.transfer(i, j, p, q);
  }

  below(): Solved {
    return this;
  }

  amps(a: number, b: number, siemens: number, emf: number): number {
    return currentThrough(this, a, b, siemens, emf);
  }
}

function currentThrough(solved: Solved, a: number, b: number, siemens: number, emf: number): number {
  if (siemens === 0) return 0;
  const volts = solved.pairVolts(a, b);
  return Number.isNaN(volts) ? 0 : siemens * (volts + emf);
}

/** Kind of closed-form change: none, inside one island, cutting an island in two, joining two islands. */
export type Effect = 'none' | 'inside' | 'cut' | 'join';

/**
 * A solved network with one conductance changed; changes stack. Closed form after Sherman and Morrison (1950), with
 * the two limits that formula cannot carry: a change that joins two islands, and one that cuts an island in two.
 */
export class ChangedNetwork implements Solved {
  spreads: Map<number, Spread> | null = null;
  private readonly effect: Effect;
  private readonly scale: number;
  private readonly drop: number;
  private readonly a: number;
  private readonly b: number;
  private readonly siemens: number;
  private readonly emf: number;
  /** Node standing for each side of the change. */
  private readonly sideA: number;
  private readonly sideB: number;
  /** Sides of a cut that were asked for. */
  private sides: Map<number, number> | null = null;

  constructor(
    private readonly base: Solved,
    { a, b, siemens, emf = 0 }: Delta,
  ) {
    this.a = a;
    this.b = b;
    this.siemens = siemens;
    this.emf = emf;
    this.sideA = base.sideOf(a);
    this.sideB = base.sideOf(b);
    this.scale = 0;
    this.drop = 0;
    if (siemens === 0 || a === b) {
      this.effect = 'none';
    } else if (this.sideA !== this.sideB) {
      this.effect = siemens > 0 ? 'join' : 'none';
    } else {
      const denominator = 1 + siemens * base.transfer(a, b, a, b);
      this.effect = denominator > BRIDGE_RELATIVE ? 'inside' : 'cut';
      if (this.effect === 'inside') {
        this.scale = siemens / denominator;
        this.drop = base.pairVolts(a, b) + emf;
      }
    }
  }

  sideOf(node: number): number {
    if (this.effect !== 'cut') {
      const home = this.base.sideOf(node);
      return this.effect === 'join' && home === this.sideB ? this.sideA : home;
    }
    // Asked of the same few nodes again and again, and worked out by a transfer each.
    const known = this.sides?.get(node);
    if (known !== undefined) return known;
    const side = this.sideOfCut(node);
    (this.sides ??= new Map()).set(node, side);
    return side;
  }

  private sideOfCut(node: number): number {
    const home = this.base.sideOf(node);
    if (home === this.sideA) {
      // Unit current through the cut edge lifts one whole side and leaves the other at the reference.
      const lift = -this.siemens * this.base.transfer(node, home, this.a, this.b);
      if (Math.abs(lift) < 0.5) return home;
      return lift > 0 ? this.a : this.b;
    }
    return home;
  }

  joined(i: number, j: number): boolean {
    if (i === j) return true;
    if (this.effect === 'none' || this.effect === 'inside') return this.base.joined(i, j);
    return this.sideOf(i) === this.sideOf(j);
  }

  pairVolts(i: number, j: number): number {
    const { base } = this;
    if (this.effect === 'inside') {
      const plain = base.pairVolts(i, j);
      if (this.drop === 0 || Number.isNaN(plain)) return plain;
      return plain - this.scale * this.drop * base.transfer(i, j, this.a, this.b);
    }
    if (this.effect === 'none') return base.pairVolts(i, j);
    if (!this.joined(i, j)) return NaN;
    if (this.effect === 'join' && !base.joined(i, j)) {
      // No current can flow through the only bridge: its ends stand apart by no more than its source.
      const nearA = base.sideOf(i) === this.sideA;
      const [near, far] = nearA ? [this.a, this.b] : [this.b, this.a];
      return base.pairVolts(i, near) + (nearA ? -this.emf : this.emf) + base.pairVolts(far, j);
    }
    return base.pairVolts(i, j);
  }

  transfer(i: number, j: number, p: number, q: number): number {
    const { base } = this;
    if (this.effect === 'inside') {
      const plain = base.transfer(i, j, p, q);
      const reach = base.transfer(i, j, this.a, this.b);
      return reach === 0 ? plain : plain - this.scale * reach * base.transfer(this.a, this.b, p, q);
    }
    if (this.effect === 'join') return this.acrossJoin(i, j, p, q);
    return base.transfer(i, j, p, q);
  }

  drawnDown(i: number, j: number, p: number, q: number): number {
    return this.transfer(i, j, p, q);
  }

  below(i: number, j: number): Solved {
    const { base, effect, a, b } = this;
    if (effect === 'none' || (effect === 'inside' && base.transfer(i, j, a, b) === 0))
      return base.below(i, j);
    return this;
  }

  /** Current and volts that cross the only bridge between two islands pass both its ends and itself. */
  private acrossJoin(i: number, j: number, p: number, q: number): number {
    const { base } = this;
    if (!base.joined(i, j)) {
      const fromA = base.sideOf(i) === this.sideA;
      const [near, far] = fromA ? [this.a, this.b] : [this.b, this.a];
      const legs = this.acrossJoin(i, near, p, q) + this.acrossJoin(far, j, p, q);
      if (base.joined(p, q)) return legs;
      const along = (base.sideOf(p) === this.sideA) === fromA ? 1 : -1;
      return legs + along / this.siemens;
    }
    if (base.joined(p, q)) return base.transfer(i, j, p, q);
    const [near, far] = base.sideOf(p) === this.sideA ? [this.a, this.b] : [this.b, this.a];
    return base.transfer(i, j, p, near) + base.transfer(i, j, far, q);
  }

  pairOhms(i: number, j: number): number {
    if (i === j) return 0;
    return this.joined(i, j) ? this.transfer(i, j, i, j) : Infinity;
  }

  amps(a: number, b: number, siemens: number, emf: number): number {
    return currentThrough(this, a, b, siemens, emf);
  }
}

export function islands(
  nodeCount: number,
  references: readonly number[],
  edges: readonly Edge[],
  couplings: readonly Coupling[],
): Int32Array {
  const parent = new Int32Array(nodeCount);
  for (let i = 0; i < nodeCount; i++) parent[i] = i;
  const find = (node: number): number => {
    let top = node;
    while (parent[top] !== top) top = parent[top]!;
    while (parent[node] !== top) {
      const next = parent[node]!;
      parent[node] = top;
      node = next;
    }
    return top;
  };
  const join = (a: number, b: number) => {
    const [x, y] = [find(a), find(b)];
    // The frame is always its island's reference; otherwise the lowest number is.
    if (x === y) return;
    if (references.includes(x) || (!references.includes(y) && x < y)) parent[y] = x;
    else parent[x] = y;
  };
  for (const { a, b, siemens, susceptance } of edges) if (siemens > 0 || susceptance) join(a, b);
  for (const { primary, secondary } of couplings) {
    join(primary[0], primary[1]);
    join(secondary[0], secondary[1]);
  }
  for (let i = 0; i < nodeCount; i++) parent[i] = find(i);
  return parent;
}

/** Magnetising branch of a transformer, as a fraction of its copper conductance at the primary. */
export const MAGNETISING = 1e-4;

function invert(
  n: number,
  island: Int32Array,
  edges: readonly Edge[],
  couplings: readonly Coupling[],
): Float64Array {
  // A reference node is no unknown: its row and column stay zero.
  const z = new Float64Array(n * n);
  const add = (i: number, j: number, value: number) => {
    if (island[i] !== i && island[j] !== j) z[i * n + j] = z[i * n + j]! + value;
  };
  const stamp = (a: number, b: number, g: number) => {
    add(a, a, g);
    add(b, b, g);
    add(a, b, -g);
    add(b, a, -g);
  };
  for (const { a, b, siemens } of edges) if (siemens > 0 && a !== b) stamp(a, b, siemens);
  for (const { primary, secondary, ratio, siemens } of couplings) {
    const nodes = [primary[0], primary[1], secondary[0], secondary[1]];
    const weights = [1 / ratio, -1 / ratio, -1, 1];
    nodes.forEach((i, x) => nodes.forEach((j, y) => add(i, j, siemens * weights[x]! * weights[y]!)));
    stamp(primary[0], primary[1], (siemens * MAGNETISING) / (ratio * ratio));
  }
  for (let k = 0; k < n; k++) if (island[k] !== k) eliminate(z, n, k);
  return z;
}

/**
 * One step of Gauss and Jordan's inversion in place. The matrix is positive definite, every island having its reference
 * taken out, so the diagonal carries each pivot. Rows that the pivot does not touch are passed over: wiring is sparse.
 */
function eliminate(z: Float64Array, n: number, k: number): void {
  const rowK = k * n;
  const pivot = 1 / Math.max(z[rowK + k]!, Number.MIN_VALUE);
  z[rowK + k] = 1;
  for (let j = 0; j < n; j++) z[rowK + j] = z[rowK + j]! * pivot;
  for (let i = 0; i < n; i++) {
    const rowI = i * n;
    const factor = z[rowI + k]!;
    if (factor === 0 || i === k) continue;
    z[rowI + k] = 0;
    for (let j = 0; j < n; j++) z[rowI + j] = z[rowI + j]! - factor * z[rowK + j]!;
  }
}
