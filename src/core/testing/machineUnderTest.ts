import { readingKind } from '../kinds/reading';
import { CircuitModel } from '../circuit/model';
import type { Circuit, Test } from '../circuit/schema';
import { faultByName, listFaults } from '../diagnosis/faults';
import { bindTest, predict, predictedValue } from '../diagnosis/predict';

/** Gauges are kept in kPa and read in bar. */
const KPA_IN_BAR = 100;

/** A machine with a hidden fault, or a sound one: answers any test as the meter or the eye would. */
export class MachineUnderTest {
  readonly model: CircuitModel;
  private readonly edits: Parameters<typeof predict>[1];

  constructor(circuit: Circuit, part?: string, fault = '', ohms?: number) {
    this.model = new CircuitModel(circuit);
    if (part === undefined) this.edits = [];
    else {
      const found = faultByName(listFaults(this.model), part, fault, ohms);
      this.edits = found.fault.variants[0]!.edits(found.severity);
    }
  }

  /** What is read, in the units that readings are kept in. */
  value(test: Test) {
    return predictedValue(test.kind, predict(bindTest(this.model, test), this.edits));
  }

  /** What the display shows for a test, typed the way a technician would. */
  answer(test: Test): string {
    const shown = this.value(test);
    const { shows } = readingKind(test.kind);
    const onGauge = shows.is === 'figure' && shows.quantity === 'pressure';
    const value = typeof shown === 'number' && onGauge ? shown / KPA_IN_BAR : shown;
    if (typeof value === 'number')
      return String(Number(Math.abs(value) < 0.01 ? value.toFixed(3) : value.toPrecision(3)));
    if (typeof value === 'boolean') return value ? 'clicks' : 'no click';
    if (Array.isArray(value)) return value.length === 0 ? 'no code' : `code ${value.join(', ')}`;
    return value;
  }
}
