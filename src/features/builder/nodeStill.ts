import type { Circuit } from '@/core/circuit/schema';

/** Where one stood, if that node is still in the circuit. */
export function nodeStill(circuit: Circuit, node: string | null): string | null {
  return circuit.parts.some((part) => (Object.values(part.nodes) as string[]).includes(node ?? ''))
    ? node
    : null;
}
