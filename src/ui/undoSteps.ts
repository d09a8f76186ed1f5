/** Steps that can be taken back. */
export const MOST_STEPS = 200;

/** Something that is worked on and what it was before, as steps; `at` is the one that stands. */
export interface Steps<T> {
  steps: T[];
  at: number;
}
export type Move<T> =
  | { is: 'put'; to: T }
  /** Goes on with what the last step began: letters of one word are no steps of their own. */
  | { is: 'goOn'; to: T }
  | { is: 'undo' }
  | { is: 'redo' }
  | { is: 'start'; to: T };

export function move<T>({ steps, at }: Steps<T>, next: Move<T>): Steps<T> {
  switch (next.is) {
    case 'start':
      return startSteps(next.to);
    case 'put': {
      const kept = [...steps.slice(0, at + 1), next.to].slice(-MOST_STEPS);
      return { steps: kept, at: kept.length - 1 };
    }
    case 'goOn': {
      // What stood at the beginning is never written over.
      const kept = [...steps.slice(0, Math.max(at, 1)), next.to];
      return { steps: kept, at: kept.length - 1 };
    }
    case 'undo':
      return { steps, at: Math.max(0, at - 1) };
    case 'redo':
      return { steps, at: Math.min(steps.length - 1, at + 1) };
  }
}

export function startSteps<T>(begin: T): Steps<T> {
  return { steps: [begin], at: 0 };
}
