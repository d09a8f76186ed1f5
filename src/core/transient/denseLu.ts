import type { Pattern } from './sparseLu';

/** Solves small systems of one pattern whose figures change, by elimination with the largest pivot of each column against its row. */
export class DenseLu {
  private readonly values: Float64Array;
  private readonly order: Int32Array;
  private readonly sizes: Float64Array;
  private readonly work: Float64Array;

  constructor(private readonly pattern: Pattern) {
    const { size } = pattern;
    this.values = new Float64Array(size * size);
    this.order = new Int32Array(size);
    this.sizes = new Float64Array(size);
    this.work = new Float64Array(size);
  }

  /** Factors a matrix, its figures in the order of the pattern; false where it is singular. */
  factor(figures: Float64Array): boolean {
    const { values, order, sizes } = this;
    const { size, starts, columns } = this.pattern;
    values.fill(0);
    for (let row = 0; row < size; row++) {
      order[row] = row;
      let most = 0;
      for (let at = starts[row]!; at < starts[row + 1]!; at++) {
        values[row * size + columns[at]!] = figures[at]!;
        most = Math.max(most, Math.abs(figures[at]!));
      }
      sizes[row] = most;
    }
    for (let step = 0; step < size; step++) {
      if (!this.choose(step)) return false;
      const own = order[step]! * size;
      const pivot = values[own + step]!;
      for (let below = step + 1; below < size; below++) {
        const row = order[below]! * size;
        const factor = values[row + step]! / pivot;
        values[row + step] = factor;
        if (factor === 0) continue;
        for (let column = step + 1; column < size; column++)
          values[row + column] = values[row + column]! - factor * values[own + column]!;
      }
    }
    return true;
  }

  /** Solves for a right side, in its place. */
  solve(right: Float64Array): void {
    const { values, order, work } = this;
    const { size } = this.pattern;
    for (let step = 0; step < size; step++) {
      const row = order[step]! * size;
      let sum = right[order[step]!]!;
      for (let column = 0; column < step; column++) sum -= values[row + column]! * work[column]!;
      work[step] = sum;
    }
    for (let step = size - 1; step >= 0; step--) {
      const row = order[step]! * size;
      let sum = work[step]!;
      for (let column = step + 1; column < size; column++) sum -= values[row + column]! * right[column]!;
      right[step] = sum / values[row + step]!;
    }
  }

  /** Brings the row that bears a step best to its place; false where none does. */
  private choose(step: number): boolean {
    const { values, order, sizes } = this;
    const { size } = this.pattern;
    let [best, most] = [-1, 0];
    for (let at = step; at < size; at++) {
      const row = order[at]!;
      const share = Math.abs(values[row * size + step]!) / sizes[row]!;
      if (share > most) [best, most] = [at, share];
    }
    if (best < 0) return false;
    const row = order[best]!;
    order[best] = order[step]!;
    order[step] = row;
    return true;
  }
}
