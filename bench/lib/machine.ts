import { CircuitModel } from '../../src/core/circuit/model';
import type { Circuit, Part, Reading, Test } from '../../src/core/circuit/schema';
import type { Edit } from '../../src/core/circuit/edits';
import { spentFuse } from '../../src/core/diagnosis/faultTable';
import { totalSigma } from '../../src/core/diagnosis/likelihood';
import { bindTest, predict, predictedValue } from '../../src/core/diagnosis/predict';
import type { Random } from '../../src/core/random';

const BLUNDERS = 0.02;
/** A bound of tolerance or accuracy is about this many standard deviations' worth, turned round. */
const SIGMA_OF_BOUND = 0.6;
const LOAD_TOLERANCE = 0.08;
/** What a meter reads of a filament cold, and of a rotor standing, as a share of what it has at work: no two are alike. */
const READS_AT_REST = { lamp: [1 / 15, 1 / 7], motor: [1 / 20, 1 / 3] } as const;
/** A meter's error in a few ohms, as a share. */
const METER_SHARE = 0.015;
const SUPPLY_TOLERANCE = 0.02;
/** The meaner machine: parts off by more than is written on them, together by batch and by temperature, and a hastier hand. */
const MEAN_BLUNDERS = 0.04;
const MEAN_PART = 0.12;
const MEAN_BATCH = 0.05;
const MEAN_WARM = 0.08;
const MEAN_SUPPLY = 0.05;
/** Share of the complaint's words that are off by one: weak for dead, works for weak. */
const MEAN_WORDS = 0.05;

/** A machine built from parts that scatter, with a hidden fault, a meter that is off a little, and a hasty hand. */
export class Machine {
  private readonly model: CircuitModel;
  private readonly batch: number;
  private readonly warm: number;
  /** Fuses that went and that nobody has looked at since, by part. */
  private readonly gone = new Set<number>();

  constructor(
    private readonly circuit: Circuit,
    private readonly fault: readonly Edit[],
    private readonly random: Random,
    private readonly mean = false,
    /** A fuse that went stays gone until somebody looks at it; else each reading is taken with whole ones. */
    private readonly keepsFuses = false,
  ) {
    this.batch = mean ? 1 + MEAN_BATCH * (2 * random.next() - 1) : 1;
    this.warm = mean ? 1 + MEAN_WARM * (2 * random.next() - 1) : 1;
    this.model = new CircuitModel({ ...circuit, parts: circuit.parts.map((part) => this.scattered(part)) });
  }

  /** What a person would write down. `careful`: the complaint, which is not misread. */
  read(test: Test, careful = false): Reading {
    if (!this.keepsFuses) return this.readNow(test, careful);
    // Who looks at a fuse that is gone puts in another.
    if (test.kind === 'fuse') this.gone.clear();
    for (const part of this.opened(test)) this.gone.add(part);
    const reading = this.readNow(test, careful);
    if (test.kind === 'fuse') this.gone.clear();
    return reading;
  }

  /** What is due on this machine with whole fuses: nobody reads it, and nobody says it wrongly. */
  due(test: Test): Reading['value'] {
    return predictedValue(test.kind, predict(bindTest(this.model, test), this.fault)) as Reading['value'];
  }

  /** All fuses are whole from here on. */
  withWholeFuses(): Machine {
    return this.keepsFuses ? new Machine(this.circuit, this.fault, this.random, this.mean) : this;
  }

  private get edits(): readonly Edit[] {
    const gone = [...this.gone].map((part) => spentFuse(this.model, part));
    return gone.length === 0 ? this.fault : [...this.fault, ...gone];
  }

