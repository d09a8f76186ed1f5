import fc from 'fast-check';
import { seededRandom } from '../random';
import { ChangedNetwork, Matrix, Network, type Edge } from './network';

const SIZE = 9;

/** A random network of resistors and sources; not every node need hang together. */
function randomEdges(seed: number, count: number): Edge[] {
  const random = seededRandom(seed);
  const pick = () => Math.floor(random.next() * SIZE);
  return Array.from({ length: count }, () => {
    const a = pick();
    const b = (a + 1 + Math.floor(random.next() * (SIZE - 1))) % SIZE;
    return {
      a,
      b,
      siemens: 10 ** (4 * random.next() - 3),
      emf: random.next() < 0.3 ? 24 * random.next() : 0,
    };
  });
}

function solved(edges: readonly Edge[], size = SIZE): Network {
  return new Network(new Matrix(size, [0], edges), edges);
}

/** The plain slow reference: the changed network built from nothing. */
function rebuilt(edges: readonly Edge[], a: number, b: number, siemens: number, on: number | null): Network {
  const changed = edges.map((edge, at) =>
    at === on ? { ...edge, siemens: Math.max(0, edge.siemens + siemens) } : edge,
  );
  return solved(on === null ? [...changed, { a, b, siemens, emf: 0 }] : changed);
}

const seeds = fc.integer({ min: 1, max: 1e6 });

describe('Network', () => {
  it('obeys Kirchhoff: what flows into a node flows out', () => {
    fc.assert(
      fc.property(seeds, (seed) => {
        const edges = randomEdges(seed, 14);
        const network = solved(edges);
        const sum = new Float64Array(SIZE);
        let most = 1e-6;
        for (const { a, b, siemens, emf } of edges) {
          const amps = siemens * (network.pairVolts(a, b) + emf);
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
        const network = solved(randomEdges(seed, 12));
        for (let i = 0; i < SIZE; i++) {
          for (let j = 0; j < SIZE; j++) {
            const [there, back] = [network.pairOhms(i, j), network.pairOhms(j, i)];
            if (there === Infinity) expect(back).toBe(Infinity);
            else expect(Math.abs(there - back)).toBeLessThan(1e-9 * (1 + there));
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
  /** Every pair's volts and ohms against the network built anew. */
  function compare(edges: Edge[], a: number, b: number, siemens: number, on: number | null): void {
    const fast = new ChangedNetwork(solved(edges), {
      a,
      b,
      siemens,
      ...(on === null ? {} : { emf: edges[on]!.emf }),
    });
    const slow = rebuilt(edges, a, b, siemens, on);
    for (let i = 0; i < SIZE; i++) {
      for (let j = 0; j < SIZE; j++) {
        const [ohms, wanted] = [fast.pairOhms(i, j), slow.pairOhms(i, j)];
        if (wanted === Infinity) expect(ohms).toBe(Infinity);
        else expect(Math.abs(ohms - wanted)).toBeLessThan(1e-6 * (1 + wanted));
        const [volts, wantedVolts] = [fast.pairVolts(i, j), slow.pairVolts(i, j)];
        if (Number.isNaN(wantedVolts)) expect(volts).toBeNaN();
        else expect(Math.abs(volts - wantedVolts)).toBeLessThan(1e-6 * (1 + Math.abs(wantedVolts)));
      }
    }
  }

  it('answers an added path in closed form, also one that joins two islands', () => {
    fc.assert(
      fc.property(seeds, fc.double({ min: 1e-4, max: 50, noNaN: true }), (seed, siemens) => {
        const random = seededRandom(seed + 1);
        const a = Math.floor(random.next() * SIZE);
        const b = (a + 1 + Math.floor(random.next() * (SIZE - 1))) % SIZE;
        compare(randomEdges(seed, 8), a, b, siemens, null);
      }),
      { numRuns: 150 },
    );
  });

  it('answers an opened or worsened edge in closed form, also one that cuts an island', () => {
    fc.assert(
      fc.property(seeds, fc.boolean(), (seed, open) => {
        const edges = randomEdges(seed, 9);
        const on = Math.floor(seededRandom(seed + 2).next() * edges.length);
        const { a, b, siemens } = edges[on]!;
        compare(edges, a, b, open ? -siemens : -0.9 * siemens, on);
      }),
      { numRuns: 200 },
    );
  });
});
