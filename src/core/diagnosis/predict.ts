import { InputError } from '../circuit/inputError';
import type { Edit } from '../circuit/edits';
import type { CircuitModel } from '../circuit/model';
import type { Reading, Test } from '../circuit/schema';
import type { Drive } from '../circuit/deltas';
import type { SituationSolver } from '../circuit/solveSituation';
import type { World } from '../circuit/world';
import { readingKind } from '../kinds/reading/index';
import type { Prediction } from './prediction';

/** A test bound to a circuit: names resolved, ready to be predicted for any fault. */
export interface BoundTest {
  test: Test;
  solver: SituationSolver;
  drive: Drive;
  /** What the test shows in a world solved with this test's solver and drive, and these faults. */
  read: (world: World, edits: readonly Edit[]) => Prediction;
}

/** What a test would show with the given faults in the circuit. */
export function predict({ solver, drive, read }: BoundTest, edits: readonly Edit[]): Prediction {
  return read(solver.solve(drive, edits), edits);
}

/**
 * Binds a test to a circuit. Throws {@link InputError} for an unknown node or part, or a test that is impossible
 * in its set-up, such as ohms on a powered pair.
 */
export function bindTest(model: CircuitModel, test: Test, field = 'reading'): BoundTest {
  const solver = model.situation(test.setup, `${field}.setup`);
  const [drive, read] = readingKind(test.kind).bind(model, solver, test, field);
  return { test, solver, drive, read };
}

/** Whether a test of an earlier drawing can still be asked of this one. */
export function canBeAsked(model: CircuitModel, test: Test): boolean {
  try {
    bindTest(model, test);
    return true;
  } catch (error) {
    if (error instanceof InputError) return false;
    throw error;
  }
}

/** Key of a discrete reading's value in `odds`. */
export function choiceKey(value: Reading['value']): string {
  return Array.isArray(value) ? [...value].sort((a, b) => a - b).join(',') : String(value);
}

/** The value a reading would show in a world: the likeliest choice, or the number as the meter gives it. */
export function predictedValue(kind: Test['kind'], prediction: Prediction): Reading['value'] {
  if (prediction.type === 'number') return prediction.mean === Infinity ? 'OL' : prediction.mean;
  const [key = ''] = Object.entries(prediction.odds).sort((a, b) => b[1] - a[1])[0] ?? [];
  return choiceValue(kind, key);
}

/** The value that a key of the odds stands for. */
export function choiceValue(kind: Test['kind'], key: string): Reading['value'] {
  const { shows } = readingKind(kind);
  if (shows.is !== 'choice') throw new TypeError(`${kind} shows a figure, no choice`);
  return shows.valueOf(key);
}
