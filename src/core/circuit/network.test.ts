import fc from 'fast-check';
import { seededRandom } from '../random';
import { PlainSolver } from '../testing/plainSolver';
import { randomEdges } from '../testing/randomNetwork';
import { ChangedNetwork, Matrix, Network, type Delta, type Edge, type Solved } from './network';

const SIZE = 9;
const seeds = fc.integer({ min: 1, max: 1e6 });

function solved(edges: readonly Edge[], size = SIZE): Network {
  return new Network(new Matrix(size, [0], edges), edges);
}

/** Every pair's volts and ohms against the plain solver. */
function holdsAgainst(fast: Solved, edges: readonly Edge[], tolerance = 1e-6): void {
  const plain = new PlainSolver(SIZE, edges);
  for (let i = 0; i < SIZE; i++) {
    for (let j = i + 1; j < SIZE; j++) {
      if (!plain.joined(i, j)) {
        expect(fast.pairVolts(i, j)).toBeNaN();
        expect(fast.pairOhms(i, j)).toBe(Infinity);
        continue;
      }
      const [volts] = plain.volts(i, j);
      const [ohms] = plain.ohms(i, j);
      expect(Math.abs(fast.pairVolts(i, j) - volts)).toBeLessThan(tolerance * (1 + Math.abs(volts)));
      expect(Math.abs(fast.pairOhms(i, j) - ohms)).toBeLessThan(tolerance * (1 + ohms));
    }
  }
}

function changedEdges(edges: readonly Edge[], { a, b, siemens, emf = 0 }: Delta, on: number | null): Edge[] {
  if (on === null) return [...edges, { a, b, siemens, emf }];
  return edges.map((edge, at) =>
    at === on ? { ...edge, siemens: edge.siemens + siemens < 1e-12 ? 0 : edge.siemens + siemens } : edge,
  );
}

/** A random change: a path added, an edge worsened, or one opened. */
function randomChange(edges: readonly Edge[], seed: number): { delta: Delta; on: number | null } {
  const random = seededRandom(seed);
  const kind = random.next();
  if (kind < 0.4) {
    const a = Math.floor(random.next() * SIZE);
    const b = (a + 1 + Math.floor(random.next() * (SIZE - 1))) % SIZE;
    return { delta: { a, b, siemens: 10 ** (5 * random.next() - 3), emf: kind < 0.1 ? 3 : 0 }, on: null };
  }
  const on = Math.floor(random.next() * edges.length);
  const { a, b, siemens, emf } = edges[on]!;
  return { delta: { a, b, siemens: -(kind < 0.7 ? 1 : 0.9) * siemens, emf }, on };
}

describe('Network', () => {
  it('agrees with the plain solver', () => {
    fc.assert(
      fc.property(seeds, fc.integer({ min: 4, max: 16 }), (seed, count) => {
        const edges = randomEdges(seed, SIZE, count);
        holdsAgainst(solved(edges), edges);
      }),
      { numRuns: 60 },
    );
  });

  it('obeys Kirchhoff: what flows into a node flows out', () => {
    fc.assert(
      fc.property(seeds, (seed) => {
        const edges = randomEdges(seed, SIZE, 14);
        const network = solved(edges);
        const sum = new Float64Array(SIZE);
        let most = 1e-6;
        for (const { a, b, siemens, emf } of edges) {
          const amps = network.amps(a, b, siemens, emf);
          sum[a] = sum[a]! - amps;
          sum[b] = sum[b]! + amps;
          // The scale is what the sources could drive, also where nothing happens to flow.
          most = Math.max(most, Math.abs(amps), siemens * Math.abs(emf));
        }
        for (const residual of sum) expect(Math.abs(residual) / most).toBeLessThan(1e-8);
      }),
      { numRuns: 200 },
    );
  });

  it('is reciprocal: resistance is the same both ways, and transfer symmetric', () => {
    fc.assert(
      fc.property(seeds, (seed) => {
        const network = solved(randomEdges(seed, SIZE, 12));
        for (let i = 0; i < SIZE; i++) {
          for (let j = 0; j < SIZE; j++) {
            const [there, back] = [network.pairOhms(i, j), network.pairOhms(j, i)];
            if (there === Infinity) expect(back).toBe(Infinity);
            else expect(Math.abs(there - back)).toBeLessThan(1e-9 * (1 + there));
            const [p, q] = [(i + 3) % SIZE, (j + 5) % SIZE];
            const size = 1e-9 * (1 + Math.abs(network.transfer(i, j, p, q)));
            expect(Math.abs(network.transfer(i, j, p, q) - network.transfer(p, q, i, j))).toBeLessThan(size);
          }
        }
      }),
      { numRuns: 60 },
    );
  });

  it('names what floats instead of giving numbers from noise', () => {
    const network = solved(
      [
        { a: 1, b: 0, siemens: 1, emf: -12 },
        { a: 2, b: 3, siemens: 1, emf: 0 },
      ],
      4,
    );
    expect(network.pairVolts(1, 0)).toBeCloseTo(12);
    expect(network.pairVolts(2, 0)).toBeNaN();
    expect(network.pairOhms(2, 0)).toBe(Infinity);
    expect(network.pairOhms(2, 3)).toBeCloseTo(1);
  });
});

describe('ChangedNetwork', () => {
  it('answers one change in closed form: added, worsened, opened, cutting an island or joining two', () => {
    fc.assert(
      fc.property(seeds, fc.integer({ min: 6, max: 11 }), (seed, count) => {
        const edges = randomEdges(seed, SIZE, count);
        const { delta, on } = randomChange(edges, seed + 1);
        holdsAgainst(new ChangedNetwork(solved(edges), delta), changedEdges(edges, delta, on));
      }),
      { numRuns: 200 },
    );
  });

  it('answers three changes on top of each other', () => {
    fc.assert(
      fc.property(seeds, fc.integer({ min: 6, max: 12 }), (seed, count) => {
        let edges = randomEdges(seed, SIZE, count);
        let fast: Solved = solved(edges);
        for (const step of [1, 2, 3]) {
          const { delta, on } = randomChange(edges, seed + step);
          // An edge opened before cannot be worsened again.
          if (on !== null && edges[on]!.siemens === 0) continue;
          fast = new ChangedNetwork(fast, delta);
          edges = changedEdges(edges, delta, on);
        }
        // Each change on top costs digits where edges span nine decades; a meter sees a thousandth.
        holdsAgainst(fast, edges, 5e-5);
      }),
      { numRuns: 200, seed: 20261125 },
    );
  });
});
