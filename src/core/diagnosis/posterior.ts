import type { Edit } from '../circuit/edits';
import type { CircuitModel } from '../circuit/model';
import { NO_EXPERIENCE, weighByExperience, type Experience } from './experience';
import { NO_FAULT_PRIOR } from './faultFrequency';
import { listFaults } from './faults';
import { FaultTable, type Fit, type Row } from './faultTable';
import { commonScatter, supplySigma } from './commonScatter';
import type { CandidateFault } from './faultTypes';
import { favouredBy } from './favours';
import { mistakeDensity } from './likelihood';
import { logLikelihood, solvedKey, type Observation } from './observations';
import { weighPairs } from './pairs';
import type { BoundTest } from './predict';
import type { Prediction } from './prediction';
import { storiesOf, type Story } from './stories';
import { severitiesReadFrom } from './refine';
import { interval, logMasses, logSum, sum } from './severity';
import type { Posterior, SeverityPoint, Weighed, WeighedFault } from './weighed';

/** Prior of "a reading or the drawing is wrong", weighed against all faults together. */
const UNEXPLAINED_PRIOR = 1e-3;
/** Prior share of a fault that comes and goes; weighed only when a display wandered. */
const INTERMITTENT_PRIOR = 0.3;
/** Log-evidence below the best at which refining a fault's severity cannot matter. */
const HOPELESS = 14;
/** Share below which nobody asks for a fault's details. */
const LEAST_SHARE = 5e-5;
/** Share of "nothing fits" at which two faults at once are looked for widely. */
const LOOK_FOR_PAIRS = 0.2;
/** A reading that the leading fault explains this much worse than another is left over, log. */
const LEFT_OVER = 3.5;

/** Evidence of one variant over its severities. */
interface Profile {
  row: Row;
  story: Story;
  severities: readonly number[];
  logLikelihoods: Float64Array;
  logMass: readonly number[];
  /** Prediction of an observation at a severity; read it, do not keep it. */
  peek: (s: number, observation: number) => Prediction;
}

/** Weighs every candidate fault against all observations. */
export class Weigher {
  readonly faults: readonly CandidateFault[];
  /** Pairs of loom wires and of plugs that were not looked at. */
  faultsLeftOut = 0;
  private readonly table: FaultTable;
  private readonly sound = new Map<string, Prediction>();
  private readonly supplySigma: number;

  constructor(
    readonly model: CircuitModel,
    experience: Experience = NO_EXPERIENCE,
  ) {
    this.faults = listFaults(model, (count) => (this.faultsLeftOut += count));
    weighByExperience(this.faults, experience);
    this.table = new FaultTable(model, this.faults);
    this.supplySigma = supplySigma(model);
  }

  /** Works out a test's predictions ahead of its answer. */
  prepare(bound: BoundTest): void {
    this.table.prepare(bound);
  }

  /**
   * How much better a suspect would explain the answer it asks for than the rest of the doubt does once the complaint is known, bits.
   * Where the suspect's fuse is taken to be gone, so is that of all that took the same one.
   */
  favours(
    bound: BoundTest,
    suspect: WeighedFault,
    complaint: ReadonlyMap<number, number>,
    observations: readonly Observation[],
  ): number {
    const { model, table, faults } = this;
    const sound = (one: Observation) => this.soundPrediction(one);
    return favouredBy({ model, table, faults, sound }, bound, suspect, complaint, observations);
  }

