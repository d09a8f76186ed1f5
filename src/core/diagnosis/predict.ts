import { FUSE_LIMIT } from '../circuit/devices';
import { kindsThat } from '../kinds/part/index';
import { pullInAmps } from '../kinds/part/coil';
import type { Edit } from '../circuit/edits';
import { openedBy } from '../circuit/fuseTime';
import { InputError } from '../circuit/inputError';
import type { CircuitModel } from '../circuit/model';
import type { Part, Reading, Test } from '../circuit/schema';
import { findNode, findPart } from '../circuit/situation';
import type { Drive, SituationSolver } from '../circuit/solveSituation';
import { branchAmps, relayIn, type World } from '../circuit/world';
import { soft, type Prediction } from './prediction';
import { actuatorPrediction, flowPrediction, movesPrediction, pressurePrediction } from './predictFluid';
import { ampsScatter, ohmsScatter, voltsScatter } from './scatter';

/** Above these a meter shows over-range (contract), ohms and volts. */
export const OHMS_OVER = 6e7;
export const INSULATION_OVER = 2e9;
export const DIODE_OVER_VOLTS = 2.5;
const METER_OHMS = 1e7;
/** Volts above which a pair counts as powered: an ohmmeter there would read nonsense and may be damaged. */
const POWERED_VOLTS = 0.02;
/** Spread of a floating pair's reading around zero, volts. */
const FLOATING_VOLTS = 0.03;
const WORKS_SHARE = 0.7;
const DEAD_SHARE = 0.2;

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
  const [drive, read] = readerOf(model, solver, test, field);
  return { test, solver, drive, read };
}

/** Kinds that can be watched working. */
const WORKING_KINDS = kindsThat('works');

type Reader = readonly [Drive, (world: World) => Prediction];

