import type { Edit } from '../circuit/edits';
import type { CircuitModel } from '../circuit/model';
import { mistakeDensity, totalSigma } from './likelihood';
import { NO_FAULT_PRIOR } from './faultFrequency';
import { listFaults } from './faults';
import type { CandidateFault, FaultVariant, SeverityRange } from './faultTypes';
import { logLikelihood, predictAll, type Observation } from './observations';
import { predict } from './predict';
import type { Prediction } from './prediction';

/** A point of a fault's posterior: one variant at one severity. Weights of all points add to the fault's share. */
export interface SeverityPoint {
  variant: number;
  edits: Edit[];
  severity: number;
  weight: number;
}

export interface WeighedFault {
  fault: CandidateFault;
  share: number;
  /** Severity with the highest posterior density, and the interval holding 90 % of it; ohms. Absent for discrete faults. */
  severityOhms?: number;
  severityRange?: [number, number];
  points: SeverityPoint[];
  /** Log-likelihood of each observation at the likeliest severity. */
  fits: number[];
  /** Share of this fault's probability that stands for "it comes and goes". */
  intermittent: number;
  /** A second fault that must be present as well, when no single one explains the readings. */
  partner?: { fault: CandidateFault; severity: number };
}

export interface Posterior {
  faults: WeighedFault[];
  noFault: number;
  noFaultFits: number[];
  /** Probability that no single or double fault fits: a reading or the drawing is wrong. */
  unexplained: number;
  /** Best log-likelihood each observation could have had under any candidate. */
  bestFits: number[];
}

/** Prior of "a reading or the drawing is wrong", weighed against all faults together. */
const UNEXPLAINED_PRIOR = 1e-3;
const GRID_MAIN = 26;
const GRID_TAIL = 8;
const MAIN_SHARE = 0.94;
/** Prior share of a fault that comes and goes; weighed only when a display wandered. */
const INTERMITTENT_PRIOR = 0.3;
/** Log-evidence below the best at which refining a fault's severity cannot matter. */
const HOPELESS = 14;
/** Offsets, in standard deviations, of the points put around a severity that a reading points to. */
const AROUND = [-4, -2.8, -2, -1.4, -0.9, -0.45, 0, 0.45, 0.9, 1.4, 2, 2.8, 4];
const BISECTIONS = 22;
/** How many readings may add their own points to one fault's grid. */
const MOST_ROOTS = 3;

/** Observations whose fits are kept; old values of a corrected reading fall out. */
const MOST_REMEMBERED = 200;

interface Column {
  severity: number;
  predictions: Prediction[];
  logLikelihood: number;
}

/** Evidence of one variant over its severities. */
interface Profile {
  logEvidence: number;
  columns: Column[];
  /** Normalised posterior weight of each column. */
  weights: number[];
}

/** Weighs every candidate fault against all observations. */
export class Weigher {
  readonly faults: readonly CandidateFault[];
  private readonly grids: readonly (readonly number[])[];
  /** Predictions on the fixed grid, per observation key; they do not depend on what was read. */
  private readonly memory = new Map<string, Prediction[][][]>();
  private readonly sound = new Map<string, Prediction>();
  /** Log-likelihoods on the fixed grid, per observation with what was read. */
  private readonly fitMemory = new Map<string, Float64Array>();

  constructor(readonly model: CircuitModel) {
    this.faults = listFaults(model);
    this.grids = this.faults.map(({ severity }) => (severity ? severityGrid(severity) : [1]));
  }

