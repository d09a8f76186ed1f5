import type { CompiledPart } from '../circuit/compile';
import type { CircuitModel } from '../circuit/model';
import type { Setup } from '../circuit/schema';
import { branchAmps, conductance, nodeKPa, type World } from '../circuit/world';
import { kindOf } from '../kinds/part';
import { motionOf } from '../diagnosis/predictFluid';
import { LEAST_AMPS, waysOf, type Lane, type Step } from './lane';
import { shortestWay } from './shortestWay';

interface Solved {
  setup: Setup;
  world: World;
}

/** A position drives an actuator where its pressures lie this share as far apart as they ever do. */
const DRIVES_SHARE = 0.5;

/**
 * Lanes of the air, oil or vacuum side: from the supply through what is open to the actuator's pressed port, and from its
 * other port home to the atmosphere. The actuator is the fall, as a coil is. The same to a pressure switch that sits on no such lane,
 * and through a valve that drives nothing: it lets something pass from one line into another, and is what the lane is called by.
 */
export function findFluidLanes(model: CircuitModel, worlds: readonly Solved[]): Lane[] {
  const { compiled } = model;
  if (compiled.atmosphere < 0) return [];
  const supplies = new Set(
    compiled.parts.flatMap(({ part, nodes }) =>
      part.kind === 'airSupply' || part.kind === 'pump' ? [nodes[0]!] : [],
    ),
  );
  const home = new Set([compiled.atmosphere]);
  const laneOf = ({ part, index, branches }: CompiledPart): Lane[] => {
    // Of an actuator the seal between its ports; of a pressure switch its diaphragm, against the air around.
    const seal = branches.find(({ role }) => role === 'seal');
    if (!seal) return [];
    const pressed = worlds.map(({ setup, world }) => ({
      setup,
      world,
      // A vacuum drives by how far it lies under the air around, as a pressure by how far over it.
      apart: Math.abs(nodeKPa(world, seal.a)) - Math.abs(nodeKPa(world, seal.b)),
      moves: motionOf(world, index).direction !== 0,
    }));
    const most = Math.max(...pressed.map(({ apart }) => Math.abs(apart)));
    const drivenFrom = (high: number, low: number, sign: 1 | -1) => {
      // The position in which its pressures lie furthest apart is the one that drives it.
      const driving = pressed
        .filter(({ apart }) => sign * apart >= DRIVES_SHARE * most)
        .sort((one, other) => Number(other.moves) - Number(one.moves) || sign * (other.apart - one.apart));
      const [best] = driving;
      const feed = best && way(model, best.world, high, supplies, home);
      if (!feed) return [];
      const { setup, world, apart, moves } = best;
      const back = way(model, world, low, home, supplies) ?? [];
      const steps = [...feed, ...back];
      const coils = coilsOf(model, world, steps);
      const lane: Lane = {
        id: part.ref,
        of: index,
        medium: 'fluid',
        load: { part: index, branch: seal.index, from: high, to: low },
        feed: feed.reverse().map((step) => ({ ...step, from: step.to, to: step.from })),
        back,
        setup,
        drivenIn: driving.map((one) => one.setup),
        across: [],
        hangs: hangingOn(model, index, [high, low, ...steps.flatMap(({ from, to }) => [from, to])], steps),
        coils: coils.map(({ ref }) => ref),
      };
      return [{ lane, fed: (coils[0]?.amps ?? 0) > LEAST_AMPS, moves, apart: Math.abs(apart) }];
    };
    // What is driven both ways is shown the way its valve is fed for; where both are or neither, the way it moves, pressed hardest.
    // Where nothing ever presses it, it has one way, by its drawing.
    const back = most > 0 ? drivenFrom(seal.b, seal.a, -1) : [];
    const [first, other] = [...drivenFrom(seal.a, seal.b, 1), ...back].sort(
      (one, two) =>
        Number(two.fed) - Number(one.fed) || Number(two.moves) - Number(one.moves) || two.apart - one.apart,
    );
    if (!first) return [];
    return [other ? { ...first.lane, otherWay: other.lane } : first.lane];
  };
  const driving = compiled.parts
    .filter(({ part }) => part.kind === 'cylinder' || part.kind === 'vacuumActuator')
    .flatMap(laneOf);
  const drawn = new Set(
    driving.flatMap(waysOf).flatMap(({ feed, back }) => [...feed, ...back].map(({ part }) => part)),
  );
  // The line to a pressure switch is a path of its own, unless it sits on one that drives something.
  const sensing = compiled.parts
    .filter(({ part }) => part.kind === 'pressureSwitch')
    .flatMap(laneOf)
    .filter(({ feed }) => feed.some(({ part }) => !drawn.has(part)));
  const passing = compiled.parts
    .filter(({ part, index }) => part.kind === 'valve' && !drawn.has(index))
    .flatMap((valve) => passingLane(model, worlds, valve, supplies));
  return [...driving, ...sensing, ...passing];
}

