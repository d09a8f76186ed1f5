import type { Edit } from '../circuit/edits';
import type { CircuitModel } from '../circuit/model';
import type { Reading, Test } from '../circuit/schema';
import { bindTest, predict, predictedValue } from '../diagnosis/predict';

/** What a test reads on the sound machine, or on one with `edits`. */
export function predictedOf(model: CircuitModel, test: Test, edits: readonly Edit[] = []): Reading['value'] {
  return predictedValue(test.kind, predict(bindTest(model, test), edits)) as Reading['value'];
}

/** The figure that a test reads on the sound machine, SI; 0 where it reads none. */
export function valueOf(model: CircuitModel, test: Test): number {
  const value = predictedOf(model, test);
  return typeof value === 'number' ? value : 0;
}
