import type { Edit } from '../circuit/edits';
import type { World } from '../circuit/world';
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
  private readonly spent = new Map<string, Map<Row, readonly Prediction[]>>();

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

  /** What a row makes a question read with a fuse gone besides, at each place of its grid. */
  predictedSpent(bound: BoundTest, row: Row, fuse: number): readonly Prediction[] {
    const key = `${solvedKey(bound)}|${fuse}`;
    const known = this.spent.get(key) ?? new Map<Row, readonly Prediction[]>();
    if (!this.spent.has(key)) remember(this.spent, key, known);
    let found = known.get(row);
    if (!found) {
      const gone = spentFuse(this.model, fuse);
      const at = (s: number) => predict(bound, [...row.variant.edits(row.grid[s]!), gone]);
      const last = row.grid.length - 1;
      const [first, final] = [at(0), at(last)];
      // Behind the fuse that is gone nothing is fed: mostly it is the same however bad the fault is.
      found = alike(first, final)
        ? row.grid.map(() => first)
        : row.grid.map((_severity, s) => (s === 0 ? first : s === last ? final : at(s)));
      known.set(row, found);
    }
    return found;
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
        grid.forEach((severity, s) => this.put(all, start + s, bound, edits(severity)));
      } else if (!bound.solver.breaksDown(sound, breakdown.at, breakdown.volts)) {
        const prediction = bound.read(sound, []);
        grid.forEach((_severity, s) => all.set(start + s, prediction));
      } else if (worn.fault === fault) {
        for (let s = 0; s < grid.length; s++) {
          all.set(start + s, all.peek(worn.start + s));
          all.takes[start + s] = all.takes[worn.start + s]!;
        }
      } else {
        worn = { fault, start };
        grid.forEach((severity, s) => this.put(all, start + s, bound, breakdown.worn(severity)));
      }
    }
    return all;
  }

  private put(
    all: PackedPredictions,
    at: number,
    { solver, drive, read }: BoundTest,
    edits: readonly Edit[],
  ): void {
    const world = solver.solve(drive, edits);
    all.set(at, read(world, edits));
    if (drive.mode !== 'live') return;
    const taken = takenBy(world);
    all.takes[at] = taken;
    if (taken >= 0) all.takesAny = true;
  }
}

/** Part of the fuse or breaker that opens in a world; -1 where none does. Nobody looks at a breaker more than at a fuse. */
export function takenBy({ fuseLoad }: World): number {
  for (const [part, load] of fuseLoad) if (load > 1) return part;
  return -1;
}

/** A fuse that something took and that nobody has renewed. */
export function spentFuse({ compiled }: CircuitModel, fuse: number): Edit {
  return { type: 'ohms', branch: compiled.parts[fuse]!.branches[0]!.index, ohms: Infinity, spent: true };
}

function alike(one: Prediction, other: Prediction): boolean {
  return JSON.stringify(one) === JSON.stringify(other);
}

function remember<T>(memory: Map<string, T>, key: string, value: T): void {
  memory.set(key, value);
  if (memory.size > MOST_REMEMBERED) memory.delete(memory.keys().next().value!);
}
