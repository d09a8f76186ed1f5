import type { Edit } from '../circuit/edits';
import { InputError } from '../circuit/inputError';
import type { CircuitModel } from '../circuit/model';
import type { Reading, Test } from '../circuit/schema';
import { findNode, findPart } from '../circuit/situation';
import {
  branchAmps,
  branchVolts,
  conductance,
  relayIn,
  scatterSources,
  type Drive,
  type SituationSolver,
  type World,
} from '../circuit/world';

/** Above these a meter shows over-range (contract), ohms and volts. */
export const OHMS_OVER = 6e7;
export const INSULATION_OVER = 2e9;
export const DIODE_OVER_VOLTS = 2.5;
const METER_OHMS = 1e7;
/** Volts above which a pair counts as powered: an ohmmeter there would read nonsense and may be damaged. */
const POWERED_VOLTS = 0.02;
/** Share of a part's tolerance that is one standard deviation. */
const TOLERANCE_SIGMA = 0.6;
/** Contact and plug resistance that differs from one good part to the next, ohms. */
const CONTACT_SCATTER_OHMS = 0.08;
/** Spread of a floating pair's reading around zero, volts. */
const FLOATING_VOLTS = 0.03;
/** Softness of thresholds (fuse, pull-in, works or weak), relative. */
const THRESHOLD_SOFTNESS = 0.06;
const WORKS_SHARE = 0.7;
const DEAD_SHARE = 0.2;
/** A coil without a pull-in figure is taken to pull in at this share of its nominal current. */
const PULL_IN_SHARE = 0.6;

/** What a meter or a person would find in one world. */
export type Prediction =
  | {
      type: 'number';
      /** Volts, amperes or ohms; `Infinity` is over-range. */
      mean: number;
      /** Scatter from part tolerances, without the meter's own. */
      sigma: number;
      /** The pair floats, or the circuit chatters: the display wanders, the figure says little. */
      loose: boolean;
    }
  | { type: 'choice'; odds: Readonly<Record<string, number>> };

/** A test bound to a circuit: names resolved, ready to be predicted for any fault. */
export interface BoundTest {
  test: Test;
  solver: SituationSolver;
  drive: Drive;
  /** What the test shows in a world solved with this test's solver and drive. */
  read: (world: World) => Prediction;
}

/** What a test would show with the given faults in the circuit. */
export function predict({ solver, drive, read }: BoundTest, edits: readonly Edit[]): Prediction {
  return read(solver.solve(drive, edits));
}

/**
 * Binds a test to a circuit. Throws {@link InputError} for an unknown node or part, or a test that is impossible
 * in its set-up, such as ohms on a powered pair.
 */
