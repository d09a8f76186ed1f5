import { compileCircuit, type CompiledCircuit, type CompiledPart, type LearntOhms } from './compile';
import { isAssumed } from './assumed';
import type { Part } from './partSchema';
import type { Circuit, Setup } from './schema';
import { applySetup } from './situation';
import { SituationSolver } from './solveSituation';
import { branchAmps } from './world';

/** Most control combinations looked at when a circuit is opened; beyond this each control is varied alone. */
const MOST_COMBINATIONS = 36;

/** Numbers kept in inverses, all situations together: 64 MB. */
const MOST_KEPT = 8e6;

/** A compiled circuit with every situation it has been put into, kept for the next question. */
export class CircuitModel {
  readonly compiled: CompiledCircuit;
  /** Control combinations worth visiting, resting positions first. */
  readonly combinations: readonly Readonly<Record<string, string>>[];
  private readonly solvers = new Map<string, SituationSolver>();
  private loops: Float64Array | null = null;
  private readonly nodePeaks: Float64Array;

  constructor(circuit: Circuit, learnt?: LearntOhms) {
    this.compiled = compileCircuit(withBearingFuses(circuit), learnt);
    this.combinations = controlCombinations(circuit.controls);
    this.nodePeaks = new Float64Array(this.compiled.nodeNames.length);
  }

  /** Highest volts to the frame that a node ever has on the sound circuit; the supply's where it never has any. */
  peakVolts(node: number): number {
    this.loopOhms();
    const peak = this.nodePeaks[node]!;
    return peak > 0.01 * this.compiled.supplyVolts ? peak : this.compiled.supplyVolts;
  }

  /** Solver for a set-up. Throws `InputError` when the set-up names what the circuit does not have. */
  situation(setup: Setup, field = 'setup'): SituationSolver {
    const key = setupKey(setup);
    let solver = this.solvers.get(key);
    if (!solver) {
      solver = new SituationSolver(applySetup(this.compiled, setup, field));
      this.solvers.set(key, solver);
    }
    return solver;
  }

  /** Keeps memory in bounds: situations asked longest ago let go of their inverses. Call between questions. */
  tidy(): void {
    let kept = 0;
    for (const solver of this.solvers.values()) kept += solver.kept;
    for (const solver of this.solvers.values()) {
      if (kept <= MOST_KEPT) return;
      kept -= solver.kept;
      solver.forget();
    }
  }

  /** Supply volts over the highest healthy current of each branch: the loop it works in, ohms. `Infinity` if it never carries any. */
  loopOhms(): Float64Array {
    if (this.loops) return this.loops;
    const { branches, supplyVolts } = this.compiled;
    const most = new Float64Array(branches.length);
    for (const controls of this.combinations) {
      for (const afterSeconds of [undefined, 0.1]) {
        const world = this.situation({ controls, ...(afterSeconds ? { afterSeconds } : {}) }).solve({
          mode: 'live',
        });
        branches.forEach(({ index }) => {
          most[index] = Math.max(most[index]!, Math.abs(branchAmps(world, index)));
        });
        this.nodePeaks.forEach((peak, node) => {
          const volts = Math.abs(world.changed.pairVolts(node, this.compiled.frame));
          if (volts > peak) this.nodePeaks[node] = volts;
        });
        if (!this.compiled.circuit.parts.some((part) => part.kind === 'timer')) break;
      }
    }
    this.loops = most.map((amps) => (amps > 1e-9 ? supplyVolts / amps : Infinity));
    return this.loops;
  }
}

/** A rating that carries whatever a drawing may draw. */
const CARRIES_ALL_AMPS = 1000;
/** Of what the sound circuit draws through it: the least that a fuse is made for. */
const FUSE_MARGIN = 1.3;

/**
 * The circuit with every fuse whose rating nobody said large enough for what the sound circuit draws through it: which one is in there is not
 * known, but that it bears its loads is. The usual rating alone would open on the drawing of a larger machine.
 */
