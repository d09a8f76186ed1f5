import { seededRandom } from '../random';
import { SparseLu, type Pattern } from './sparseLu';

/** A matrix as rows of figures, and its places. */
function patternOf(rows: readonly (readonly number[])[]): { pattern: Pattern; figures: Float64Array } {
  const starts = new Int32Array(rows.length + 1);
  const columns: number[] = [];
  const figures: number[] = [];
  rows.forEach((row, at) => {
    row.forEach((value, column) => {
      if (Number.isNaN(value)) return;
      columns.push(column);
      figures.push(value);
    });
    starts[at + 1] = columns.length;
  });
  return {
    pattern: { size: rows.length, starts, columns: Int32Array.from(columns) },
    figures: Float64Array.from(figures),
  };
}

/** By how much the solution misses the right side, against what its terms come to. */
function missed(
  { size, starts, columns }: Pattern,
  figures: Float64Array,
  x: Float64Array,
  right: Float64Array,
) {
  let worst = 0;
  for (let row = 0; row < size; row++) {
    let [sum, terms] = [-right[row]!, Math.abs(right[row]!)];
    for (let at = starts[row]!; at < starts[row + 1]!; at++) {
      sum += figures[at]! * x[columns[at]!]!;
      terms += Math.abs(figures[at]! * x[columns[at]!]!);
    }
    worst = Math.max(worst, Math.abs(sum) / terms);
  }
  return worst;
}

const NONE = NaN;

describe('a sparse factorisation', () => {
  it('solves random systems of a kept pattern, whatever their figures become', () => {
    for (let seed = 1; seed <= 30; seed++) {
      const random = seededRandom(seed);
      const size = 5 + Math.floor(60 * random.next());
      const figure = () => (random.next() - 0.5) * 10 ** (8 * random.next() - 4);
      const rows = Array.from({ length: size }, (_one, row) =>
        Array.from({ length: size }, (_other, column) =>
          row === column || random.next() < 3 / size ? figure() : NONE,
        ),
      );
      const { pattern, figures } = patternOf(rows);
      const lu = new SparseLu(pattern);
      for (let round = 0; round < 6; round++) {
        const right = Float64Array.from({ length: size }, figure);
        const x = right.slice();
        expect(lu.factor(figures)).toBe(true);
        lu.solve(x);
        expect(missed(pattern, figures, x, right)).toBeLessThan(1e-6);
        figures.forEach((_value, at) => (figures[at] = figure()));
      }
    }
  });

  it('chooses another pivot where the kept one has gone, as behind a switch that opens', () => {
    const { pattern, figures } = patternOf([
      [1, 1, NONE],
      [1, 0, 1],
      [NONE, 1, 2],
    ]);
    const lu = new SparseLu(pattern);
    expect(lu.factor(figures)).toBe(true);
    figures[0] = 0;
    const right = Float64Array.from([2, 4, 8]);
    const x = right.slice();
    expect(lu.factor(figures)).toBe(true);
    lu.solve(x);
    expect([...x]).toEqual([1, 2, 3]);
  });

  it('says of a system without a solution that it has none, and solves the next', () => {
    const { pattern, figures } = patternOf([
      [1, 2],
      [2, 4],
    ]);
    const lu = new SparseLu(pattern);
    expect(lu.factor(figures)).toBe(false);
    figures[3] = 5;
    expect(lu.factor(figures)).toBe(true);
    const x = Float64Array.from([3, 7]);
    lu.solve(x);
    expect([...x]).toEqual([1, 1]);
  });
});
