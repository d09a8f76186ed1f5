import type { Edit } from '../circuit/edits';
import { fuseTaken } from '../circuit/world';
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
  /** Place among the rows. */
  index: number;
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
    let index = 0;
    this.rows = faults.flatMap((fault, f) => {
      const grid = fault.severity ? severityGrid(fault.severity) : [1];
      const logMass = logMasses(grid, fault.severity);
      return fault.variants.map((variant): Row => {
        const logPrior = Math.log(fault.prior * variant.weight);
        const row = { index: index++, fault: f, variant, start, grid, logMass, logPrior };
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
    const logAt = (at: number) => logLikelihood(observation, predictions.peek(at), supplyVolts);
    const { kind, value, meter } = observation.readings[0]!;
    this.rows.forEach(({ start, grid }, r) => {
      const end = start + grid.length;
      // Below a weak spot's threshold, or far from the points, a whole row shares one prediction.
      if (predictions.flat[r]) {
        reach[r] = logAt(start);
        cells.fill(reach[r], start, end);
        return;
      }
      let most = -Infinity;
      let below = false;
      let above = false;
      for (let at = start; at < end; at++) {
        cells[at] = at > start && predictions.same(at - 1, at) ? cells[at - 1]! : logAt(at);
        most = Math.max(most, cells[at]!);
        const prediction = predictions.peek(at);
        if (prediction.type !== 'number' || typeof value !== 'number') continue;
        if (prediction.mean <= value) below = true;
        if (prediction.mean >= value) above = true;
      }
      reach[r] = most;
      if (typeof value !== 'number' || !below || !above) return;
      let sigma = Infinity;
      for (let at = start; at < end; at++) {
        const prediction = predictions.peek(at);
        if (prediction.type === 'number' && prediction.mean !== Infinity)
          sigma = Math.min(sigma, totalSigma(kind, value, prediction.sigma, meter));
      }
      reach[r] = Math.max(most, -Math.log(sigma * 2.5) * observation.readings.length);
    });
    return { cells, reach, predictions };
  }

  private predictAll(bound: BoundTest): PackedPredictions {
    const all = new PackedPredictions(this.cellCount, this.rows.length);
    const sound = bound.solver.solve(bound.drive);
    // Variants that differ only in the volts at which a weak spot breaks down share their predictions.
    let worn = { fault: -1, start: 0, isFlat: false };
    this.rows.forEach(({ fault, variant, start, grid }, r) => {
      const { breakdown, edits } = variant;
      let isFlat = true;
      if (!breakdown) {
        isFlat = putRow(all, start, grid.length, (s) => this.put(all, start + s, bound, edits(grid[s]!)));
      } else if (!bound.solver.breaksDown(sound, breakdown.at, breakdown.volts)) {
        const prediction = bound.read(sound, []);
        grid.forEach((_severity, s) => all.set(start + s, prediction));
      } else if (worn.fault === fault) {
        for (let s = 0; s < grid.length; s++) all.copy(worn.start + s, start + s);
        isFlat = worn.isFlat;
      } else {
        isFlat = putRow(all, start, grid.length, (s) =>
          this.put(all, start + s, bound, breakdown.worn(grid[s]!)),
        );
        worn = { fault, start, isFlat };
      }
      all.flat[r] = isFlat ? 1 : 0;
    });
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
    const taken = fuseTaken(world);
    all.takes[at] = taken;
    if (taken >= 0) all.takesAny = true;
  }
}

/**
 * Works a row out from its ends inwards, and says whether it shows the same everywhere: what one conductance moves it moves the one way
 * only, so that between two places that show the same as the place midway between them nothing shows otherwise. Most faults do not reach
 * what is read.
 */
function putRow(all: PackedPredictions, start: number, count: number, put: (s: number) => void): boolean {
  const between = (low: number, high: number): boolean => {
    if (high - low < 2) return all.same(start + low, start + high);
    const middle = (low + high) >> 1;
    put(middle);
    if (!all.same(start + low, start + middle) || !all.same(start + middle, start + high)) {
      between(low, middle);
      between(middle, high);
      return false;
    }
    for (let s = low + 1; s < high; s++) if (s !== middle) all.copy(start + middle, start + s);
    return true;
  };
  put(0);
  if (count > 1) put(count - 1);
  return between(0, count - 1);
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
