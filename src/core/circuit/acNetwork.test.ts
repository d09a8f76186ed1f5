import fc from 'fast-check';
import { PlainSolver } from '../testing/plainSolver';
import { randomEdges } from '../testing/randomNetwork';
import { AcChangedNetwork, AcMatrix, AcNetwork } from './acNetwork';
import type { Coupling, Edge } from './network';

const SIZE = 8;
const seeds = fc.integer({ min: 1, max: 1e6 });
const everywhere = new Uint8Array(SIZE).fill(1);

function solved(
  edges: readonly Edge[],
  couplings: readonly Coupling[] = [],
  alternating = everywhere,
): AcNetwork {
  return new AcNetwork(new AcMatrix(SIZE, [0], edges, couplings, alternating), edges);
}

function holdsAgainst(fast: AcNetwork | AcChangedNetwork, edges: readonly Edge[]): void {
  const plain = new PlainSolver(SIZE, edges);
  for (let i = 0; i < SIZE; i++) {
    for (let j = i + 1; j < SIZE; j++) {
      if (!plain.joined(i, j)) {
        expect(fast.pairVolts(i, j)).toBeNaN();
        continue;
      }
      const volts = Math.hypot(...plain.volts(i, j));
      const ohms = Math.hypot(...plain.ohms(i, j));
      expect(Math.abs(fast.pairVolts(i, j) - volts)).toBeLessThan(1e-6 * (1 + volts));
      expect(Math.abs(fast.pairOhms(i, j) - ohms)).toBeLessThan(1e-6 * (1 + ohms));
    }
  }
}

describe('AcNetwork', () => {
  it('agrees with the plain solver, rms magnitudes', () => {
    fc.assert(
      fc.property(seeds, (seed) => {
        const edges = randomEdges(seed, SIZE, 12, true);
        holdsAgainst(solved(edges), edges);
      }),
      { numRuns: 80 },
    );
  });

  it('answers changes of resistance and reactance in closed form, stacked', () => {
    fc.assert(
      fc.property(seeds, fc.boolean(), (seed, open) => {
        const edges = randomEdges(seed, SIZE, 9, true);
        const on = seed % edges.length;
        const { a, b, siemens, susceptance = 0, emf } = edges[on]!;
        const share = open ? 1 : 0.8;
        const added: Edge = { a: (a + 2) % SIZE, b, siemens: 0.3, susceptance: 0, emf: 0 };
        const first = new AcChangedNetwork(solved(edges), {
          a,
          b,
          siemens: -share * siemens,
          susceptance: -share * susceptance,
          emf,
        });
        const fast = new AcChangedNetwork(first, added);
        const rebuilt = edges.map((edge, at) =>
          at === on
            ? { ...edge, siemens: (1 - share) * siemens, susceptance: (1 - share) * susceptance }
            : edge,
        );
        holdsAgainst(fast, added.a === added.b ? rebuilt : [...rebuilt, added]);
      }),
      { numRuns: 150 },
    );
  });

  it('keeps the sign of what stands on direct current', () => {
    const alternating = Uint8Array.from({ length: SIZE }, (_one, node) => (node >= 4 ? 1 : 0));
    const edges: Edge[] = [
      { a: 1, b: 0, siemens: 10, emf: -24 },
      { a: 1, b: 2, siemens: 0.1, emf: 0 },
      { a: 2, b: 0, siemens: 0.1, emf: 0 },
      { a: 4, b: 0, siemens: 10, emf: -120 },
      { a: 4, b: 5, siemens: 0.05, susceptance: -0.05, emf: 0 },
      { a: 5, b: 0, siemens: 0.1, emf: 0 },
    ];
    const network = solved(edges, [], alternating);
    expect(network.pairVolts(0, 2)).toBeCloseTo(-12, 0);
    expect(network.pairVolts(0, 4)).toBeCloseTo(119.5, 0);
  });
});
