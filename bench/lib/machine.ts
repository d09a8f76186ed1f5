import { CircuitModel } from '../../src/core/circuit/model';
import type { Circuit, Part, Reading, Test } from '../../src/core/circuit/schema';
import type { Edit } from '../../src/core/circuit/edits';
import { totalSigma } from '../../src/core/diagnosis/likelihood';
import { bindTest, predict, predictedValue } from '../../src/core/diagnosis/predict';
import type { Random } from '../../src/core/random';

const BLUNDERS = 0.02;
/** A bound of tolerance or accuracy is about this many standard deviations' worth, turned round. */
const SIGMA_OF_BOUND = 0.6;
const LOAD_TOLERANCE = 0.08;
const SUPPLY_TOLERANCE = 0.02;

/** A machine built from parts that scatter, with a hidden fault, a meter that is off a little, and a hasty hand. */
export class Machine {
  private readonly model: CircuitModel;

  constructor(
    circuit: Circuit,
    private readonly edits: readonly Edit[],
    private readonly random: Random,
  ) {
    this.model = new CircuitModel({ ...circuit, parts: circuit.parts.map((part) => this.scattered(part)) });
  }

  /** What a person would write down. `careful`: the complaint, which is not misread. */
  read(test: Test, careful = false): Reading {
    const { random, model } = this;
    const prediction = predict(bindTest(model, test), this.edits);
    const blunder = !careful && random.next() < BLUNDERS;
    if (prediction.type === 'choice') {
      if (!blunder) return { ...test, value: predictedValue(test.kind, prediction) } as Reading;
      const keys = Object.keys(prediction.odds);
      const key = keys[Math.floor(random.next() * keys.length)]!;
      return { ...test, value: predictedValue(test.kind, { type: 'choice', odds: { [key]: 1 } }) } as Reading;
    }
    let value: number | 'OL' = prediction.mean === Infinity ? 'OL' : prediction.mean;
    if (value !== 'OL')
      value += SIGMA_OF_BOUND * random.normal() * totalSigma(test.kind, value, 0, test.meter);
    if (blunder) value = this.misread(test);
    if (value !== 'OL' && ['ohms', 'insulation', 'diode'].includes(test.kind)) value = Math.max(0, value);
    return { ...test, value: value === 'OL' ? value : Number(value.toPrecision(4)) } as Reading;
  }

  /** Whether a live test took a fuse with it. */
  blows(test: Test): boolean {
    const { solver, drive } = bindTest(this.model, test);
    if (drive.mode !== 'live') return false;
    return [...solver.solve(drive, this.edits).fuseLoad.values()].some((load) => load > 1);
  }

  private misread({ kind }: Test): number | 'OL' {
    const { random, model } = this;
    if (kind === 'volts') return random.next() * model.compiled.supplyVolts;
    if (kind === 'pressure') return random.next() * model.compiled.supplyKPa;
    if (kind === 'amps') return 3 * random.next();
    return random.next() < 0.4 ? 'OL' : 10 ** (6 * random.next());
  }

  private scattered(part: Part): Part {
    const around = (tolerance: number) => 1 + SIGMA_OF_BOUND * tolerance * this.random.normal();
    switch (part.kind) {
      case 'source':
        return { ...part, volts: part.volts * around(SUPPLY_TOLERANCE) };
      case 'coil':
      case 'relay':
      case 'resistor':
      case 'lamp':
      case 'heater':
      case 'motor':
      case 'sensor3':
        if (part.ohms === undefined) return part;
        return { ...part, ohms: part.ohms * around(part.tolerance ?? LOAD_TOLERANCE) };
      case 'airSupply':
      case 'pump':
      case 'regulator':
        return { ...part, kPa: part.kPa * around(SUPPLY_TOLERANCE) };
      default:
        return part;
    }
  }
}
