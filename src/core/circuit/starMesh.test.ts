import { seededRandom } from '../random';
import { islands, type Edge } from './network';
import { StarMesh } from './starMesh';

const edge = (a: number, b: number, ohms: number): Edge => ({ a, b, siemens: 1 / ohms, emf: 0 });

/** All columns side by side, n·n. */
function inverse(n: number, edges: readonly Edge[]): Float64Array {
  const mesh = new StarMesh(n, islands(n, [0], edges, []), edges);
  return Float64Array.from(Array.from({ length: n }, (_one, node) => [...mesh.column(node)]).flat());
}

describe('the inverse by star-mesh', () => {
  it('times the conductances is one, for networks with loops, stubs and islands', () => {
    const random = seededRandom(11);
    for (let round = 0; round < 40; round++) {
      const n = 3 + Math.floor(random.next() * 22);
      const edges: Edge[] = [];
      for (let k = 1; k < n; k++) {
        // One node in eight starts an island of its own.
        if (random.next() > 0.12) edges.push(edge(k, Math.floor(random.next() * k), 0.1 + 9 * random.next()));
      }
      for (let k = 0; k < n / 2; k++)
        edges.push(edge(Math.floor(random.next() * n), Math.floor(random.next() * n), 1 + random.next()));
      const island = islands(n, [0], edges, []);
      const z = inverse(n, edges);
      const g = new Float64Array(n * n);
      const free = (node: number) => island[node] !== node;
      for (const { a, b, siemens } of edges) {
        if (a === b) continue;
        for (const [i, j, sign] of [
          [a, a, 1],
          [b, b, 1],
          [a, b, -1],
          [b, a, -1],
        ] as const)
          if (free(i) && free(j)) g[i * n + j] = g[i * n + j]! + sign * siemens;
      }
      for (let i = 0; i < n; i++) {
        for (let j = 0; j < n; j++) {
          if (!free(i) || !free(j)) {
            expect(z[i * n + j]).toBe(0);
            continue;
          }
          let sum = 0;
          for (let k = 0; k < n; k++) sum += g[i * n + k]! * z[k * n + j]!;
          expect(sum).toBeCloseTo(i === j ? 1 : 0, 9);
          expect(z[i * n + j]).toBeCloseTo(z[j * n + i]!, 12);
        }
      }
    }
  });

  it('loses no digit between milliohms and gigaohms', () => {
    // 0 –1 GΩ– 1 –1 mΩ– 2 –1 mΩ– 3: the milliohms stand beside a way home that is twelve decades larger.
    const edges = [edge(0, 1, 1e9), edge(1, 2, 1e-3), edge(2, 3, 1e-3)];
    const z = inverse(4, edges);
    expect(z[1 * 4 + 1]! / 1e9).toBeCloseTo(1, 12);
    expect(z[3 * 4 + 3]! - 1e9).toBeCloseTo(0.002, 6);
    // And with the feed lost on the other side: 4 hangs on 3 by a milliohm, home through 1 Ω.
    const near = [edge(0, 1, 1), edge(1, 2, 1e-3), edge(2, 3, 1e9)];
    const home = inverse(4, near);
    expect(home[2 * 4 + 2]).toBeCloseTo(1.001, 12);
    expect(home[3 * 4 + 3]! - 1e9).toBeCloseTo(1.001, 5);
  });
});