  weigh(observations: readonly Observation[]): Posterior {
    const { supplyVolts } = this.model.compiled;
    const tables = observations.map((observation) => this.table(observation));
    const gridFits = observations.map((observation, k) => this.gridFit(observation, tables[k]!));
    let position = 0;
    const healthy = observations.map(({ key, bound }) => {
      let prediction = this.sound.get(key);
      if (!prediction) {
        prediction = predict(bound, []);
        this.sound.set(key, prediction);
      }
      return prediction;
    });
    const unsteady = observations.some((observation) => observation.unsteady);
    const noFaultFits = observations.map((observation, k) =>
      logLikelihood(observation, healthy[k]!, supplyVolts),
    );

    const bounds: number[][] = [];
    // First pass: evidence on the fixed grid, and the most each variant could reach if refined.
    let best = Math.log(NO_FAULT_PRIOR) + sum(noFaultFits);
    const first = this.faults.map((fault, f) =>
      fault.variants.map((variant, v) => {
        const grid = this.grids[f]!;
        const start = position;
        position += grid.length;
        const columns = grid.map((severity, s): Column => {
          let total = 0;
          for (const fits of gridFits) total += fits[start + s]!;
          return { severity, predictions: tables.map((table) => table[f]![v]![s]!), logLikelihood: total };
        });
        const profile = integrate(columns, fault.severity);
        best = Math.max(best, Math.log(fault.prior * variant.weight) + profile.logEvidence);
        (bounds[f] ??= [])[v] = fault.severity
          ? this.bound(observations, columns, gridFits, start)
          : profile.logEvidence;
        return profile;
      }),
    );
    const weighed = this.faults.map((fault, f): { log: number; entry: WeighedFault } => {
      const profiles = fault.variants.map((variant, v) => {
        const profile = first[f]![v]!;
        const reach = Math.log(fault.prior * variant.weight) + bounds[f]![v]!;
        if (!fault.severity || reach < best - HOPELESS) return { variant, profile };
        return { variant, profile: this.refine(fault, variant, observations, profile) };
      });
      return this.summarise(fault, profiles, observations, unsteady ? healthy : null);
    });

    const logs = weighed.map(({ log }) => log);
    const logNoFault = Math.log(NO_FAULT_PRIOR) + sum(noFaultFits);
    const top = Math.max(logNoFault, ...logs);
    const total = logs.reduce((all, log) => all + Math.exp(log - top), Math.exp(logNoFault - top));
    const faults = weighed.map(({ log, entry }) => {
      const share = Math.exp(log - top) / total;
      return { ...entry, share, points: entry.points.map((p) => ({ ...p, weight: p.weight * share })) };
    });
    faults.sort((a, b) => b.share - a.share);
    // Were every reading unrelated to the drawing, this is how well chance alone would do.
    const logChance =
      Math.log(UNEXPLAINED_PRIOR) +
      sum(
        observations.map(({ readings }) =>
          sum(readings.map(({ kind, value }) => Math.log(mistakeDensity(kind, value, supplyVolts)))),
        ),
      );
    const unexplained = observations.length < 2 ? 0 : 1 / (1 + Math.exp(top + Math.log(total) - logChance));
    const bestFits = observations.map((_one, k) =>
      Math.max(noFaultFits[k]!, ...weighed.map(({ entry }) => entry.fits[k]!)),
    );
    return { faults, noFault: Math.exp(logNoFault - top) / total, noFaultFits, unexplained, bestFits };
  }

  private table(observation: Observation): Prediction[][][] {
    let table = this.memory.get(observation.key);
    if (!table) {
      table = this.faults.map((fault, f) =>
        fault.variants.map((variant) =>
          this.grids[f]!.map((severity) => predict(observation.bound, variant.edits(severity))),
        ),
      );
      this.memory.set(observation.key, table);
    }
    return table;
  }

  /** Log-likelihood of one observation at every point of the fixed grid, faults and variants in order. */
  private gridFit(observation: Observation, table: Prediction[][][]): Float64Array {
    const key = `${observation.key}|${JSON.stringify(observation.readings.map(({ value, meter, unsteady }) => [value, meter, unsteady]))}`;
    let fits = this.fitMemory.get(key);
    if (!fits) {
      const flat = table.flat(2);
      fits = Float64Array.from(flat, (prediction) =>
        logLikelihood(observation, prediction, this.model.compiled.supplyVolts),
      );
      this.fitMemory.set(key, fits);
      if (this.fitMemory.size > MOST_REMEMBERED) this.fitMemory.delete(this.fitMemory.keys().next().value!);
    }
    return fits;
  }

  private fit(
    observations: readonly Observation[],
    predictions: readonly Prediction[],
    healthy: readonly Prediction[] | null,
  ): number {
    let total = 0;
    for (let k = 0; k < observations.length; k++) {
      total += logLikelihood(
        observations[k]!,
        predictions[k]!,
        this.model.compiled.supplyVolts,
        healthy?.[k] ?? null,
      );
    }
    return total;
  }