export function bindTest(model: CircuitModel, test: Test, field = 'reading'): BoundTest {
  const solver = model.situation(test.setup, `${field}.setup`);
  const { compiled } = model;
  const node = (key: 'from' | 'to') =>
    findNode(compiled, (test as { from: string; to: string })[key], `${field}.${key}`);
  const bound = (drive: Drive, read: (world: World) => Prediction): BoundTest => ({
    test,
    solver,
    drive,
    read,
  });
  const live: Drive = { mode: 'live' };

  switch (test.kind) {
    case 'volts': {
      const [i, j] = [node('from'), node('to')];
      const loadOhms = test.meter?.loadOhms ?? METER_OHMS;
      return bound(live, (world) => voltsPrediction(world, i, j, loadOhms));
    }
    case 'ohms': {
      const [i, j] = [node('from'), node('to')];
      refusePowered(model, solver, i, j, test.kind, field);
      return bound({ mode: 'ohms' }, (world) => ohmsPrediction(model, world, i, j, OHMS_OVER));
    }
    case 'insulation': {
      const [i, j] = [node('from'), node('to')];
      refusePowered(model, solver, i, j, test.kind, field);
      return bound({ mode: 'insulation', from: i, to: j, testVolts: test.testVolts }, (world) => {
        // The tester is an edge of the network: divide its volts by the current it delivers.
        const volts = world.changed.pairVolts(i, j);
        const tester = world.changed.base.edges.at(-1)!;
        const amps = tester.siemens * (tester.emf - volts);
        const ohms = amps > 0 && Number.isFinite(volts) ? volts / amps : Infinity;
        return measuredOhms(ohms, 0.03 * ohms, INSULATION_OVER);
      });
    }
    case 'diode': {
      const [i, j] = [node('from'), node('to')];
      refusePowered(model, solver, i, j, test.kind, field);
      return bound({ mode: 'diode', from: i, to: j }, (world) => {
        const volts = world.changed.pairVolts(i, j);
        const mean = Number.isNaN(volts) || volts > DIODE_OVER_VOLTS ? Infinity : volts;
        return { type: 'number', mean, sigma: mean === Infinity ? 0 : 0.06, loose: false };
      });
    }
    case 'amps': {
      const part = findPart(compiled, test.through, `${field}.through`);
      const branch = compiled.parts[part]!.branches[0];
      if (!branch)
        throw new InputError(`${field}.through`, `amps through "${test.through}": clamp a wire of it`);
      const sign = compiled.parts[part]!.part.kind === 'source' ? -1 : 1;
      return bound(live, (world) => {
        return {
          type: 'number',
          mean: sign * branchAmps(world, branch.index),
          sigma: ampsScatter(model, world, branch.index),
          loose: world.chatters,
        };
      });
    }
    case 'fuse': {
      const part = findPart(compiled, test.part, `${field}.part`);
      const { kind } = compiled.parts[part]!.part;
      if (kind !== 'fuse' && kind !== 'breaker') {
        throw new InputError(`${field}.part`, `"${test.part}" is a ${kind}; name a fuse or breaker`);
      }
      return bound(live, (world) => {
        const blows = soft(Math.log(Math.max(world.fuseLoad.get(part) ?? 0, 1e-9)));
        return { type: 'choice', odds: { blows, holds: 1 - blows } };
      });
    }
    case 'click': {
      const part = findPart(compiled, test.part, `${field}.part`);
      const { part: item, branches } = compiled.parts[part]!;
      if (item.kind !== 'relay' && item.kind !== 'coil') {
        throw new InputError(
          `${field}.part`,
          `"${test.part}" is a ${item.kind}; only a coil or relay clicks`,
        );
      }
      const pullIn = item.kind === 'coil' ? pullInAmps(model, item) : 0;
      return bound(live, (world) => {
        const yes =
          item.kind === 'relay'
            ? relayIn(world, part)
              ? 0.98
              : 0.02
            : soft(Math.log(Math.max(Math.abs(branchAmps(world, branches[0]!.index)), 1e-12) / pullIn));
        return { type: 'choice', odds: { true: yes, false: 1 - yes } };
      });
    }
    case 'function':
      return bound(live, functionPrediction(model, solver, test.part, field));
    case 'code': {
      const part = findPart(compiled, test.part, `${field}.part`);
      const item = compiled.parts[part]!.part;
      if (item.kind !== 'driver') {
        throw new InputError(`${field}.part`, `"${test.part}" is a ${item.kind}; only a driver sets codes`);
      }
      const branch = compiled.parts[part]!.branches[0]!.index;
      const modes = Object.entries(item.codes ?? {});
      return bound(live, (world) => {
        const commanded = solver.situation.commanded[branch] === 1 && solver.situation.present[branch] === 1;
        const amps = Math.abs(branchAmps(world, branch));
        let odds: Record<string, number> = { '': 1 };
        for (const [mode, { belowAmps, aboveAmps }] of modes) {
          const below = belowAmps === undefined ? 0 : soft(Math.log(belowAmps / Math.max(amps, 1e-9)));
          const above = aboveAmps === undefined ? 0 : soft(Math.log(Math.max(amps, 1e-9) / aboveAmps));
          const set = commanded ? Math.max(below, above) : 0;
          const next: Record<string, number> = {};
          for (const [key, share] of Object.entries(odds)) {
            next[key] = (next[key] ?? 0) + share * (1 - set);
            const with_ = key === '' ? mode : `${key},${mode}`;
            if (set > 0) next[with_] = (next[with_] ?? 0) + share * set;
          }
          odds = next;
        }
        return { type: 'choice', odds };
      });
    }
  }
}

/** Key of a discrete reading's value in `odds`. */
export function choiceKey(value: Reading['value']): string {
  return Array.isArray(value) ? [...value].sort((a, b) => a - b).join(',') : String(value);
}

/** The value a reading would show in a world: the likeliest choice, or the number as the meter gives it. */
export function predictedValue(
  kind: Test['kind'],
  prediction: Prediction,
): number | string | boolean | number[] {
  if (prediction.type === 'number') return prediction.mean === Infinity ? 'OL' : prediction.mean;
  const [best = ''] = Object.entries(prediction.odds).sort((a, b) => b[1] - a[1])[0] ?? [];
  if (kind === 'click') return best === 'true';
  if (kind === 'code') return best === '' ? [] : best.split(',').map(Number);
  return best;
}

function soft(logRatio: number): number {
  return 1 / (1 + Math.exp(-logRatio / THRESHOLD_SOFTNESS));
}

function refusePowered(
  model: CircuitModel,
  solver: SituationSolver,
  i: number,
  j: number,
  kind: string,
  field: string,
): void {
  const world = solver.solve({ mode: 'live' });
  const volts = world.changed.pairVolts(i, j);
  if (Math.abs(volts) > POWERED_VOLTS) {
    const name = (at: number) => model.compiled.nodeNames[at]!;
    throw new InputError(
      field,
      `${kind} from "${name(i)}" to "${name(j)}" is impossible in this set-up: the pair is powered ` +
        `(${Math.abs(volts).toFixed(2)} V); pull the fuse, unplug or isolate the source first`,
    );
  }
}

