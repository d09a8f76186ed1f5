import type { Drawing } from '@/core/draw/layChain';
import type { Circuit } from '@/core/circuit/schema';

/** Steps that can be taken back. */
export const MOST_STEPS = 200;

/** A drawing and what it was before, as steps; `at` is the one on the desk. */
export interface History {
  steps: Drawing[];
  at: number;
}
export type Move =
  { is: 'put'; drawing: Drawing } | { is: 'undo' } | { is: 'redo' } | { is: 'start'; drawing: Drawing };

export function move({ steps, at }: History, next: Move): History {
  switch (next.is) {
    case 'start':
      return startHistory(next.drawing);
    case 'put': {
      const kept = [...steps.slice(0, at + 1), next.drawing].slice(-MOST_STEPS);
      return { steps: kept, at: kept.length - 1 };
    }
    case 'undo':
      return { steps, at: Math.max(0, at - 1) };
    case 'redo':
      return { steps, at: Math.min(steps.length - 1, at + 1) };
  }
}

export function startHistory(drawing: Drawing): History {
  return { steps: [drawing], at: 0 };
}

/** Where one stood, if that node is still in the circuit. */
export function nodeStill(circuit: Circuit, node: string | null): string | null {
  return circuit.parts.some((part) => (Object.values(part.nodes) as string[]).includes(node ?? ''))
    ? node
    : null;
}
