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
}

/** Below this relative size `1 + Δg·z` has vanished: the edge was the only way between two halves. */
const BRIDGE_RELATIVE = 1e-9;

export class Network {
  /** Reference node of the island each node belongs to. */
  readonly island: Int32Array;
  /** Volts against the island's own reference. */
  readonly volts: Float64Array;
  /** Inverse of the conductance matrix, n·n, zero in the rows of reference nodes. Ohms. */
  readonly z: Float64Array;

  constructor(
    readonly nodeCount: number,
    readonly frame: number,
    readonly edges: readonly Edge[],
    couplings: readonly Coupling[] = [],
  ) {
    this.island = islands(nodeCount, frame, edges, couplings);
    this.z = invert(nodeCount, this.island, edges, couplings);
    this.volts = new Float64Array(nodeCount);
    const injected = new Float64Array(nodeCount);
    for (const edge of edges) {
      if (edge.siemens === 0 || edge.emf === 0) continue;
      const current = edge.siemens * edge.emf;
      injected[edge.a] = injected[edge.a]! - current;
      injected[edge.b] = injected[edge.b]! + current;
    }
    for (let k = 0; k < nodeCount; k++) {
      const amps = injected[k]!;
      if (amps === 0) continue;
      const row = k * nodeCount;
      for (let i = 0; i < nodeCount; i++) this.volts[i] = this.volts[i]! + this.z[row + i]! * amps;
    }
  }

  /** Open-circuit volts from `i` to `j`; `NaN` where the two float against each other. */
  pairVolts(i: number, j: number): number {
    return this.island[i] === this.island[j] ? this.volts[i]! - this.volts[j]! : NaN;
  }

  /** Resistance seen between two nodes; `Infinity` across islands. */
  pairOhms(i: number, j: number): number {
    if (this.island[i] !== this.island[j]) return Infinity;
    return this.transfer(i, j, i, j);
  }

  /** `(e_i − e_j)ᵀ Z (e_p − e_q)`, ohms. Meaningful inside one island. */
  transfer(i: number, j: number, p: number, q: number): number {
    const { z, nodeCount: n } = this;
    return z[i * n + p]! - z[i * n + q]! - z[j * n + p]! + z[j * n + q]!;
  }
}

/** Kind of closed-form change: none, inside one island, cutting an island in two, joining two islands. */
type Effect = 'none' | 'inside' | 'cut' | 'join';

/**
 * A network with at most one conductance changed. Closed form after Sherman and Morrison (1950), with the two
 * limits that formula cannot carry: a change that joins two islands, and one that cuts an island in two.
 */
export class ChangedNetwork {
  private readonly effect: Effect;
  private readonly drop: number;
  private readonly scale: number;

  constructor(
    readonly base: Network,
    readonly delta: Delta | null,
  ) {
    if (delta === null || delta.siemens === 0 || delta.a === delta.b) {
      this.effect = 'none';
      this.drop = 0;
      this.scale = 0;
      return;
    }
    const { a, b, siemens } = delta;
    if (base.island[a] !== base.island[b]) {
      this.effect = siemens > 0 ? 'join' : 'none';
      this.drop = 0;
      this.scale = 0;
      return;
    }
    const denominator = 1 + siemens * base.transfer(a, b, a, b);
    this.effect = denominator > BRIDGE_RELATIVE ? 'inside' : 'cut';
    this.drop = base.volts[a]! - base.volts[b]! + (delta.emf ?? 0);
    this.scale = this.effect === 'inside' ? siemens / denominator : 0;
  }

  /** Which part of the network a node belongs to, after the change. */
  private sideOf(node: number): number {
    const { base, delta } = this;
    const home = base.island[node]!;
    if (this.effect === 'join' && home === base.island[delta!.b]) return base.island[delta!.a]!;
    if (this.effect === 'cut' && home === base.island[delta!.a]) {
      // Unit current through the cut edge lifts one whole side and leaves the other at the reference.
      const lift = -delta!.siemens * base.transfer(node, home, delta!.a, delta!.b);
      return Math.abs(lift) > 0.5 ? -1 - home : home;
    }
    return home;
  }

  joined(i: number, j: number): boolean {
    if (i === j) return true;
    if (this.effect === 'none' || this.effect === 'inside')
      return this.base.island[i] === this.base.island[j];
    return this.sideOf(i) === this.sideOf(j);
  }

  /** Volts from `i` to `j` with no meter on; `NaN` where the two float against each other. */
  pairVolts(i: number, j: number): number {
    const { base, delta } = this;
    if (!this.joined(i, j)) return NaN;
    if (this.effect === 'inside') {
      const plain = base.volts[i]! - base.volts[j]!;
      return plain - this.scale * this.drop * base.transfer(i, j, delta!.a, delta!.b);
    }
    if (this.effect === 'join' && base.island[i] !== base.island[j]) {
      // No current can flow through the only bridge, so both ends of it stand at the same potential.
      const [near, far] =
        base.island[i] === base.island[delta!.a] ? [delta!.a, delta!.b] : [delta!.b, delta!.a];
      return base.volts[i]! - base.volts[near]! + base.volts[far]! - base.volts[j]!;
    }
    return base.volts[i]! - base.volts[j]!;
  }

