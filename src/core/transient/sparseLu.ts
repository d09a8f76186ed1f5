/** Places of a square matrix that may hold something, by rows: those of row `r` are `columns[starts[r]] … columns[starts[r + 1] - 1]`. */
export interface Pattern {
  size: number;
  starts: Int32Array;
  columns: Int32Array;
}

/** A pivot is taken that is not less than this share of the most in its row. */
const WORTH = 0.1;
/** One that has become less than this share of it is chosen anew. */
const WORN = 1e-4;

/**
 * Solves systems of one pattern whose figures change: the order of elimination and what fills in are found once, by Markowitz's count
 * (1957) with a threshold, and kept until a pivot no longer bears it. Rows are each of a size of their own.
 */
export class SparseLu {
  /** Row and column that are eliminated at each step; where each column stands in that order. */
  private rows = new Int32Array(0);
  private columns = new Int32Array(0);
  private placeOf = new Int32Array(0);
  /** Of each step's row the factors of the rows before it, then the pivot, then the rest; columns by their place in the order. */
  private starts = new Int32Array(0);
  private pivots = new Int32Array(0);
  private places = new Int32Array(0);
  private values = new Float64Array(0);
  private readonly work: Float64Array;

  constructor(private readonly pattern: Pattern) {
    this.work = new Float64Array(pattern.size);
  }

  /** Factors a matrix, its figures in the order of the pattern; false where it is singular. */
  factor(figures: Float64Array): boolean {
    if (this.rows.length === 0) return this.reorder(figures) && this.eliminate(figures);
    return this.eliminate(figures) || (this.reorder(figures) && this.eliminate(figures));
  }

  /** Solves for a right side, in its place. */
  solve(right: Float64Array): void {
    const { work, rows, columns, starts, pivots, places, values, pattern } = this;
    const { size } = pattern;
    for (let step = 0; step < size; step++) {
      let sum = right[rows[step]!]!;
      for (let at = starts[step]!; at < pivots[step]!; at++) sum -= values[at]! * work[places[at]!]!;
      work[step] = sum;
    }
    for (let step = size - 1; step >= 0; step--) {
      let sum = work[step]!;
      for (let at = pivots[step]! + 1; at < starts[step + 1]!; at++) sum -= values[at]! * work[places[at]!]!;
      work[step] = sum / values[pivots[step]!]!;
    }
    for (let step = 0; step < size; step++) right[columns[step]!] = work[step]!;
  }

  /** Eliminates in the order that stands; false where a pivot is too small for it. */
  private eliminate(figures: Float64Array): boolean {
    const { work, rows, placeOf, starts, pivots, places, values, pattern } = this;
    for (let step = 0; step < pattern.size; step++) {
      const [from, pivot, end] = [starts[step]!, pivots[step]!, starts[step + 1]!];
      for (let at = from; at < end; at++) work[places[at]!] = 0;
      const row = rows[step]!;
      for (let at = pattern.starts[row]!; at < pattern.starts[row + 1]!; at++)
        work[placeOf[pattern.columns[at]!]!] = figures[at]!;
      for (let at = from; at < pivot; at++) {
        const before = places[at]!;
        const factor = work[before]! / values[pivots[before]!]!;
        values[at] = factor;
        if (factor === 0) continue;
        for (let k = pivots[before]! + 1; k < starts[before + 1]!; k++) {
          const place = places[k]!;
          work[place] = work[place]! - factor * values[k]!;
        }
      }
      let most = 0;
      for (let at = pivot; at < end; at++) {
        const value = work[places[at]!]!;
        values[at] = value;
        most = Math.max(most, Math.abs(value));
      }
      if (!(Math.abs(values[pivot]!) > WORN * most)) return false;
    }
    return true;
  }

  /** Finds an order for the figures as they are; false where there is none. */
  private reorder(figures: Float64Array): boolean {
    const { size, starts, columns } = this.pattern;
    const left = Array.from({ length: size }, (_one, row) => {
      const held = new Map<number, number>();
      for (let at = starts[row]!; at < starts[row + 1]!; at++) held.set(columns[at]!, figures[at]!);
      return held;
    });
    const done = left.map(() => new Map<number, number>());
    const open = new Set(left.keys());
    const inColumn = new Int32Array(size);
    for (const held of left) for (const column of held.keys()) inColumn[column]!++;
    this.rows = new Int32Array(size);
    this.columns = new Int32Array(size);
    this.placeOf = new Int32Array(size);
    for (let step = 0; step < size; step++) {
      const best = this.cheapest(open, left, inColumn);
      if (!best) {
        this.rows = new Int32Array(0);
        return false;
      }
      const [row, column] = best;
      this.rows[step] = row;
      this.columns[step] = column;
      this.placeOf[column] = step;
      open.delete(row);
      const own = left[row]!;
      for (const other of own.keys()) inColumn[other]!--;
      const pivot = own.get(column)!;
      for (const other of open) {
        const held = left[other]!;
        const value = held.get(column);
        if (value === undefined) continue;
        held.delete(column);
        done[other]!.set(column, 0);
        const factor = value / pivot;
        for (const [place, amount] of own) {
          if (place === column) continue;
          if (!held.has(place)) inColumn[place]!++;
          held.set(place, (held.get(place) ?? 0) - factor * amount);
        }
      }
    }
    this.keepOrder(left, done);
    return true;
  }

  /** The row and column whose elimination fills in least, among those that bear it. */
  private cheapest(
    open: ReadonlySet<number>,
    left: readonly ReadonlyMap<number, number>[],
    inColumn: Int32Array,
  ): [row: number, column: number] | null {
    let best: [number, number] | null = null;
    let least = Infinity;
    let size = 0;
    for (const row of open) {
      const held = left[row]!;
      let most = 0;
      for (const value of held.values()) most = Math.max(most, Math.abs(value));
      if (!(most > 0)) return null;
      for (const [column, value] of held) {
        const share = Math.abs(value) / most;
        if (share < WORTH) continue;
        const cost = (held.size - 1) * (inColumn[column]! - 1);
        if (cost < least || (cost === least && share > size))
          [best, least, size] = [[row, column], cost, share];
      }
    }
    return best;
  }

  private keepOrder(
    left: readonly ReadonlyMap<number, number>[],
    done: readonly ReadonlyMap<number, number>[],
  ): void {
    const { size } = this.pattern;
    const [starts, pivots, places] = [new Int32Array(size + 1), new Int32Array(size), [] as number[]];
    for (let step = 0; step < size; step++) {
      const row = this.rows[step]!;
      const place = (column: number) => this.placeOf[column]!;
      starts[step] = places.length;
      places.push(...[...done[row]!.keys()].map(place).sort((a, b) => a - b));
      pivots[step] = places.length;
      places.push(...[...left[row]!.keys()].map(place).sort((a, b) => a - b));
    }
    starts[size] = places.length;
    [this.starts, this.pivots, this.places] = [starts, pivots, Int32Array.from(places)];
    this.values = new Float64Array(places.length);
  }
}
