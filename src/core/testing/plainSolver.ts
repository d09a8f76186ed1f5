import type { Coupling, Edge } from '../circuit/network';

/** A complex number as a pair. */
type C = readonly [number, number];

const add = ([a, b]: C, [c, d]: C): C => [a + c, b + d];
const sub = ([a, b]: C, [c, d]: C): C => [a - c, b - d];
const mul = ([a, b]: C, [c, d]: C): C => [a * c - b * d, a * d + b * c];
const div = ([a, b]: C, [c, d]: C): C => {
  const square = c * c + d * d;
  return [(a * c + b * d) / square, (b * c - a * d) / square];
};
const size = ([a, b]: C) => Math.hypot(a, b);

/**
 * The plain slow way: nodal equations written out with complex numbers and solved by elimination with row pivoting,
 * anew for every question. Nodes of other islands than the asked one hang on a far resistor, so that nothing is singular.
 */
export class PlainSolver {
  constructor(
    private readonly nodeCount: number,
    private readonly edges: readonly Edge[],
    private readonly couplings: readonly Coupling[] = [],
  ) {}

  /** Volts from `i` to `j`, as a phasor; real part alone on direct current. */
  volts(i: number, j: number): C {
    const v = this.solve(i, null);
    return sub(v[i]!, v[j]!);
  }

  /** Impedance between two nodes with every source off. */
  ohms(i: number, j: number): C {
    const v = this.solve(j, [i, j]);
    return sub(v[i]!, v[j]!);
  }

  /** Node voltages with `ground` at zero: sources on, or one ampere pushed from the second node to the first. */
  private solve(ground: number, push: readonly [number, number] | null): C[] {
    const n = this.nodeCount;
    const a: C[][] = Array.from({ length: n }, () => Array.from({ length: n }, (): C => [0, 0]));
    const b: C[] = Array.from({ length: n }, (): C => [0, 0]);
    const put = (i: number, j: number, value: C) => (a[i]![j] = add(a[i]![j]!, value));
    for (const { a: p, b: q, siemens, susceptance = 0, emf } of this.edges) {
      if (p === q || (siemens === 0 && susceptance === 0)) continue;
      const y: C = [siemens, susceptance];
      put(p, p, y);
      put(q, q, y);
      put(p, q, [-siemens, -susceptance]);
      put(q, p, [-siemens, -susceptance]);
      if (push) continue;
      const amps = mul(y, [emf, 0]);
      b[p] = sub(b[p]!, amps);
      b[q] = add(b[q]!, amps);
    }
    for (const { primary, secondary, ratio, siemens } of this.couplings) {
      const nodes = [primary[0], primary[1], secondary[0], secondary[1]];
      const weights = [1 / ratio, -1 / ratio, -1, 1];
      nodes.forEach((i, x) => nodes.forEach((j, y) => put(i, j, [siemens * weights[x]! * weights[y]!, 0])));
    }
    if (push) {
      b[push[0]] = add(b[push[0]]!, [1, 0]);
      b[push[1]] = sub(b[push[1]]!, [1, 0]);
    }
    for (let i = 0; i < n; i++)
      if (this.island(i) !== this.island(ground) && this.lowest(i) === i) put(i, i, [1e-3, 0]);
    a[ground] = a[ground]!.map((): C => [0, 0]);
    a[ground]![ground] = [1, 0];
    b[ground] = [0, 0];
    return eliminate(a, b);
  }

  private readonly marks = new Map<number, number>();

  private island(node: number): number {
    if (this.marks.size === 0) {
      for (let i = 0; i < this.nodeCount; i++) this.marks.set(i, i);
      for (let changed = true; changed;) {
        changed = false;
        for (const { a, b, siemens, susceptance = 0 } of this.edges) {
          if (siemens === 0 && susceptance === 0) continue;
          const least = Math.min(this.marks.get(a)!, this.marks.get(b)!);
          for (const node_ of [a, b]) {
            if (this.marks.get(node_) === least) continue;
            this.marks.set(node_, least);
            changed = true;
          }
        }
      }
    }
    return this.marks.get(node)!;
  }

  private lowest(node: number): number {
    return this.island(node);
  }

  /** Whether two nodes hang together. */
  joined(i: number, j: number): boolean {
    return this.island(i) === this.island(j);
  }
}

function eliminate(a: C[][], b: C[]): C[] {
  const n = b.length;
  for (let k = 0; k < n; k++) {
    let best = k;
    for (let i = k + 1; i < n; i++) if (size(a[i]![k]!) > size(a[best]![k]!)) best = i;
    [a[k], a[best]] = [a[best]!, a[k]!];
    [b[k], b[best]] = [b[best]!, b[k]!];
    for (let i = k + 1; i < n; i++) {
      const factor = div(a[i]![k]!, a[k]![k]!);
      if (size(factor) === 0) continue;
      for (let j = k; j < n; j++) a[i]![j] = sub(a[i]![j]!, mul(factor, a[k]![j]!));
      b[i] = sub(b[i]!, mul(factor, b[k]!));
    }
  }
  const x: C[] = new Array(n);
  for (let i = n - 1; i >= 0; i--) {
    let rest = b[i]!;
    for (let j = i + 1; j < n; j++) rest = sub(rest, mul(a[i]![j]!, x[j]!));
    x[i] = div(rest, a[i]![i]!);
  }
  return x;
}
