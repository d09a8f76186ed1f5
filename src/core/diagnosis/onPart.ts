import type { Edit, Terminal } from '../circuit/edits';
import type { CompiledCircuit, CompiledPart } from '../circuit/compile';
import type { CircuitModel } from '../circuit/model';
import type { TestOf } from '../kinds/reading/module';
import type { Test } from '../circuit/schema';
import type { Situation } from '../circuit/situation';
import { nodesOfTest, partOfTest } from '../circuit/testPlace';
import { conductance } from '../circuit/world';
import { kindOf } from '../kinds/part/index';
import type { BoundTest } from './predict';
import type { CandidateFault } from './faultTypes';
import { leadEdits, type WeighedFault } from './weighed';

/** Where a fault sits in its part: the pieces it changes, and what it joins that should be apart. */
export interface FaultPlace {
  part: number;
  /** Where the part that is touched may be read; empty for faults that touch none. */
  otherEnds: readonly number[];
  /** Pieces of the part that the fault changes: that contact, that winding. */
  branches: readonly number[];
  /** It gives current a way to the frame, or flow one to the atmosphere. */
  leaks: boolean;
  /** It does not move though it is fed. */
  jammed: boolean;
  /** Ends of the pins of two plugs that stand in each other's place; empty for all other faults. */
  crossed: readonly number[];
}

/** Place of a fault by its likeliest story, its partner left aside. */
export function placeOfFault(model: CircuitModel, weighed: WeighedFault): FaultPlace {
  return placeOf(model, weighed.fault, leadEdits(weighed));
}

/** Whether a test is on the part that a candidate fault sits in, wherever in it that is likeliest. */
export function isOnPartOf(model: CircuitModel, bound: BoundTest, fault: CandidateFault): boolean {
  return fault.variants.some(({ edits }) =>
    isOnPart(model, bound, placeOf(model, fault, edits(fault.severity?.most ?? 1))),
  );
}

function placeOf({ compiled }: CircuitModel, fault: CandidateFault, edits: readonly Edit[]): FaultPlace {
  const terminals = edits.flatMap((edit) => terminalsOf(edit));
  const own = terminals.filter(({ branch }) => compiled.branches[branch]!.part === fault.part);
  const other =
    fault.other === undefined ? undefined : compiled.parts[compiled.partIndex.get(fault.other) ?? -1];
  const crossed = edits.flatMap((edit) =>
    edit.type === 'cross'
      ? edit.pairs
          .flat()
          .flatMap(({ branch }) => [compiled.branches[branch]!.a, compiled.branches[branch]!.b])
      : [],
  );
  return {
    part: fault.part,
    otherEnds: crossed.length > 0 ? [] : endsOf(other),
    branches: [
      ...new Set([...own.map(({ branch }) => branch), ...edits.flatMap((edit) => branchOf(compiled, edit))]),
    ].filter((branch) => compiled.branches[branch]!.part === fault.part),
    leaks: edits.some(
      (edit) => edit.type === 'leak' && compiled.branches[edit.at.branch]!.part === fault.part,
    ),
    jammed: edits.some((edit) => edit.type === 'jam' && edit.part === fault.part),
    crossed,
  };
}

/** Where a part that is touched may be read: at its ends, of a supply at the one that is live. */
function endsOf(other: CompiledPart | undefined): readonly number[] {
  return other?.part.kind === 'source' ? [other.branches[0]!.a] : (other?.nodes ?? []);
}

function terminalsOf(edit: Edit): Terminal[] {
  if (edit.type === 'leak') return [edit.at];
  return edit.type === 'bridge' ? [edit.from, edit.to] : [];
}

/** What is jammed does not move though it is fed: that is read at its winding. */
function branchOf({ parts }: CompiledCircuit, edit: Edit): number[] {
  if (edit.type === 'jam') return parts[edit.part]!.branches.slice(0, 1).map(({ index }) => index);
  return 'branch' in edit ? [edit.branch] : [];
}

