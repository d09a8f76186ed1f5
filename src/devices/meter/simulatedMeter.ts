import type { Edit } from '@/core/circuit/edits';
import { CircuitModel } from '@/core/circuit/model';
import { InputError } from '@/core/circuit/inputError';
import { testSchema, type Circuit, type Test } from '@/core/circuit/schema';
import { bindTest, predict } from '@/core/diagnosis/predict';
import type { Prediction } from '@/core/diagnosis/prediction';
import { modeFor, suits, type MeterMode } from '@/core/instrument/meterMode';
import { seededRandom } from '@/core/random';
import { partInCircuit } from '@/core/trace/partInCircuit';
import { restOf } from '@/core/trace/restOf';
import type { Trace } from '@/core/trace/trace';
import { valueAt } from '@/core/transient/run';
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
  stand(machine: string, functionName: string, question: unknown, switched = false): Leads {
    const found = this.models.get(keyOf(machine, functionName));
    if (!found)
      throw new InputError('function', `no function "${functionName}" on "${machine}" is simulated`);
    return new Leads(this, found.model, found.edits, testSchema.parse(question), switched);
  }
}

/** When a simulated machine's hand switches on and off while it is recorded, seconds. */
const SWITCHED = { on: 0.6, off: 3, end: 4 } as const;

/** A simulated machine goes on by no more than this from one value to the next, seconds: what a busy computer reads late is drawn whole. */
const LONGEST_STEP_SECONDS = 0.04;

/** Current of a part as it is switched on and off; null where it has no course of its own: it is read as it stands. */
function courseOf(
  model: CircuitModel,
  { through, setup }: Extract<Test, { kind: 'amps' }>,
  edits: readonly Edit[],
): Trace | null {
  const rest = restOf(model, through, setup);
  return rest ? partInCircuit(model, through, { rest, on: setup }, SWITCHED, edits) : null;
}

/** Leads on their points. */
export class Leads {
  private readonly wanted: MeterMode | null;
  private readonly flicker = seededRandom(7);
  private readonly own: number;
  private readonly course: Trace | null;
  private shownAt: number;
  private into = 0;
  private last: { kind: Test['kind']; prediction: Prediction | null } | null = null;

  constructor(
    private readonly meter: SimulatedMeter,
    private readonly model: CircuitModel,
    private readonly edits: readonly Edit[],
    private readonly test: Test,
    switched: boolean,
    private readonly now: () => number = () => performance.now(),
  ) {
    this.shownAt = now();
    this.course = switched && test.kind === 'amps' ? courseOf(model, test, edits) : null;
    this.wanted = modeFor(model, test);
    // The same place reads the same whoever asks.
    this.own = seededRandom(hashOf(JSON.stringify(test))).normal();
  }

  /** What the display shows now. */
  show(): number | 'OL' {
    const { mode } = this.meter;
    const test = this.testIn(mode);
    if (!test) return 0;
    // On one dial the same points have the same there, however often they are looked at.
    if (this.last?.kind !== test.kind) this.last = { kind: test.kind, prediction: this.predicted(test) };
    const { prediction } = this.last;
    if (!prediction) return 'OL';
    if (prediction.type !== 'number') return 0;
    const { loose } = prediction;
    const mean = this.course && test.kind === 'amps' ? this.courseNow(this.course) : prediction.mean;
    const { meterSigma, leastSigma, over } = figureOf(test.kind);
    if (Math.abs(mean) > over || mean === Infinity) return 'OL';
    if (loose) return FLOATS_BY * this.model.compiled.supplyVolts * Math.abs(this.flicker.normal());
    const sigma = Math.max(meterSigma(Math.abs(mean), undefined), 0.2 * leastSigma);
    return mean + sigma * (OWN_SHARE * this.own + FLICKER_SHARE * this.flicker.normal());
  }

  /** What is there by the circuit; null where a real meter shows nonsense or blows its fuse: ohms on what is live, a diode range across a supply. */
  private predicted(test: Test): Prediction | null {
    try {
      return predict(bindTest(this.model, test), this.edits);
    } catch (error) {
      if (error instanceof InputError) return null;
      throw error;
    }
  }

  /** Where what is switched on and off stands now, by its course in time: one that waits for whoever reads it too slowly to see it. */
  private courseNow({ seconds, values }: Trace): number {
    const now = this.now();
    this.into = (this.into + Math.min((now - this.shownAt) / 1000, LONGEST_STEP_SECONDS)) % SWITCHED.end;
    this.shownAt = now;
    return valueAt(seconds, values, this.into);
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