  /** `(e_i − e_j)ᵀ Z' (e_p − e_q)`, ohms, for `i`, `j` joined after the change. */
  transfer(i: number, j: number, p: number, q: number): number {
    const { base, delta } = this;
    if (this.effect === 'inside') {
      const plain = base.transfer(i, j, p, q);
      return (
        plain - this.scale * base.transfer(i, j, delta!.a, delta!.b) * base.transfer(delta!.a, delta!.b, p, q)
      );
    }
    if (this.effect === 'join' && base.island[i] !== base.island[j]) {
      const [near, far] =
        base.island[i] === base.island[delta!.a] ? [delta!.a, delta!.b] : [delta!.b, delta!.a];
      return base.transfer(i, near, p, q) + base.transfer(far, j, p, q);
    }
    return base.transfer(i, j, p, q);
  }

  /** Resistance seen between two nodes; `Infinity` where nothing joins them. */
  pairOhms(i: number, j: number): number {
    if (i === j) return 0;
    if (!this.joined(i, j)) return Infinity;
    const { base, delta } = this;
    if (this.effect === 'join' && base.island[i] !== base.island[j]) {
      const [near, far] =
        base.island[i] === base.island[delta!.a] ? [delta!.a, delta!.b] : [delta!.b, delta!.a];
      return base.transfer(i, near, i, near) + 1 / delta!.siemens + base.transfer(far, j, far, j);
    }
    return this.transfer(i, j, i, j);
  }
}

function islands(
  nodeCount: number,
  frame: number,
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
    if (x === frame || (y !== frame && x < y)) parent[y] = x;
    else parent[x] = y;
  };
  for (const edge of edges) if (edge.siemens > 0) join(edge.a, edge.b);
  for (const { primary, secondary } of couplings) {
    join(primary[0], primary[1]);
    join(secondary[0], secondary[1]);
  }
  for (let i = 0; i < nodeCount; i++) parent[i] = find(i);
  return parent;
}

/** Magnetising branch of a transformer, as a fraction of its copper conductance at the primary. */
const MAGNETISING = 1e-4;

function invert(
  n: number,
  island: Int32Array,
  edges: readonly Edge[],
  couplings: readonly Coupling[],
): Float64Array {
  // Only nodes that are not a reference are unknowns.
  const unknown: number[] = [];
  const slot = new Int32Array(n).fill(-1);
  for (let i = 0; i < n; i++) {
    if (island[i] === i) continue;
    slot[i] = unknown.length;
    unknown.push(i);
  }
  const m = unknown.length;
  const l = new Float64Array(m * m);
  const add = (i: number, j: number, value: number) => {
    const [p, q] = [slot[i]!, slot[j]!];
    if (p >= 0 && q >= 0) l[p * m + q] = l[p * m + q]! + value;
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
  cholesky(l, m);
  const inverse = inverseFromFactor(l, m);
  const z = new Float64Array(n * n);
  for (let p = 0; p < m; p++) {
    const row = unknown[p]! * n;
    for (let q = 0; q < m; q++) z[row + unknown[q]!] = inverse[p * m + q]!;
  }
  return z;
}

/** In-place lower Cholesky factor. The matrix is positive definite: every island has its reference taken out. */
function cholesky(a: Float64Array, m: number): void {
  for (let j = 0; j < m; j++) {
    const rowJ = j * m;
    let diagonal = a[rowJ + j]!;
    for (let k = 0; k < j; k++) diagonal -= a[rowJ + k]! * a[rowJ + k]!;
    const root = Math.sqrt(Math.max(diagonal, Number.MIN_VALUE));
    a[rowJ + j] = root;
    for (let i = j + 1; i < m; i++) {
      const rowI = i * m;
      let sum = a[rowI + j]!;
      for (let k = 0; k < j; k++) sum -= a[rowI + k]! * a[rowJ + k]!;
      a[rowI + j] = sum / root;
    }
  }
}

/** Full inverse from the lower factor: columns of L⁻¹, then L⁻ᵀ·L⁻¹. */
function inverseFromFactor(l: Float64Array, m: number): Float64Array {
  const inv = new Float64Array(m * m);
  for (let j = 0; j < m; j++) {
    inv[j * m + j] = 1 / l[j * m + j]!;
    for (let i = j + 1; i < m; i++) {
      let sum = 0;
      for (let k = j; k < i; k++) sum -= l[i * m + k]! * inv[k * m + j]!;
      inv[i * m + j] = sum / l[i * m + i]!;
    }
  }
  const out = new Float64Array(m * m);
  for (let i = 0; i < m; i++) {
    for (let j = 0; j <= i; j++) {
      let sum = 0;
      for (let k = i; k < m; k++) sum += inv[k * m + i]! * inv[k * m + j]!;
      out[i * m + j] = sum;
      out[j * m + i] = sum;
    }
  }
  return out;
}