  private readNow(test: Test, careful: boolean): Reading {
    const { random, model } = this;
    if (this.mean) return this.readMeanly(test, careful);
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

  /** Whether a winding of this machine is further off than its drawing allows, the meter's own error aside: to say so is no mistake. */
  isBeyondTolerance(ref: string): boolean {
    const drawn = this.circuit.parts.find((part) => part.ref === ref);
    const built = this.model.compiled.circuit.parts.find((part) => part.ref === ref);
    if (drawn === undefined || built === undefined || !('ohms' in drawn) || !('ohms' in built)) return false;
    const off = Math.abs(built.ohms! / drawn.ohms! - 1);
    return off > ((drawn as { tolerance?: number }).tolerance ?? LOAD_TOLERANCE) - METER_SHARE;
  }

  /** Whether a live test took a fuse with it. */
  blows(test: Test): boolean {
    return this.opened(test).length > 0;
  }

  private opened(test: Test): number[] {
    const { solver, drive } = bindTest(this.model, test);
    if (drive.mode !== 'live') return [];
    const { devices, fuseLoad } = solver.solve(drive, this.edits);
    return fuseLoad.flatMap((load, at) => {
      const device = devices[at]!;
      return load > 1 && device.kind === 'fuse' ? [device.part] : [];
    });
  }

  /** Mistakes as people make them: on another point, in another position, leads swapped, ten-fold, not touching. */
  private readMeanly(test: Test, careful: boolean): Reading {
    const { random } = this;
    const blunder = !careful && random.next() < MEAN_BLUNDERS;
    const asked = blunder ? this.mistaken(test) : test;
    const prediction = predict(bindTest(this.model, asked), this.edits);
    if (prediction.type === 'choice') {
      const value = predictedValue(test.kind, prediction) as Reading['value'];
      const words = ['works', 'weak', 'dead'];
      const at = words.indexOf(String(value));
      const slips = at >= 0 && random.next() < (careful ? MEAN_WORDS : 0);
      const near = slips ? words[Math.min(Math.max(at + (random.next() < 0.5 ? -1 : 1), 0), 2)]! : value;
      return { ...test, value: near } as Reading;
    }
    let value: number | 'OL' = prediction.mean === Infinity ? 'OL' : prediction.mean;
    if (value !== 'OL')
      value += SIGMA_OF_BOUND * random.normal() * totalSigma(test.kind, value, 0, test.meter);
    if (blunder && asked === test) value = this.slipped(test, value);
    if (value !== 'OL' && ['ohms', 'insulation', 'diode'].includes(test.kind)) value = Math.max(0, value);
    return { ...test, value: value === 'OL' ? value : Number(value.toPrecision(4)) } as Reading;
  }

  /** The test that was taken instead; the same one where the slip is in the reading. */
  private mistaken(test: Test): Test {
    const { random, model } = this;
    const kind = random.next();
    const other = (made: Test): Test => {
      try {
        bindTest(model, made);
        return made;
      } catch {
        return test;
      }
    };
    if (kind < 0.3 && 'from' in test) {
      const from = model.compiled.nodeIndex.get(test.from)!;
      const near = model.compiled.branches.filter(({ a, b }) => a === from || b === from);
      const one = near[Math.floor(random.next() * near.length)];
      const node = one && model.compiled.nodeNames[one.a === from ? one.b : one.a];
      return node && node !== test.to ? other({ ...test, from: node } as Test) : test;
    }
    if (kind < 0.45 && test.setup.controls) {
      const controls = { ...test.setup.controls };
      const [name] = Object.keys(controls);
      if (name) controls[name] = model.compiled.circuit.controls[name]![0]!;
      return other({ ...test, setup: { ...test.setup, controls } });
    }
    return test;
  }

  private slipped(test: Test, value: number | 'OL'): number | 'OL' {
    const { random } = this;
    const kind = random.next();
    const dead = test.kind === 'ohms' || test.kind === 'insulation' || test.kind === 'diode';
    if (kind < 0.5) return dead ? 'OL' : 0.01 * random.normal();
    if (value === 'OL') return 10 ** (6 * random.next());
    if (kind < 0.7) return dead ? value * 1000 : -value;
    return value * (random.next() < 0.5 ? 10 : 0.1);
  }

  private misread({ kind }: Test): number | 'OL' {
    const { random, model } = this;
    if (kind === 'volts') return random.next() * model.compiled.supplyVolts;
    if (kind === 'pressure') return random.next() * model.compiled.supplyKPa;
    if (kind === 'amps') return 3 * random.next();
    return random.next() < 0.4 ? 'OL' : 10 ** (6 * random.next());
  }

  private scattered(part: Part): Part {
    const around = (tolerance: number) =>
      this.mean
        ? tolerance === SUPPLY_TOLERANCE
          ? 1 + MEAN_SUPPLY * (2 * this.random.next() - 1)
          : this.batch * this.warm * (1 + MEAN_PART * (2 * this.random.next() - 1) * 0.6)
        : 1 + SIGMA_OF_BOUND * tolerance * this.random.normal();
    switch (part.kind) {
      case 'source':
        return { ...part, volts: part.volts * around(SUPPLY_TOLERANCE) };
      case 'lamp':
      case 'motor': {
        const ohms = part.ohms * around(part.tolerance ?? LOAD_TOLERANCE);
        const [least, most] = READS_AT_REST[part.kind];
        return { ...part, ohms, restOhms: ohms * (least + (most - least) * this.random.next()) };
      }
      case 'coil':
      case 'relay':
      case 'resistor':
      case 'heater':
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
