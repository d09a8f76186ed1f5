import type { Edge } from '../circuit/network';
import { seededRandom } from '../random';

/** A random network of resistors and sources (and coils, with `reactive`); not every node need hang together. */
export function randomEdges(seed: number, nodes: number, count: number, reactive = false): Edge[] {
  const random = seededRandom(seed);
  const pick = () => Math.floor(random.next() * nodes);
  return Array.from({ length: count }, (): Edge => {
    const a = pick();
    const b = (a + 1 + Math.floor(random.next() * (nodes - 1))) % nodes;
    const ohms = 10 ** (4 * random.next() - 1);
    const reactance = reactive && random.next() < 0.5 ? 10 ** (3 * random.next() - 1) : 0;
    const square = ohms * ohms + reactance * reactance;
    return {
      a,
      b,
      siemens: ohms / square,
      ...(reactive ? { susceptance: -reactance / square } : {}),
      emf: random.next() < 0.3 ? 24 * random.next() : 0,
    };
  });
}

/** The same with every node joined to the first by a chain of resistors. */
export function joinedEdges(seed: number, nodes: number, count: number, reactive = false): Edge[] {
  const random = seededRandom(seed + 77);
  const chain = Array.from({ length: nodes - 1 }, (_one, k): Edge => {
    return {
      a: k + 1,
      b: Math.floor(random.next() * (k + 1)),
      siemens: 10 ** (3 * random.next() - 2),
      emf: 0,
    };
  });
  return [...chain, ...randomEdges(seed, nodes, count, reactive)];
}