  /**
   * Weighs all faults against the readings.
   *
   * @param signs log-likelihood ratios of the faults under what was said and seen, by index, last the sound circuit's
   * @param mended parts that were repaired or renewed up to now, by index
   */
  weigh(
    observations: readonly Observation[],
    signs: Float64Array | null = null,
    mended: ReadonlySet<number> = new Set(),
  ): Posterior {
    const odds = (row: Row) => row.logPrior + (signs ? signs[this.faults[row.fault]!.index]! : 0);
    const { supplyVolts } = this.model.compiled;
    const fits = observations.map((observation) => this.table.fit(observation));
    this.model.tidy();
    const healthy = observations.map((observation) => this.soundPrediction(observation));
    const noFaultFits = observations.map((one, k) => logLikelihood(one, healthy[k]!, supplyVolts));
    const logNoFault =
      Math.log(NO_FAULT_PRIOR) +
      (signs ? signs[this.faults.length]! : 0) +
      sum(noFaultFits) +
      this.together(observations, (k) => healthy[k]!);
    const unsteady = observations.some((observation) => observation.unsteady);

    const totals = addedUp(fits, this.table.cellCount, ({ cells }) => cells);
    const reaches = addedUp(fits, this.table.rows.length, ({ reach }) => reach);
    // First pass on the fixed grid: which rows could still matter once their severity is refined.
    const evidence = this.table.rows.map(({ start, grid, logMass }) => {
      return grid.length === 1 ? totals[start]! : logEvidence(totals, start, logMass);
    });
    const read = {
      model: this.model,
      table: this.table,
      observations,
      fits,
      healthy,
      noFaultFits,
      totals,
      mended,
    };
    const told = this.table.rows.map((row, r) =>
      storiesOf(read, row).map((story) => {
        const own = story.isPlain ? evidence[r]! : story.evidence();
        // A severity between two places of the grid may fit better.
        const most = story.isPlain ? reaches[r]! : story.reach((k) => fits[k]!.reach[r]!);
        return { row, story, evidence: own, reach: Math.max(most, own) };
      }),
    );
    const best = told
      .flat()
      .reduce((top, { row, evidence: one }) => Math.max(top, odds(row) + one), logNoFault);
    const rowsOf = this.faults.map((): (typeof told)[number] => []);
    for (const list of told) for (const one of list) rowsOf[one.row.fault]!.push(one);
    const weighed = this.faults.map((fault, f): Weighed => {
      const rows = rowsOf[f]!;
      const matters = rows.filter(({ row, reach }) => odds(row) + reach > best - HOPELESS);
      if (matters.length === 0)
        return hopeless(
          fault,
          rows.filter(({ story }) => story.isPlain),
          totals,
          fits,
          odds,
        );
      const profiles = rows
        .filter((one) => one.story.isPlain || matters.includes(one))
        .map(({ row, story }) => this.refined(row, story, observations, fits));
      return this.summarise(fault, profiles, observations, unsteady ? healthy : null, odds);
    });

    const logChance =
      Math.log(UNEXPLAINED_PRIOR) +
      sum(
        observations.map(({ readings }) =>
          sum(readings.map(({ kind, value }) => Math.log(mistakeDensity(kind, value, supplyVolts)))),
        ),
      );
    // Were every reading unrelated to the drawing, this is how well chance alone would do.
    const unexplainedBy = (logs: readonly number[]) =>
      observations.length < 2 ? 0 : 1 / (1 + Math.exp(logSum(logs) - logChance));
    const singles = [logNoFault, ...weighed.map(({ log }) => log)];
    const readSince = observations.some((one) => one.mended.size > 0);
    const widely = readSince || unexplainedBy(singles) > LOOK_FOR_PAIRS || leavesOver(weighed, fits);
    const pairs = weighPairs({
      model: this.model,
      table: this.table,
      observations,
      fits,
      weighed,
      widely,
      odds,
      mended,
      together: (peek) => this.together(observations, peek),
    });
    const all = [...weighed, ...pairs];
    const logs = [...singles, ...pairs.map(({ log }) => log)];
    const total = logSum(logs);
    const faults = all.map(({ log, fault, severity, fits: own, details, partner }): WeighedFault => {
      const share = Math.exp(log - total);
      const { points, intermittent, severityRange } =
        share > LEAST_SHARE
          ? details()
          : { points: [], intermittent: 0, severityRange: [severity, severity] as [number, number] };
      return {
        fault,
        share,
        ...(fault.severity ? { severity, ...(severityRange ? { severityRange } : {}) } : {}),
        points: points.map((point) => ({ ...point, weight: point.weight * share })),
        fits: own,
        intermittent,
        ...(partner ? { partner } : {}),
      };
    });
    faults.sort((a, b) => b.share - a.share);
    const bestFits = observations.map((_one, k) =>
      all.reduce((top, one) => Math.max(top, one.fits[k]!), noFaultFits[k]!),
    );
    return {
      faults,
      noFault: Math.exp(logNoFault - total),
      noFaultFits,
      unexplained: unexplainedBy(logs),
      bestFits,
    };
  }