function measuredOhms(ohms: number, sigma: number, over: number): Prediction {
  return ohms > over
    ? { type: 'number', mean: Infinity, sigma: 0, loose: false }
    : { type: 'number', mean: Math.max(ohms, 0), sigma, loose: false };
}

function voltsPrediction(world: World, i: number, j: number, loadOhms: number): Prediction {
  const open = world.changed.pairVolts(i, j);
  // Nothing ties the pair together: the meter itself pulls it to about zero.
  if (Number.isNaN(open)) return { type: 'number', mean: 0, sigma: FLOATING_VOLTS, loose: true };
  const source = world.changed.pairOhms(i, j);
  const mean = (open * loadOhms) / (loadOhms + source);
  // A point behind megohms is a ghost: real meters read it, but every damp plug moves it.
  const ghost = source > 0.02 * loadOhms;
  const scatter = voltsScatter(world, i, j);
  const sigma = ghost ? Math.hypot(scatter, 0.25 * Math.abs(mean)) : scatter;
  return { type: 'number', mean, sigma, loose: world.chatters };
}

function voltsScatter(world: World, i: number, j: number): number {
  let variance = 0;
  for (const { a, b, amps } of scatterSources(world)) {
    if (!world.changed.joined(i, a)) continue;
    const volts = amps * world.changed.transfer(i, j, a, b);
    variance += volts * volts;
  }
  return TOLERANCE_SIGMA * Math.sqrt(variance);
}

function ampsScatter(model: CircuitModel, world: World, through: number): number {
  const own = conductance(world, through);
  if (own === 0) return 0;
  const { a, b, emf } = world.changed.base.edges[through]!;
  const branch = model.compiled.branches[through]!;
  const amps = own * (branchVolts(world, through) + emf);
  const direct = world.deltaBranch === through ? 0 : amps * branch.tolerance * TOLERANCE_SIGMA;
  const fromVolts = own * voltsScatter(world, a, b);
  // In a series loop the two are the same cause seen twice; the larger one is the honest figure.
  return Math.max(direct, fromVolts);
}

function ohmsPrediction(model: CircuitModel, world: World, i: number, j: number, over: number): Prediction {
  const ohms = world.changed.pairOhms(i, j);
  if (ohms > over) return measuredOhms(ohms, 0, over);
  let variance = CONTACT_SCATTER_OHMS ** 2;
  for (const branch of model.compiled.scattering) {
    if (branch.tolerance === 0 || world.deltaBranch === branch.index) continue;
    const siemens = conductance(world, branch.index);
    if (siemens === 0) continue;
    const { a, b } = world.changed.base.edges[branch.index]!;
    if (!world.changed.joined(i, a)) continue;
    const reach = world.changed.transfer(i, j, a, b);
    variance += (siemens * reach * reach * branch.tolerance * TOLERANCE_SIGMA) ** 2;
  }
  return measuredOhms(ohms, Math.sqrt(variance), over);
}

function pullInAmps(model: CircuitModel, coil: { ohms: number; pullInAmps?: number }): number {
  return coil.pullInAmps ?? (PULL_IN_SHARE * model.compiled.supplyVolts) / coil.ohms;
}

function functionPrediction(model: CircuitModel, solver: SituationSolver, ref: string, field: string) {
  const part = findPart(model.compiled, ref, `${field}.part`);
  const { part: item, branches } = model.compiled.parts[part]!;
  const branch = branches[0]?.index ?? -1;
  if (item.kind === 'coil') {
    const pullIn = pullInAmps(model, item);
    return (world: World): Prediction => {
      const amps = Math.abs(branchAmps(world, branch));
      const ratio = Math.log(Math.max(amps, 1e-12) / pullIn);
      const works = soft(ratio);
      // "Weak" speaks for a current near the threshold, on either side of it.
      const weak = 0.4 * Math.exp(-((ratio / 0.3) ** 2));
      return { type: 'choice', odds: { works: works * (1 - weak), weak, dead: (1 - works) * (1 - weak) } };
    };
  }
  if (item.kind === 'motor' || item.kind === 'heater' || item.kind === 'lamp') {
    const healthy = Math.abs(branchAmps(solver.solve({ mode: 'live' }), branch));
    return (world: World): Prediction => {
      const amps = Math.abs(branchAmps(world, branch));
      if (healthy < 1e-9) {
        const runs = amps > 1e-6 ? 0.9 : 0.02;
        return { type: 'choice', odds: { works: runs, weak: 0.01, dead: 0.99 - runs } };
      }
      const works = soft(Math.log(Math.max(amps / healthy, 1e-12) / WORKS_SHARE));
      const dead = 1 - soft(Math.log(Math.max(amps / healthy, 1e-12) / DEAD_SHARE));
      return { type: 'choice', odds: { works, dead, weak: Math.max(0, 1 - works - dead) } };
    };
  }
  throw new InputError(
    `${field}.part`,
    `"${ref}" is a ${item.kind}; a function is a coil, motor, heater or lamp`,
  );
}