/**
 * Whether a test is on a part itself, where the fault in question sits: both leads at its own two terminals (that
 * contact's, that winding's), the part unplugged, or the part in its twin's place. Beside a part is not on it: the far end of a
 * relay's contact and the frame are no terminals of that contact, though its coil ends at the frame too.
 */
export function isOnPart(model: CircuitModel, bound: BoundTest, place: FaultPlace): boolean {
  const { test } = bound;
  const { ref } = model.compiled.parts[place.part]!.part;
  if (test.setup.swapped?.flat().includes(ref)) return true;
  switch (test.kind) {
    case 'volts':
    case 'ohms':
    case 'diode':
    case 'insulation':
    case 'hertz':
      return acrossPart(model, bound, place);
    case 'code':
    case 'fuse':
      // What changes when the part is off its plug says that the part was it; the same with all in place does not.
      return test.part !== ref && isOut(bound.solver.situation, model.compiled.parts[place.part]!);
    case 'changes':
    case 'trace':
      // Of its own plunger: whether it moves, and how.
      return test.part === ref;
    case 'bit':
      // What its program asks for, and what its card reads back, is the output's own.
      return test.part === ref;
    case 'pressure':
    case 'flow':
      return gaugeAtPart(model, test, place);
    case 'hold':
      return pumpedAlone(model, test, place);
    case 'moves':
    case 'gauge':
    case 'function':
      return movedByHand(model, test, place);
    case 'click':
      // Of what should move it is what is read of the part itself; of all else it is the doing of the whole run.
      return place.jammed && test.part === ref;
    case 'amps':
      // How much flows is the doing of all that lies in the run.
      return false;
  }
}

function acrossPart(model: CircuitModel, { test, solver }: BoundTest, place: FaultPlace): boolean {
  const { compiled } = model;
  const { situation } = solver;
  const [i, j] = nodesOfTest(test).map((name) => compiled.nodeIndex.get(name)!) as [number, number];
  const own = compiled.parts[place.part]!;
  if (place.otherEnds.length > 0) {
    const between = (a: number, b: number) => own.nodes.includes(a) && place.otherEnds.includes(b);
    return between(i, j) || between(j, i);
  }
  const joins = (branch: number) => {
    const [a, b] = [situation.a[branch]!, situation.b[branch]!];
    return (a === i && b === j) || (a === j && b === i);
  };
  if (place.leaks) {
    const dead = test.kind === 'ohms' || test.kind === 'insulation';
    if (!dead) return false;
    const far = i === compiled.frame ? j : j === compiled.frame ? i : -1;
    return far >= 0 && own.nodes.includes(far) && isAlone(model, solver, own, far);
  }
  if (place.crossed.includes(i) || place.crossed.includes(j)) return true;
  if (kindOf(own.part).traits.unit) return i !== j && own.nodes.includes(i) && own.nodes.includes(j);
  return place.branches.some((branch) => joins(branch));
}

/** Nothing else hangs on a part's end but what lies across the part itself: what leaks there is the part. */
function isAlone(
  { compiled }: CircuitModel,
  solver: BoundTest['solver'],
  own: CompiledPart,
  from: number,
): boolean {
  const world = solver.solve({ mode: 'ohms' });
  const { situation } = solver;
  const reached = new Set([from]);
  const met = new Set<number>();
  for (let before = -1; before !== reached.size;) {
    before = reached.size;
    for (const { index, part } of compiled.branches) {
      const [a, b] = [situation.a[index]!, situation.b[index]!];
      if (!reached.has(a) && !reached.has(b)) continue;
      if (!situation.present[index] || conductance(world, index) === 0) continue;
      met.add(part);
      if (a !== compiled.frame) reached.add(a);
      if (b !== compiled.frame) reached.add(b);
    }
  }
  return [...met].every(
    (part) => part === own.index || compiled.parts[part]!.nodes.every((node) => own.nodes.includes(node)),
  );
}