  /** The most a variant's evidence could be: where the prediction crosses the reading, a perfect hit is possible. */
  private bound(
    observations: readonly Observation[],
    columns: readonly Column[],
    gridFits: readonly Float64Array[],
    start: number,
  ): number {
    let total = 0;
    observations.forEach((observation, k) => {
      const value = observation.readings[0]!.value;
      let most = -Infinity;
      let below = false;
      let above = false;
      let sigma = Infinity;
      for (let s = 0; s < columns.length; s++) {
        const prediction = columns[s]!.predictions[k]!;
        most = Math.max(most, gridFits[k]![start + s]!);
        if (prediction.type !== 'number' || typeof value !== 'number') continue;
        if (prediction.mean <= value) below = true;
        if (prediction.mean >= value) above = true;
        if (prediction.mean !== Infinity) {
          const { kind, meter } = observation.readings[0]!;
          sigma = Math.min(sigma, totalSigma(kind, value, prediction.sigma, meter));
        }
      }
      total += below && above ? Math.max(most, -Math.log(sigma * 2.5) * observation.readings.length) : most;
    });
    return total;
  }

  /** Puts points where the readings say the severity is, so that a narrow peak is not stepped over. */
  private refine(
    fault: CandidateFault,
    variant: FaultVariant,
    observations: readonly Observation[],
    profile: Profile,
  ): Profile {
    const roots: { log: number; width: number }[] = [];
    observations.forEach((observation, k) => {
      const { kind, value, meter } = observation.readings[0]!;
      if (typeof value !== 'number') return;
      const wanted = kind === 'amps' ? Math.abs(value) : value;
      const meanOf = (prediction: Prediction) => {
        if (prediction.type !== 'number') return NaN;
        return kind === 'amps' ? Math.abs(prediction.mean) : prediction.mean;
      };
      for (let s = 1; s < profile.columns.length; s++) {
        const [low, high] = [profile.columns[s - 1]!, profile.columns[s]!];
        const [from, to] = [meanOf(low.predictions[k]!), meanOf(high.predictions[k]!)];
        if (!(from - wanted) || Number.isNaN(from) || Number.isNaN(to)) continue;
        if (from > wanted === to > wanted) continue;
        let [a, b] = [Math.log(low.severity), Math.log(high.severity)];
        let [fa, fb] = [from, to];
        for (let step = 0; step < BISECTIONS && b - a > 1e-4; step++) {
          const middle = (a + b) / 2;
          const seen = meanOf(predict(observation.bound, variant.edits(Math.exp(middle))));
          if (seen > wanted === from > wanted) [a, fa] = [middle, seen];
          else [b, fb] = [middle, seen];
        }
        const at = predict(observation.bound, variant.edits(Math.exp((a + b) / 2)));
        const sigma = at.type === 'number' ? totalSigma(kind, wanted, at.sigma, meter) : 0;
        const slope = Math.abs(fb - fa) / (b - a);
        const width = Number.isFinite(slope) && slope > 0 ? Math.min(sigma / slope, 1) : 0.05;
        roots.push({ log: (a + b) / 2, width: Math.max(width, 1e-4) });
      }
    });
    if (roots.length === 0) return profile;
    roots.sort((x, y) => x.width - y.width);
    const { least, most } = fault.severity!;
    const fresh = new Set<number>();
    for (const { log, width } of roots.slice(0, MOST_ROOTS)) {
      for (const step of AROUND) {
        const severity = Math.exp(log + step * width);
        if (severity > least && severity < most) fresh.add(severity);
      }
    }
    const added = [...fresh].map((severity): Column => {
      const predictions = predictAll(observations, variant.edits(severity));
      return { severity, predictions, logLikelihood: this.fit(observations, predictions, null) };
    });
    const columns = [...profile.columns, ...added].sort((x, y) => x.severity - y.severity);
    return integrate(columns, fault.severity);
  }