  private soundPrediction({ bound }: Observation): Prediction {
    const key = solvedKey(bound);
    let prediction = this.sound.get(key);
    if (!prediction) {
      prediction = bound.read(bound.solver.solve(bound.drive), []);
      this.sound.set(key, prediction);
    }
    return prediction;
  }

  /** A row's profile, with points added where the readings say the severity is. */
  private refined(
    row: Row,
    story: Story,
    observations: readonly Observation[],
    fits: readonly Fit[],
  ): Profile {
    const { grid, logMass } = row;
    const range = this.faults[row.fault]!.severity;
    const logAt = (s: number) => {
      const chance = story.log(grid[s]!);
      if (chance === -Infinity) return chance;
      return chance + story.fit(s) + this.together(observations, (k) => story.peek(s, k));
    };
    // What no reading follows is as likely at each of its severities.
    const isFlat = story.isPlain && fits.every(({ predictions }) => predictions.flat[row.index] === 1);
    const onGrid: Profile = {
      row,
      story,
      severities: grid,
      logLikelihoods: isFlat
        ? new Float64Array(grid.length).fill(logAt(0))
        : Float64Array.from(grid, (_severity, s) => logAt(s)),
      logMass,
      peek: (s, k) => story.peek(s, k),
    };
    if (isFlat) return onGrid;
    const added = range
      ? severitiesReadFrom(
          observations,
          (severity, k) => story.predicted(severity, k),
          range,
          grid,
          (k, s) => onGrid.peek(s, k),
        )
      : [];
    if (added.length === 0) return onGrid;
    const columns = [
      ...grid.map((severity, s) => ({
        severity,
        logLikelihood: onGrid.logLikelihoods[s]!,
        peek: (k: number) => onGrid.peek(s, k),
      })),
      ...added.map((severity) => {
        const predictions = observations.map((_one, k) => story.predicted(severity, k));
        const peek = (k: number) => predictions[k]!;
        const joint = this.fitOf(observations, peek, null) + this.together(observations, peek);
        return { severity, logLikelihood: story.log(severity) + joint, peek };
      }),
    ].sort((x, y) => x.severity - y.severity);
    const severities = columns.map(({ severity }) => severity);
    return {
      row,
      story,
      severities,
      logLikelihoods: Float64Array.from(columns, ({ logLikelihood: one }) => one),
      logMass: logMasses(severities, range),
      peek: (s, k) => columns[s]!.peek(k),
    };
  }

  /** What the readings say together beside each by itself: they share how far the supply stands off. */
  private together(observations: readonly Observation[], peek: (observation: number) => Prediction): number {
    return commonScatter(observations, this.supplySigma, this.model.compiled.supplyVolts, peek);
  }

  private fitOf(
    observations: readonly Observation[],
    peek: (observation: number) => Prediction,
    healthy: readonly Prediction[] | null,
  ): number {
    const { supplyVolts } = this.model.compiled;
    let total = 0;
    for (let k = 0; k < observations.length; k++) {
      total += logLikelihood(observations[k]!, peek(k), supplyVolts, healthy?.[k] ?? null);
    }
    return total;
  }