function readerOf(model: CircuitModel, solver: SituationSolver, test: Test, field: string): Reader {
  const { compiled } = model;
  const live: Drive = { mode: 'live' };
  switch (test.kind) {
    case 'volts': {
      const [i, j] = electricalPair(model, test, field);
      const loadOhms = test.meter?.loadOhms ?? METER_OHMS;
      const size = compiled.alternating[i] === 1 || compiled.alternating[j] === 1;
      return [live, (world) => voltsPrediction(world, i, j, loadOhms, size)];
    }
    case 'ohms':
    case 'insulation':
    case 'diode': {
      const [i, j] = electricalPair(model, test, field);
      refusePowered(model, solver, i, j, test.kind, field);
      if (test.kind === 'ohms') {
        return [{ mode: 'ohms' }, (world) => ohmsPrediction(model, world, i, j)];
      }
      if (test.kind === 'insulation') {
        const drive = { mode: 'insulation', from: i, to: j, testVolts: test.testVolts } as const;
        return [drive, (world) => insulationPrediction(world, i, j)];
      }
      return [{ mode: 'diode', from: i, to: j }, (world) => diodePrediction(world, i, j)];
    }
    case 'amps':
      return [live, ampsReader(model, test.through, field)];
    case 'fuse': {
      const { index } = partOf(
        model,
        solver,
        test.part,
        field,
        ['fuse', 'breaker'],
        'name a fuse or breaker',
      );
      const seconds = test.setup.afterSeconds ?? Infinity;
      return [
        live,
        (world) => {
          const load = Math.max(world.fuseLoad.get(index) ?? 0, 1e-9);
          const blows =
            soft(Math.log(load)) * (seconds === Infinity ? 1 : openedBy(seconds, 100 * FUSE_LIMIT * load));
          return { type: 'choice', odds: { blows, holds: 1 - blows } };
        },
      ];
    }
    case 'click':
      return [live, clickReader(model, solver, test.part, field)];
    case 'function':
      return [live, functionReader(model, solver, test.part, field)];
    case 'code':
      return [live, codeReader(model, solver, test.part, field)];
    case 'pressure':
      return [live, pressurePrediction(model, test.at, `${field}.at`)];
    case 'flow':
      return [live, flowPrediction(model, test, field)];
    case 'moves': {
      const kinds = ['cylinder', 'vacuumActuator'] as const;
      const { index } = partOf(model, solver, test.part, field, kinds, 'name a cylinder or actuator');
      return [live, movesPrediction(solver, index)];
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
  const [key = ''] = Object.entries(prediction.odds).sort((a, b) => b[1] - a[1])[0] ?? [];
  if (kind === 'click') return key === 'true';
  if (kind === 'code') return key === '' ? [] : key.split(',').map(Number);
  return key;
}

function electricalPair(
  { compiled }: CircuitModel,
  { from, to }: { from: string; to: string },
  field: string,
): [number, number] {
  const pair: [number, number] = [
    findNode(compiled, from, `${field}.from`),
    findNode(compiled, to, `${field}.to`),
  ];
  pair.forEach((node, at) => {
    if (compiled.domains[node] !== 'fluid') return;
    const key = at === 0 ? 'from' : 'to';
    throw new InputError(
      `${field}.${key}`,
      `node "${at === 0 ? from : to}" carries fluid; a meter reads electrical nodes`,
    );
  });
  return pair;
}

/** The part standing in a named place: itself, or its twin where the two are swapped. */
function partOf<K extends Part['kind']>(
  { compiled }: CircuitModel,
  solver: SituationSolver,
  ref: string,
  field: string,
  kinds: readonly K[],
  mend: string,
) {
  const place = findPart(compiled, ref, `${field}.part`);
  const found = compiled.parts[solver.situation.inPlace[place]!]!;
  if (!kinds.includes(found.part.kind as K)) {
    throw new InputError(`${field}.part`, `"${ref}" is a ${found.part.kind}; ${mend}`);
  }
  return { ...found, part: found.part as Extract<Part, { kind: K }> };
}

function refusePowered(
  model: CircuitModel,
  solver: SituationSolver,
  i: number,
  j: number,
  kind: Test['kind'],
  field: string,
): void {
  const volts = solver.solve({ mode: 'live' }).changed.pairVolts(i, j);
  if (Number.isNaN(volts) || Math.abs(volts) <= POWERED_VOLTS) return;
  const name = (node: number) => model.compiled.nodeNames[node];
  throw new InputError(
    field,
    `${kind} from "${name(i)}" to "${name(j)}" is impossible in this set-up: the pair is powered ` +
      `(${Math.abs(volts).toFixed(2)} V); pull the fuse, unplug or isolate the source first`,
  );
}

function measuredOhms(ohms: number, sigma: number, over: number): Prediction {
  return ohms > over
    ? { type: 'number', mean: Infinity, sigma: 0, loose: false }
    : { type: 'number', mean: Math.max(ohms, 0), sigma, loose: false };
}

function voltsPrediction(world: World, i: number, j: number, loadOhms: number, size: boolean): Prediction {
  const open = world.changed.pairVolts(i, j);
  // Nothing ties the pair together: the meter itself pulls it to about zero.
  if (Number.isNaN(open)) return { type: 'number', mean: 0, sigma: FLOATING_VOLTS, loose: true };
  const source = world.changed.pairOhms(i, j);
  const mean = ((size ? Math.abs(open) : open) * loadOhms) / (loadOhms + source);
  // A point behind megohms is a ghost: real meters read it, but every damp plug moves it.
  const ghost = source > 0.02 * loadOhms;
  const scatter = voltsScatter(world, i, j);
  const sigma = ghost ? Math.hypot(scatter, 0.25 * Math.abs(mean)) : scatter;
  return { type: 'number', mean, sigma, loose: world.chatters };
}

function ohmsPrediction(model: CircuitModel, world: World, i: number, j: number): Prediction {
  const ohms = world.changed.pairOhms(i, j);
  if (ohms > OHMS_OVER) return measuredOhms(ohms, 0, OHMS_OVER);
  return measuredOhms(ohms, ohmsScatter(model, world, i, j), OHMS_OVER);
}

function insulationPrediction(world: World, i: number, j: number): Prediction {
  // The tester is part of the network: divide its volts by the current it delivers.
  const volts = world.changed.pairVolts(i, j);
  const { siemens, emf } = world.meter!;
  const amps = siemens * (emf - volts);
  const ohms = amps > 0 && Number.isFinite(volts) ? volts / amps : Infinity;
  return measuredOhms(ohms, 0.03 * ohms, INSULATION_OVER);
}

function diodePrediction(world: World, i: number, j: number): Prediction {
  const volts = world.changed.pairVolts(i, j);
  const mean = Number.isNaN(volts) || volts > DIODE_OVER_VOLTS ? Infinity : volts;
  return { type: 'number', mean, sigma: mean === Infinity ? 0 : 0.06, loose: false };
}

function ampsReader(model: CircuitModel, ref: string, field: string) {
  const { compiled } = model;
  const { part, branches } = compiled.parts[findPart(compiled, ref, `${field}.through`)]!;
  const branch = branches.find(({ domain }) => domain === 'electrical');
  if (!branch) throw new InputError(`${field}.through`, `amps through "${ref}": clamp a wire of it`);
  const sign = part.kind === 'source' ? -1 : 1;
  const size = compiled.alternating[branch.a] === 1 || compiled.alternating[branch.b] === 1;
  return (world: World): Prediction => {
    const amps = branchAmps(world, branch.index);
    const sigma = ampsScatter(model, world, branch.index);
    return { type: 'number', mean: size ? Math.abs(amps) : sign * amps, sigma, loose: world.chatters };
  };
}

function clickReader(model: CircuitModel, solver: SituationSolver, ref: string, field: string) {
  const { part, branches, index } = partOf(
    model,
    solver,
    ref,
    field,
    ['relay', 'coil'],
    'only a coil or relay clicks',
  );
  if (part.kind === 'relay') {
    return (world: World): Prediction => {
      const yes = relayIn(world, index) ? 0.98 : 0.02;
      return { type: 'choice', odds: { true: yes, false: 1 - yes } };
    };
  }
  const pullIn = pullInAmps(model.compiled.supplyVolts, part);
  return (world: World): Prediction => {
    const amps = Math.abs(branchAmps(world, branches[0]!.index));
    const yes = soft(Math.log(Math.max(amps, 1e-12) / pullIn));
    return { type: 'choice', odds: { true: yes, false: 1 - yes } };
  };
}

function codeReader(model: CircuitModel, solver: SituationSolver, ref: string, field: string) {
  const { part, branches } = partOf(model, solver, ref, field, ['driver'], 'only a driver sets codes');
  const branch = branches[0]!.index;
  const modes = Object.entries(part.codes ?? {});
  const commanded = solver.situation.commanded[branch] === 1 && solver.situation.present[branch] === 1;
  return (world: World): Prediction => {
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
  };
}

function functionReader(model: CircuitModel, solver: SituationSolver, ref: string, field: string) {
  const mend =
    'a function is a coil, motor, heater, lamp, valve that follows its current, cylinder or actuator';
  const { part, branches, index } = partOf(model, solver, ref, field, WORKING_KINDS, mend);
  if (part.kind === 'cylinder' || part.kind === 'vacuumActuator') {
    return actuatorPrediction(solver, index, WORKS_SHARE, DEAD_SHARE);
  }
  const branch = branches[0]!.index;
  if (part.kind === 'coil') {
    const pullIn = pullInAmps(model.compiled.supplyVolts, part);
    return (world: World): Prediction => {
      const amps = Math.abs(branchAmps(world, branch));
      const ratio = Math.log(Math.max(amps, 1e-12) / pullIn);
      const works = soft(ratio);
      // "Weak" speaks for a current near the threshold, on either side of it.
      const weak = 0.4 * Math.exp(-((ratio / 0.3) ** 2));
      return { type: 'choice', odds: { works: works * (1 - weak), weak, dead: (1 - works) * (1 - weak) } };
    };
  }
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
