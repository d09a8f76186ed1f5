import { LEAK } from './laws';
import type { Pattern } from './sparseLu';

/** Volts of a node against the frame, which is node 0. */
export function volt(y: Float64Array, node: number): number {
  return node > 0 ? y[node - 1]! : 0;
}

/**
 * Where a system d/dt q(y) + f(y, t) = 0 keeps its figures: what each row stores and what flows in it, and how both change with the unknowns.
 * The places of those slopes are met once and kept. Rows of nodes come first; node `n` has row `n − 1`, the frame none.
 */
export class Slots {
  readonly q: Float64Array;
  readonly f: Float64Array;
  /** Slopes of what is stored and of what flows, in the pattern's order. */
  jq = new Float64Array(0);
  jf = new Float64Array(0);
  pattern: Pattern;
  /** Place of a row's and column's slope in that order; -1 where there is none. */
  private readonly placeOf: Int32Array;
  /** Slopes that were met while the pattern was found; null once it is known. */
  private met: Set<number> | null = new Set();

  constructor(
    readonly size: number,
    private readonly nodes: number,
  ) {
    this.q = new Float64Array(size);
    this.f = new Float64Array(size);
    this.placeOf = new Int32Array(size * size).fill(-1);
    this.pattern = { size, starts: new Int32Array(size + 1), columns: new Int32Array(0) };
  }

  /** What has been stamped so far is the pattern: from now on slopes are kept, and one that was not met is a mistake of the program. */
  settle(): void {
    const { size, placeOf } = this;
    const met = [...this.met!].sort((a, b) => a - b);
    this.met = null;
    met.forEach((key, place) => (placeOf[key] = place));
    const starts = new Int32Array(size + 1);
    for (const key of met) starts[Math.floor(key / size) + 1]!++;
    for (let row = 0; row < size; row++) starts[row + 1] = starts[row + 1]! + starts[row]!;
    this.pattern = { size, starts, columns: Int32Array.from(met, (key) => key % size) };
    this.jq = new Float64Array(met.length);
    this.jf = new Float64Array(met.length);
  }

  /** A hair of leakage keeps a node that floats from being anywhere. */
  leak(): void {
    for (let node = 0; node < this.nodes; node++) this.slope(node, node, LEAK);
  }

  conducts(a: number, b: number, siemens: number, y: Float64Array): void {
    this.passes(a, b, siemens * (volt(y, a) - volt(y, b)), siemens);
  }

  /** Amperes from one node to the other, and how they change with the volts between them. */
  passes(a: number, b: number, amps: number, siemens: number): void {
    this.node(a, amps);
    this.node(b, -amps);
    this.nodeSlope(a, a, siemens);
    this.nodeSlope(b, b, siemens);
    this.nodeSlope(a, b, -siemens);
    this.nodeSlope(b, a, -siemens);
  }

  /** The amperes of an unknown, or a share of them, from one node to the other. */
  flows(a: number, b: number, own: number, y: Float64Array, share: number): void {
    this.node(a, share * y[own]!);
    this.node(b, -share * y[own]!);
    if (a > 0) this.slope(a - 1, own, share);
    if (b > 0) this.slope(b - 1, own, -share);
  }

  /** The volts from `b` up to `a`, or a share of them, in an unknown's row. */
  across(a: number, b: number, own: number, y: Float64Array, share: number): void {
    this.flow(own, share * (volt(y, a) - volt(y, b)));
    if (a > 0) this.slope(own, a - 1, share);
    if (b > 0) this.slope(own, b - 1, -share);
  }

  /** How the amperes from one node to the other change with an unknown of another row. */
  passesBy(a: number, b: number, own: number, amps: number): void {
    if (a > 0) this.slope(a - 1, own, amps);
    if (b > 0) this.slope(b - 1, own, -amps);
  }

  /** How an unknown's row changes with the volts from `b` up to `a`. */
  followsAcross(a: number, b: number, own: number, siemens: number): void {
    if (a > 0) this.slope(own, a - 1, siemens);
    if (b > 0) this.slope(own, b - 1, -siemens);
  }

  node(at: number, amps: number): void {
    if (at > 0) this.f[at - 1] = this.f[at - 1]! + amps;
  }

  nodeSlope(row: number, column: number, value: number): void {
    if (row > 0 && column > 0) this.slope(row - 1, column - 1, value);
  }

  /** What a row stores. */
  store(row: number, value: number): void {
    this.q[row] = this.q[row]! + value;
  }

  /** What flows in a row. */
  flow(row: number, value: number): void {
    this.f[row] = this.f[row]! + value;
  }

  /** How what flows in a row changes with an unknown. */
  slope(row: number, column: number, value: number): void {
    this.put(this.jf, row, column, value);
  }

  /** How what is stored in a row changes with an unknown. */
  stored(row: number, column: number, value: number): void {
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