  private summarise(
    fault: CandidateFault,
    profiles: readonly Profile[],
    observations: readonly Observation[],
    healthy: readonly Prediction[] | null,
    odds: (row: Row) => number,
  ): Weighed {
    const parts = profiles.map((profile, variant) => {
      const { row, logLikelihoods, logMass } = profile;
      let cells = logMass.map((mass, s) => logLikelihoods[s]! + mass);
      let within = logSum(cells);
      let [steady, away] = [within, -Infinity];
      if (healthy) {
        const { story, severities } = profile;
        const mixed = logMass.map((mass, s) => {
          const chance = mass + story.log(severities[s]!);
          if (chance === -Infinity) return chance;
          return chance + this.fitOf(observations, (k) => profile.peek(s, k), healthy);
        });
        const sum_ = logSum(mixed);
        away = Math.log(INTERMITTENT_PRIOR) + sum_;
        steady += Math.log(1 - INTERMITTENT_PRIOR);
        if (away > steady) [cells, within] = [mixed, sum_];
      }
      const both = away === -Infinity ? steady : logSum([steady, away]);
      return { profile, variant, cells, within, log: odds(row) + both, away: Math.exp(away - both) };
    });
    const total = logSum(parts.map(({ log }) => log));
    let mode = { density: -Infinity, part: parts[0]!, s: 0 };
    for (const part of parts) {
      const { row, logLikelihoods } = part.profile;
      for (let s = 0; s < logLikelihoods.length; s++) {
        const density = odds(row) + logLikelihoods[s]!;
        if (density > mode.density) mode = { density, part, s };
      }
    }
    const { part: likeliest, s: at } = mode;
    const mixed = likeliest.away > 0.5 ? healthy : null;
    const { supplyVolts } = this.model.compiled;
    return {
      log: total,
      fault,
      severity: likeliest.profile.severities[at]!,
      fits: observations.map((one, k) =>
        logLikelihood(one, likeliest.profile.peek(at, k), supplyVolts, mixed?.[k] ?? null),
      ),
      details: () => {
        const points: SeverityPoint[] = [];
        // Where nobody knows how it goes on, the other ways stand behind all of the first.
        const others: SeverityPoint[] = [];
        let intermittent = 0;
        for (const { profile, variant, cells, within, log, away } of parts) {
          const weight = Math.exp(log - total);
          if (weight < 1e-4) continue;
          intermittent += weight * away;
          profile.severities.forEach((severity, s) => {
            const own = weight * Math.exp(cells[s]! - within);
            if (own < 1e-5) return;
            let edits: readonly Edit[] | null = null;
            const world = () => (edits ??= profile.row.variant.edits(severity));
            const { told } = profile.story;
            if (told)
              told(severity).forEach(({ share, during, now }, way) =>
                (way === 0 ? points : others).push({
                  variant: variant + way * parts.length,
                  severity,
                  weight: share * own,
                  edits: world,
                  during,
                  now: () => now,
                }),
              );
            else points.push({ variant, severity, weight: own, edits: world });
          });
        }
        points.push(...others);
        return { points, intermittent, ...(fault.severity ? { severityRange: interval(points) } : {}) };
      },
    };
  }
}

/** Whether the likeliest single fault leaves some reading to be called a mistake that another fault explains. */
function leavesOver(weighed: readonly Weighed[], fits: readonly Fit[]): boolean {
  const lead = weighed.reduce((top, one) => (one.log > top.log ? one : top));
  return fits.some(({ cells }, k) => {
    let best = -Infinity;
    for (let at = 0; at < cells.length; at++) if (cells[at]! > best) best = cells[at]!;
    return best - lead.fits[k]! > LEFT_OVER;
  });
}

/** log ∫ likelihood over one row of the grid. */
function logEvidence(totals: Float64Array, start: number, logMass: readonly number[]): number {
  let top = -Infinity;
  for (let s = 0; s < logMass.length; s++) top = Math.max(top, totals[start + s]! + logMass[s]!);
  let sum_ = 0;
  for (let s = 0; s < logMass.length; s++) sum_ += Math.exp(totals[start + s]! + logMass[s]! - top);
  return top + Math.log(sum_);
}

function addedUp(fits: readonly Fit[], length: number, pick: (fit: Fit) => Float64Array): Float64Array {
  const totals = new Float64Array(length);
  for (const fit of fits) {
    const own = pick(fit);
    for (let at = 0; at < length; at++) totals[at] = totals[at]! + own[at]!;
  }
  return totals;
}

/** A fault that no refinement can save: its share as the grid gives it. */
function hopeless(
  fault: CandidateFault,
  rows: readonly { row: Row; evidence: number }[],
  totals: Float64Array,
  fits: readonly Fit[],
  odds: (row: Row) => number,
): Weighed {
  let at = rows[0]!.row.start;
  let severity = rows[0]!.row.grid[0]!;
  for (const { row } of rows) {
    for (let s = 0; s < row.grid.length; s++) {
      if (totals[row.start + s]! <= totals[at]!) continue;
      at = row.start + s;
      severity = row.grid[s]!;
    }
  }
  return {
    log: logSum(rows.map(({ row, evidence }) => odds(row) + evidence)),
    fault,
    severity,
    fits: fits.map(({ cells }) => cells[at]!),
    details: () => ({ points: [], intermittent: 0 }),
  };
}
