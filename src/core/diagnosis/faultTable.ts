import type { CircuitModel } from '../circuit/model';
import type { CandidateFault, FaultVariant } from './faultTypes';
import { totalSigma } from './likelihood';
import { logLikelihood, solvedKey, type Observation } from './observations';
import { predict, type BoundTest } from './predict';
import { PackedPredictions, type Prediction } from './prediction';
import { logMasses, severityGrid } from './severity';

/** Observations whose predictions and fits are kept; the oldest fall out. */
const MOST_REMEMBERED = 120;

/** One variant of a fault on the fixed grid of severities; its cells lie at `start` and on. */
export interface Row {
  fault: number;
  variant: FaultVariant;
  start: number;
  grid: readonly number[];
  logMass: readonly number[];
  /** Logarithm of the prior of this variant. */
  logPrior: number;
}

/** What one observation says of every row. */
export interface Fit {
  /** Log-likelihood of each cell. */
  cells: Float64Array;
  /** The most each row could reach were its severity refined: a perfect hit where the prediction crosses the reading. */
  reach: Float64Array;
  predictions: PackedPredictions;
}

/** Predictions of every fault for every question asked so far. They do not depend on what was read. */
export class FaultTable {
  readonly rows: readonly Row[];
  readonly cellCount: number;
  private readonly predictions = new Map<string, PackedPredictions>();
  private readonly fits = new Map<string, Fit>();

  constructor(
    private readonly model: CircuitModel,
    readonly faults: readonly CandidateFault[],
  ) {
    let start = 0;
    this.rows = faults.flatMap((fault, f) => {
      const grid = fault.severity ? severityGrid(fault.severity) : [1];
      const logMass = logMasses(grid, fault.severity);
      return fault.variants.map((variant): Row => {
        const logPrior = Math.log(fault.prior * variant.weight);
        const row = { fault: f, variant, start, grid, logMass, logPrior };
        start += grid.length;
        return row;
      });
    });
    this.cellCount = start;
  }

  /** Works out a question's predictions ahead of its answer. */
  prepare(bound: BoundTest): PackedPredictions {
    const key = solvedKey(bound);
    let found = this.predictions.get(key);
    if (!found) {
      found = this.predictAll(bound);
      remember(this.predictions, key, found);
    }
    return found;
  }

  fit(observation: Observation): Fit {
    const said = observation.readings.map(({ value, meter, unsteady }) => [value, meter, unsteady]);
    const key = `${solvedKey(observation.bound)}|${JSON.stringify([observation.complaint, said])}`;
    let fit = this.fits.get(key);
    if (!fit) {
      fit = this.fitOf(observation, this.prepare(observation.bound));
      remember(this.fits, key, fit);
    }
    return fit;
  }

  /** What each cell makes a question read: as worked out before, else from its own world. */
  predicted(bound: BoundTest): (row: Row, s: number) => Prediction {
    const known = this.predictions.get(solvedKey(bound));
    return ({ variant, grid, start }, s) => known?.peek(start + s) ?? predict(bound, variant.edits(grid[s]!));
  }

  private fitOf(observation: Observation, predictions: PackedPredictions): Fit {
    const { supplyVolts } = this.model.compiled;
    const cells = new Float64Array(this.cellCount);
    const reach = new Float64Array(this.rows.length);
    for (let at = 0; at < this.cellCount; at++) {
      // Below a weak spot's threshold, or far from the points, a whole row shares one prediction.
      cells[at] =
        at > 0 && predictions.same(at - 1, at)
          ? cells[at - 1]!
          : logLikelihood(observation, predictions.peek(at), supplyVolts);
    }
    const { kind, value, meter } = observation.readings[0]!;
    this.rows.forEach(({ start, grid }, r) => {
      let most = -Infinity;
      let below = false;
      let above = false;
      let sigma = Infinity;
      for (let at = start; at < start + grid.length; at++) {
        most = Math.max(most, cells[at]!);
        const prediction = predictions.peek(at);
        if (prediction.type !== 'number' || typeof value !== 'number') continue;
        if (prediction.mean <= value) below = true;
        if (prediction.mean >= value) above = true;
        if (prediction.mean !== Infinity) {
          sigma = Math.min(sigma, totalSigma(kind, value, prediction.sigma, meter));
        }
      }
      const hit = -Math.log(sigma * 2.5) * observation.readings.length;
      reach[r] = below && above && grid.length > 1 ? Math.max(most, hit) : most;
    });
    return { cells, reach, predictions };
  }

  private predictAll(bound: BoundTest): PackedPredictions {
    const all = new PackedPredictions(this.cellCount);
    const sound = bound.solver.solve(bound.drive);
    // Variants that differ only in the volts at which a weak spot breaks down share their predictions.
    let worn = { fault: -1, start: 0 };
    for (const { fault, variant, start, grid } of this.rows) {
      const { breakdown, edits } = variant;
      if (!breakdown) {
        grid.forEach((severity, s) => all.set(start + s, predict(bound, edits(severity))));
      } else if (!bound.solver.breaksDown(sound, breakdown.at, breakdown.volts)) {
        const prediction = bound.read(sound, []);
        grid.forEach((_severity, s) => all.set(start + s, prediction));
      } else if (worn.fault === fault) {
        for (let s = 0; s < grid.length; s++) all.set(start + s, all.peek(worn.start + s));
      } else {
        worn = { fault, start };
        grid.forEach((severity, s) => all.set(start + s, predict(bound, breakdown.worn(severity))));
      }
    }
    return all;
  }
}

function remember<T>(memory: Map<string, T>, key: string, value: T): void {
  memory.set(key, value);
  if (memory.size > MOST_REMEMBERED) memory.delete(memory.keys().next().value!);
}