  private summarise(
    fault: CandidateFault,
    profiles: readonly { variant: FaultVariant; profile: Profile }[],
    observations: readonly Observation[],
    healthy: readonly Prediction[] | null,
  ): { log: number; entry: WeighedFault } {
    const parts = profiles.map(({ variant, profile }) => {
      let steady = Math.log(variant.weight) + profile.logEvidence;
      let away = -Infinity;
      let weights = profile.weights;
      if (healthy) {
        const columns = profile.columns.map((column) => ({
          ...column,
          logLikelihood: this.fit(observations, column.predictions, healthy),
        }));
        const mixed = integrate(columns, fault.severity);
        away = Math.log(variant.weight * INTERMITTENT_PRIOR) + mixed.logEvidence;
        steady += Math.log(1 - INTERMITTENT_PRIOR);
        if (away > steady) weights = mixed.weights;
      }
      return { variant, profile, weights, log: logAdd(steady, away), away };
    });
    const top = Math.max(...parts.map(({ log }) => log));
    const total = parts.reduce((all, { log }) => all + Math.exp(log - top), 0);
    const points: SeverityPoint[] = [];
    let intermittent = 0;
    let mode = { density: -Infinity, severity: 1, fits: [] as number[] };
    for (const [v, { variant, profile, weights, log, away }] of parts.entries()) {
      const weight = Math.exp(log - top) / total;
      if (weight < 1e-4) continue;
      intermittent += weight * Math.exp(away - log);
      profile.columns.forEach((column, s) => {
        const own = weight * weights[s]!;
        if (own > 1e-5) {
          const { severity } = column;
          points.push({ variant: v, edits: variant.edits(severity), severity, weight: own });
        }
        const density = Math.log(variant.weight) + column.logLikelihood;
        if (density > mode.density) {
          const fits = observations.map((observation, k) =>
            logLikelihood(
              observation,
              column.predictions[k]!,
              this.model.compiled.supplyVolts,
              Math.exp(away - log) > 0.5 ? (healthy?.[k] ?? null) : null,
            ),
          );
          mode = { density, severity: column.severity, fits };
        }
      });
    }
    return {
      log: Math.log(fault.prior) + top + Math.log(total),
      entry: {
        fault,
        share: 0,
        ...(fault.severity?.unit === 'ohms'
          ? { severityOhms: mode.severity, severityRange: interval(points) }
          : {}),
        points,
        fits: mode.fits,
        intermittent,
      },
    };
  }
}

/** Severities to try: evenly in the logarithm, denser where the fault matters. */
function severityGrid({ least, most, mainLeast, mainMost }: SeverityRange): number[] {
  const grid = [
    ...logSpaced(least, mainLeast, GRID_TAIL / 2),
    ...logSpaced(mainLeast, mainMost, GRID_MAIN),
    ...logSpaced(mainMost, most, GRID_TAIL),
  ];
  return [...new Set(grid)].sort((a, b) => a - b);
}

function logSpaced(from: number, to: number, count: number): number[] {
  if (to <= from * 1.0001) return [from];
  return Array.from({ length: count }, (_, k) => from * (to / from) ** (k / (count - 1)));
}

/** Prior density per unit of log severity. */
function priorDensity(severity: number, range: SeverityRange): number {
  const { least, most, mainLeast, mainMost } = range;
  const main = Math.log(mainMost / mainLeast);
  const tails = Math.log(mainLeast / least) + Math.log(most / mainMost);
  const inMain = severity >= mainLeast && severity <= mainMost;
  if (tails < 1e-6) return 1 / main;
  return inMain ? MAIN_SHARE / main : (1 - MAIN_SHARE) / tails;
}

/** Trapezoid over log severity; exact for a discrete fault. */
function integrate(columns: Column[], range: SeverityRange | null): Profile {
  if (!range || columns.length === 1) {
    return { logEvidence: columns[0]!.logLikelihood, columns, weights: [1] };
  }
  const top = Math.max(...columns.map(({ logLikelihood: one }) => one));
  const masses = columns.map(({ severity, logLikelihood: one }, s) => {
    const before = s > 0 ? Math.log(severity / columns[s - 1]!.severity) : 0;
    const after = s + 1 < columns.length ? Math.log(columns[s + 1]!.severity / severity) : 0;
    return Math.exp(one - top) * priorDensity(severity, range) * 0.5 * (before + after);
  });
  const total = masses.reduce((all, mass) => all + mass, 0);
  return { logEvidence: top + Math.log(total), columns, weights: masses.map((mass) => mass / total) };
}

function interval(points: readonly SeverityPoint[]): [number, number] {
  const sorted = [...points].sort((a, b) => a.severity - b.severity);
  const total = sorted.reduce((all, { weight }) => all + weight, 0);
  let run = 0;
  let low = sorted[0]?.severity ?? 0;
  for (const { severity, weight } of sorted) {
    if (run / total < 0.05) low = severity;
    run += weight;
    if (run / total >= 0.95) return [low, severity];
  }
  return [low, sorted.at(-1)?.severity ?? 0];
}

function logAdd(a: number, b: number): number {
  const top = Math.max(a, b);
  return top === -Infinity ? top : top + Math.log(Math.exp(a - top) + Math.exp(b - top));
}

function sum(values: readonly number[]): number {
  return values.reduce((all, one) => all + one, 0);
}