function withBearingFuses(circuit: Circuit): Circuit {
  const isUnsaid = (part: Part): part is Extract<Part, { kind: 'fuse' | 'breaker' }> =>
    (part.kind === 'fuse' || part.kind === 'breaker') && isAssumed(part, 'amps');
  if (!circuit.parts.some(isUnsaid)) return circuit;
  const parts = circuit.parts.map((part) =>
    isUnsaid(part) ? { ...part, amps: CARRIES_ALL_AMPS, assumed: undefined } : part,
  );
  const model = new CircuitModel({ ...circuit, parts });
  const { partIndex, parts: compiled } = model.compiled;
  const most = new Map<string, number>();
  for (const controls of model.combinations) {
    const world = model.situation({ controls }).solve({ mode: 'live' });
    for (const { ref } of circuit.parts.filter(isUnsaid)) {
      const [body] = compiled[partIndex.get(ref)!]!.branches;
      most.set(ref, Math.max(most.get(ref) ?? 0, Math.abs(branchAmps(world, body!.index))));
    }
  }
  return {
    ...circuit,
    parts: circuit.parts.map((part) =>
      isUnsaid(part) ? { ...part, amps: Math.max(part.amps, FUSE_MARGIN * most.get(part.ref)!) } : part,
    ),
  };
}

/** Works something out of a circuit the first time it is asked for. */
export function oncePerModel<T>(work: (model: CircuitModel) => T): (model: CircuitModel) => T {
  const known = new WeakMap<CircuitModel, { found: T }>();
  return (model) => {
    const before = known.get(model);
    if (before) return before.found;
    const found = work(model);
    known.set(model, { found });
    return found;
  };
}

/** Parts with an end on each node, by its index. */
export const partsOnNodes = oncePerModel(({ compiled }): readonly (readonly CompiledPart[])[] => {
  const found = compiled.nodeNames.map((): CompiledPart[] => []);
  for (const part of compiled.parts) for (const node of new Set(part.nodes)) found[node]!.push(part);
  return found;
});

/** Keys of set-ups, which nobody changes once they are written: the same ones are asked of thousands of times. */
const setupKeys = new WeakMap<Setup, string>();

/** Equal for set-ups that mean the same, whatever order their lists were written in. */
export function setupKey(setup: Setup): string {
  let key = setupKeys.get(setup);
  if (key === undefined) {
    key = keyOf(setup);
    setupKeys.set(setup, key);
  }
  return key;
}

function keyOf(setup: Setup): string {
  const sorted = (list: readonly string[] | undefined) =>
    list && list.length > 0 ? [...list].sort() : undefined;
  const controls = Object.entries(setup.controls ?? {}).sort(([a], [b]) => (a < b ? -1 : 1));
  return JSON.stringify([
    controls,
    sorted(setup.isolated),
    sorted(setup.pulled),
    sorted(setup.unplugged),
    sorted(setup.removed),
    sorted(setup.lifted?.map(({ part, node }) => `${part}@${node}`)),
    sorted(setup.jumpers?.map((pair) => [...pair].sort().join('~'))),
    sorted(setup.energised),
    setup.afterSeconds,
    sorted(setup.override),
    sorted(setup.plugged),
    sorted(setup.open),
    sorted(setup.secured),
    sorted(setup.swapped?.map((pair) => [...pair].sort().join('~'))),
  ]);
}

function controlCombinations(controls: Circuit['controls']): Record<string, string>[] {
  const entries = Object.entries(controls);
  const total = entries.reduce((product, [, list]) => product * list.length, 1);
  const rest = Object.fromEntries(entries.map(([control, list]) => [control, list[0]!]));
  if (total <= MOST_COMBINATIONS) {
    return entries.reduce<Record<string, string>[]>(
      (found, [control, list]) =>
        found.flatMap((one) => list.map((position) => ({ ...one, [control]: position }))),
      [{}],
    );
  }
  // Many controls: interlocks usually all stand at their last position for work, so vary one from each extreme.
  const work = Object.fromEntries(entries.map(([control, list]) => [control, list.at(-1)!]));
  const found = [rest, work];
  for (const [control, list] of entries) {
    for (const position of list) {
      found.push({ ...rest, [control]: position }, { ...work, [control]: position });
    }
  }
  const unique = new Map(found.map((one) => [JSON.stringify(one), one]));
  return [...unique.values()].slice(0, 3 * MOST_COMBINATIONS);
}