/** Out of the circuit in a set-up: taken out, or an end of it hangs on nothing that is in place. */
function isOut({ compiled, setup, present, a, b }: Situation, own: CompiledPart): boolean {
  if (setup.removed?.includes(own.part.ref)) return true;
  if (own.part.kind === 'pin' || own.branches.length === 0) return false;
  const ends = own.branches.flatMap(({ index }) => [a[index]!, b[index]!]);
  const bare = ends.filter(
    (end) =>
      end !== compiled.frame &&
      compiled.branches.every(
        ({ index, part }) =>
          part === own.index ||
          present[index] === 0 ||
          (a[index] !== end && b[index] !== end) ||
          compiled.parts[part]!.nodes.every((node) => own.nodes.includes(node)),
      ),
  );
  const apart = Boolean(setup.unplugged?.length || setup.lifted?.some(({ part }) => part === own.part.ref));
  return apart && bare.length > 0;
}

/** The part is all that is left of what hangs on the place: with a hand pump there nothing else can lose its vacuum. */
function pumpedAlone({ compiled }: CircuitModel, test: TestOf<'hold'>, place: FaultPlace): boolean {
  const own = compiled.parts[place.part]!;
  const node = compiled.nodeIndex.get(test.at)!;
  if (!kindOf(own.part).traits.ends || !own.nodes.includes(node)) return false;
  const { lifted = [] } = test.setup;
  return compiled.parts.every(
    ({ part, nodes, index }) =>
      index === own.index ||
      !nodes.includes(node) ||
      lifted.some((end) => end.part === part.ref && end.node === test.at),
  );
}

/** A gauge, or a finger, at a port of a part of the air, oil or vacuum side. */
function gaugeAtPart({ compiled }: CircuitModel, test: Test, place: FaultPlace): boolean {
  const own = compiled.parts[place.part]!;
  const [at] = nodesOfTest(test).map((name) => compiled.nodeIndex.get(name)!);
  if (!own.nodes.includes(at!) || !kindOf(own.part).traits.fluid) return false;
  // Of a pressure switch a gauge shows what it is given, not what its contact does with it.
  if (place.branches.some((branch) => compiled.branches[branch]!.domain !== 'fluid')) return false;
  // What a hose or a filter loses shows behind it, not before it.
  const [body] = own.branches;
  const ends = body && own.branches.length === 1 ? [body.a, body.b] : [];
  if (ends.length < 2 || ends.includes(compiled.atmosphere)) return true;
  const far = fluidSteps(compiled);
  return far[at!] === Math.max(...ends.map((node) => far[node]!));
}

const steps = new WeakMap<CompiledCircuit, Float64Array>();

/** Parts between each fluid node and the nearest supply; `Infinity` where none leads there. */
function fluidSteps(compiled: CompiledCircuit): Float64Array {
  const known = steps.get(compiled);
  if (known) return known;
  const far = new Float64Array(compiled.nodeNames.length).fill(Infinity);
  for (const { part, nodes } of compiled.parts) {
    const { fluid, supply } = kindOf(part).traits;
    if (fluid && supply) for (const node of nodes) far[node] = 0;
  }
  far[compiled.atmosphere] = Infinity;
  for (let changed = true; changed;) {
    changed = false;
    for (const { a, b, domain } of compiled.branches) {
      if (domain !== 'fluid' || a === compiled.atmosphere || b === compiled.atmosphere) continue;
      const near = Math.min(far[a]!, far[b]!) + 1;
      for (const node of [a, b]) {
        if (far[node]! <= near) continue;
        far[node] = near;
        changed = true;
      }
    }
  }
  steps.set(compiled, far);
  return far;
}

/** What moves when a valve is pushed by hand, an actuator's own port is open, or a silencer is out. */
function movedByHand({ compiled }: CircuitModel, test: Test, place: FaultPlace): boolean {
  const { override = [], open = [] } = test.setup;
  const { part } = compiled.parts[place.part]!;
  if (override.some((one) => one.replace(/:12$/, '') === part.ref)) return true;
  if (part.kind === 'silencer') return open.includes(part.nodes.in);
  if (partOfTest(test) !== part.ref) return false;
  return Object.values<string | undefined>(part.nodes).some(
    (node) => node !== undefined && open.includes(node),
  );
}