/** The run through a valve in the position in which most passes it; what most of the pressure is lost over is its fall. */
function passingLane(
  model: CircuitModel,
  worlds: readonly Solved[],
  { part, index, branches }: CompiledPart,
  supplies: ReadonlySet<number>,
): Lane[] {
  const { compiled } = model;
  const flows = worlds.flatMap(({ setup, world }) =>
    branches
      .filter(({ domain }) => domain === 'fluid')
      .map((branch) => ({ setup, world, branch, flow: Math.abs(branchAmps(world, branch.index)) })),
  );
  const best = flows.sort((one, other) => other.flow - one.flow)[0];
  if (!best || best.flow === 0) return [];
  const { setup, world, branch } = best;
  const upright = nodeKPa(world, branch.a) >= nodeKPa(world, branch.b);
  const [from, to] = upright ? [branch.a, branch.b] : [branch.b, branch.a];
  const feed = way(model, world, from, supplies, new Set([to, compiled.atmosphere]));
  const begun = feed?.at(-1)?.to ?? from;
  const ends = new Set([...supplies, compiled.atmosphere].filter((node) => node !== begun));
  const back = way(model, world, to, ends, new Set([from]));
  if (!feed || !back) return [];
  const steps = [
    ...feed.reverse().map((step) => ({ ...step, from: step.to, to: step.from })),
    { part: index, branch: branch.index, from, to },
    ...back,
  ];
  const lost = (step: Step) => nodeKPa(world, step.from) - nodeKPa(world, step.to);
  const fall = steps.reduce((most, step) => (lost(step) > lost(most) ? step : most));
  const at = steps.indexOf(fall);
  return [
    {
      id: part.ref,
      of: index,
      medium: 'fluid',
      load: fall,
      feed: steps.slice(0, at),
      back: steps.slice(at + 1),
      setup,
      across: [],
      hangs: hangingOn(
        model,
        index,
        steps.flatMap((step) => [step.from, step.to]),
        steps,
      ),
      coils: coilsOf(model, world, steps).map(({ ref }) => ref),
    },
  ];
}

/** What hangs on a lane's points with its one port. Its supply is where it begins, and what it goes through is on it. */
function hangingOn(
  { compiled }: CircuitModel,
  load: number,
  points: readonly number[],
  steps: readonly Step[],
): Lane['hangs'] {
  const on = new Set([load, ...steps.map(({ part }) => part)]);
  return compiled.parts.flatMap(({ part, index, nodes }) => {
    if (!kindOf(part).traits.ends || part.kind === 'airSupply' || part.kind === 'pump' || on.has(index))
      return [];
    const own = nodes.filter((node) => compiled.domains[node] === 'fluid' && node !== compiled.atmosphere);
    return own.length === 1 && points.includes(own[0]!) ? [{ part: index, node: own[0]! }] : [];
  });
}

/** Coils of the lane's valves with what they carry in its position, the most first. */
function coilsOf(model: CircuitModel, world: World, steps: readonly Step[]): { ref: string; amps: number }[] {
  const { parts, partIndex } = model.compiled;
  const coils = new Set(
    steps.flatMap(({ part }) => {
      const own = parts[part]!.part;
      if (own.kind === 'proportionalValve') return [own.ref];
      return own.kind === 'valve' ? [own.coil, ...(own.coil2 ? [own.coil2] : [])] : [];
    }),
  );
  return [...coils]
    .map((ref) => ({
      ref,
      amps: Math.abs(branchAmps(world, parts[partIndex.get(ref)!]!.branches[0]!.index)),
    }))
    .sort((a, b) => b.amps - a.amps);
}

/** Fewest parts from a node to a goal through what is open in this world. */
function way(
  { compiled }: CircuitModel,
  world: World,
  start: number,
  goals: ReadonlySet<number>,
  avoid: ReadonlySet<number>,
): Step[] | null {
  return shortestWay(compiled, start, goals, avoid, ({ index, part, role, domain }) => {
    if (domain !== 'fluid' || role === 'seal') return false;
    const { kind } = compiled.parts[part]!.part;
    // A regulator holds its outlet like a supply of its own; its feed is where the way comes from.
    if (kind === 'airSupply' || kind === 'pump' || (kind === 'regulator' && role === 'body')) return false;
    return role === 'wideOpen' || conductance(world, index) > 0;
  });
}
