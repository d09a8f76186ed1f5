import type { Edit } from '@/core/circuit/edits';
import { CircuitModel } from '@/core/circuit/model';
import { InputError } from '@/core/circuit/inputError';
import { testSchema, type Circuit, type Test } from '@/core/circuit/schema';
import { bindTest, predict } from '@/core/diagnosis/predict';
import { modeFor, suits, type MeterMode } from '@/core/instrument/meterMode';
import { seededRandom } from '@/core/random';
import { figureOf } from '@/core/kinds/reading/index';

/** A function of a simulated machine with what is secretly wrong with it. */
export interface MeteredFunction {
  machine: string;
  name: string;
  circuit: Circuit;
  edits: readonly Edit[];
}

/** Share of what a meter may be off by that this one is, for good at one place. */
const OWN_SHARE = 0.4;
/** And what flickers from one value to the next. */
const FLICKER_SHARE = 0.05;
/** A pair that floats shows anything between nothing and this share of what drives it. */
const FLOATS_BY = 0.3;
const NOTHING: MeterMode = { measures: 'volts', coupling: 'dc' };

/**
 * A bench meter whose leads stand on a machine: what it shows comes from solving the function's circuit with its hidden fault, in the set-up
 * that the machine stands in. Leads are one person's, the dial is one for all.
 */
export class SimulatedMeter {
  private readonly models: ReadonlyMap<string, { model: CircuitModel; edits: readonly Edit[] }>;
  mode: MeterMode = NOTHING;

  constructor(functions: readonly MeteredFunction[]) {
    this.models = new Map(
      functions.map(({ machine, name, circuit, edits }) => [
        keyOf(machine, name),
        { model: new CircuitModel(circuit), edits },
      ]),
    );
  }

  /** Leads put on a function's points, in a set-up. Throws `InputError` for what its circuit does not have. */
  stand(machine: string, functionName: string, question: unknown): Leads {
    const found = this.models.get(keyOf(machine, functionName));
    if (!found)
      throw new InputError('function', `no function "${functionName}" on "${machine}" is simulated`);
    return new Leads(this, found.model, found.edits, testSchema.parse(question));
  }
}

/** Leads on their points. */
export class Leads {
  private readonly wanted: MeterMode | null;
  private readonly flicker = seededRandom(7);
  private readonly own: number;

  constructor(
    private readonly meter: SimulatedMeter,
    private readonly model: CircuitModel,
    private readonly edits: readonly Edit[],
    private readonly test: Test,
  ) {
    this.wanted = modeFor(model, test);
    // The same place reads the same whoever asks.
    this.own = seededRandom(hashOf(JSON.stringify(test))).normal();
  }

  /** What the display shows now. */
  show(): number | 'OL' {
    const { mode } = this.meter;
    const test = this.testIn(mode);
    if (!test) return 0;
    let prediction;
    try {
      prediction = predict(bindTest(this.model, test), this.edits);
    } catch (error) {
      // Ohms on what is live, a diode range across a supply: a real one shows nonsense or blows its fuse.
      if (error instanceof InputError) return 'OL';
      throw error;
    }
    if (prediction.type !== 'number') return 0;
    const { mean, loose } = prediction;
    const { meterSigma, leastSigma, over } = figureOf(test.kind);
    if (Math.abs(mean) > over || mean === Infinity) return 'OL';
    if (loose) return FLOATS_BY * this.model.compiled.supplyVolts * Math.abs(this.flicker.normal());
    const sigma = Math.max(meterSigma(Math.abs(mean), undefined), 0.2 * leastSigma);
    return mean + sigma * (OWN_SHARE * this.own + FLICKER_SHARE * this.flicker.normal());
  }

  /** What leads on these points measure with the dial where it is; null where that is nothing: a clamp on volts, volts on amps. */
  private testIn(mode: MeterMode): Test | null {
    const { test, wanted } = this;
    if (wanted && suits(mode, wanted)) return test;
    if (
      mode.measures === 'amps' ||
      !('from' in test) ||
      (mode.coupling === 'ac' && wanted?.coupling !== 'ac')
    )
      return null;
    const { from, to, setup } = test;
    return { kind: mode.measures, from, to, setup };
  }
}

function keyOf(machine: string, name: string): string {
  return JSON.stringify([machine, name]);
}

function hashOf(text: string): number {
  let hash = 7;
  for (const letter of text) hash = (Math.imul(hash, 31) + letter.charCodeAt(0)) | 0;
  return hash >>> 0;
}
