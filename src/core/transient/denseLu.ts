/** Solves small dense systems in place: LU with partial pivoting. The matrix is by rows, `size` × `size`. */
export class DenseLu {
  private readonly order: Int32Array;

  constructor(
    private readonly size: number,
    private readonly matrix: Float64Array,
  ) {
    this.order = new Int32Array(size);
  }

  /** Factors the matrix as it stands; false where it is singular. */
  factor(): boolean {
    const { size, matrix, order } = this;
    for (let k = 0; k < size; k++) {
      let pivot = k;
      let most = Math.abs(matrix[k * size + k]!);
      for (let row = k + 1; row < size; row++) {
        const value = Math.abs(matrix[row * size + k]!);
        if (value > most) [most, pivot] = [value, row];
      }
      order[k] = pivot;
      if (!(most > 0)) return false;
      if (pivot !== k)
        for (let column = 0; column < size; column++) {
          const [one, other] = [k * size + column, pivot * size + column];
          [matrix[one], matrix[other]] = [matrix[other]!, matrix[one]!];
        }
      const own = matrix[k * size + k]!;
      for (let row = k + 1; row < size; row++) {
        const at = row * size;
        const factor = matrix[at + k]! / own;
        if (factor === 0) continue;
        matrix[at + k] = factor;
        for (let column = k + 1; column < size; column++)
          matrix[at + column] = matrix[at + column]! - factor * matrix[k * size + column]!;
      }
    }
    return true;
  }

  /** Solves for a right side, in its place. */
  solve(right: Float64Array): void {
    const { size, matrix, order } = this;
    for (let k = 0; k < size; k++) {
      const pivot = order[k]!;
      if (pivot !== k) [right[k], right[pivot]] = [right[pivot]!, right[k]!];
    }
    for (let row = 1; row < size; row++) {
      let sum = right[row]!;
      for (let column = 0; column < row; column++) sum -= matrix[row * size + column]! * right[column]!;
      right[row] = sum;
    }
    for (let row = size - 1; row >= 0; row--) {
      let sum = right[row]!;
      for (let column = row + 1; column < size; column++)
        sum -= matrix[row * size + column]! * right[column]!;
      right[row] = sum / matrix[row * size + row]!;
    }
  }
}
