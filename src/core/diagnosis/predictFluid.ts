import type { CircuitModel } from '../circuit/model';
import type { Setup, Test } from '../circuit/schema';
import { fluidNode, type Situation } from '../circuit/situation';
import type { SituationSolver } from '../circuit/solveSituation';
import { branchAmps, nodeKPa, type World } from '../circuit/world';
import { soft, type Prediction } from './prediction';
import { voltsCommon, voltsScatter } from './scatter';

/** Flows a person can tell apart: bubbles in water, a breath on the hand, a blast. L/min. */
const BUBBLES_FROM = 0.03;
const WEAK_FROM = 6;
const FULL_SHARE = 0.3;
/** Judging by eye, ear and hand is no sharp affair. */
const BY_HAND = 0.15;
/** Share of the healthy speed below which an actuator counts as standing still. */
const STILL_SHARE = 0.06;
/** Below this share of the healthy speed it starts and stops, or takes so long that nobody waits. */
const CREEPS_SHARE = 0.2;
/** Chances that a sound one is seen to hang on its way, that one without drive twitches, and that the way is told wrong. */
const MOVES_BADLY = 0.03;
const A_TWITCH = 0.02;
const WRONG_WAY = 0.003;
const FRICTION_SHARE = 0.12;
/** Chance that an actuator is seen going to where it rests: released after a stroke, and called from its rest. */
const SEEN_GOING_HOME = 0.55;
const SEEN_LEAVING_HOME = 0.1;
/** Friction of the moving piston, as a path between its chambers, kPa per L/min. */
const PISTON = 0.1;

/** Gauge pressure at a node. */
export function pressurePrediction(model: CircuitModel, at: string, field: string) {
  const { compiled } = model;
  const node = fluidNode(compiled, at, field);
  return (world: World): Prediction => {
    const kPa = world.changed.pairVolts(node, compiled.atmosphere);
    // Shut in on all sides: the gauge shows whatever was last in there.
    if (Number.isNaN(kPa)) return { type: 'number', mean: 0, sigma: 5, loose: true };
    const sigma = Math.max(2, voltsScatter(world, node, compiled.atmosphere));
    const common = voltsCommon(world, node, compiled.atmosphere);
    return { type: 'number', mean: kPa, sigma, loose: world.chatters, ...(common && { common }) };
  };
}

/** Flow to the atmosphere at a node: through what is opened there, a silencer or a valve's own vent. L/min, its size. */
export function flowAt(world: World, node: number): number {
  const { situation } = world;
  let flow = 0;
  for (const one of situation.openings) if (one.node === node) flow += nodeKPa(world, node) / one.ohms;
  for (const { index, role } of situation.compiled.branches) {
    if (role !== 'vent') continue;
    const a = situation.a[index] === node;
    const b = situation.b[index] === node;
    if (a || b) flow += (a ? 1 : -1) * branchAmps(world, index);
  }
  return Math.abs(flow);
}

export function flowPrediction(model: CircuitModel, test: Extract<Test, { kind: 'flow' }>, field: string) {
  const { compiled } = model;
  const node = fluidNode(compiled, test.at, `${field}.at`);
  const healthy = model.combinations.map((controls) => {
    const setup: Setup = { ...test.setup, controls };
    return flowAt(model.situation(setup).solve({ mode: 'live' }), node);
  });
  // What "full" is: this place's best on the sound machine, or a free blow where it never gives any.
  const full = Math.max(...healthy, 0.05 * compiled.supplyKPa);
  return (world: World): Prediction => {
    const flow = Math.max(flowAt(world, node), 1e-9);
    const some = soft(Math.log(flow / BUBBLES_FROM), BY_HAND);
    const air = soft(Math.log(flow / WEAK_FROM), BY_HAND);
    const blast = soft(Math.log(flow / (FULL_SHARE * full)), BY_HAND);
    const [bubbles, weak] = [some * (1 - air), some * air * (1 - blast)];
    return {
      type: 'choice',
      odds: { none: 1 - some, bubbles, weak, full: Math.max(0, some - bubbles - weak) },
    };
  };
}

/** Which way an actuator is driven: +1 out, −1 in, with the flow its motion would take, L/min. */
export interface Motion {
  direction: number;
  flow: number;
  /** Driving pressure over what friction and load ask for. */
  drive: number;
}

/** Motion of a cylinder or vacuum actuator in a world. */
export function motionOf(world: World, part: number): Motion {
  const { compiled } = world.situation;
  const { part: item, branches } = compiled.parts[part]!;
  const still: Motion = { direction: 0, flow: 0, drive: 0 };
  if (world.jammed.has(part)) return still;
  const seal = branches[0]!.index;
  const { a, b } = world.edges[seal]!;
  if (item.kind === 'vacuumActuator') {
    const pull = -nodeKPa(world, a) / item.pullKPa;
    return { direction: pull >= 1 ? -1 : 1, flow: 100, drive: pull >= 1 ? pull : 1 / Math.max(pull, 1e-3) };
  }
  if (item.kind !== 'cylinder') return still;
  const single = item.nodes.b === undefined;
  const force = single
    ? nodeKPa(world, a) - (item.springKPa ?? 0)
    : nodeKPa(world, a) - (item.areaRatio ?? 1) * nodeKPa(world, b);
  const way = world.changed.pairOhms(a, single ? compiled.atmosphere : b);
  const friction = item.frictionKPa ?? FRICTION_SHARE * compiled.supplyKPa;
  // A spring returns by itself; only a shut exhaust holds it.
  const against = single && force < 0 ? 0.5 * (item.springKPa ?? 0) : friction;
  const drive = Math.abs(force) / Math.max(against, 1e-6);
  if (drive < 0.05 || way === Infinity) return { ...still, drive };
  return { direction: Math.sign(force), flow: Math.abs(force) / (way + PISTON), drive };
}

/** Chance that an actuator moves at all. */
function moving({ direction, flow, drive }: Motion, healthyFlow: number): number {
  if (direction === 0) return 0.01;
  const reference = Math.max(healthyFlow, 20);
  const share =
    soft(Math.log(Math.max(drive, 1e-6)), 0.1) * soft(Math.log(flow / (STILL_SHARE * reference)), BY_HAND);
  return Math.min(0.99, Math.max(0.01, share));
}

/**
 * Whether an actuator is seen to move. What it is driven to in its rest is where it stands already: nothing to be seen of that
 * speaks for anything, least of all against its air. `rest` is the machine with every control at its first position.
 */
export function movesPrediction(solver: SituationSolver, rest: SituationSolver, part: number) {
  const healthy = motionOf(solver.solve({ mode: 'live' }), part);
  const resting = motionOf(rest.solve({ mode: 'live' }), part).direction;
  const there = solver === rest ? SEEN_GOING_HOME : SEEN_LEAVING_HOME;
  return (world: World): Prediction => {
    const motion = motionOf(world, part);
    const moves = moving(motion, healthy.flow) * (resting !== 0 && motion.direction === resting ? there : 1);
    const full = moves * fully(motion, healthy.flow);
    const [extends_, retracts] = motion.direction > 0 ? [full, WRONG_WAY] : [WRONG_WAY, full];
    const little = moves - full + A_TWITCH * (1 - moves);
    return {
      type: 'choice',
      odds: { extends: extends_, retracts, little, still: Math.max(0, 1 - full - little - WRONG_WAY) },
    };
  };
}

/** Chance that what moves goes all the way: what creeps is seen to start and to stop. */
function fully({ direction, flow }: Motion, healthyFlow: number): number {
  if (direction === 0) return 0;
  const most = 1 - MOVES_BADLY;
  return most * soft(Math.log(flow / (CREEPS_SHARE * Math.max(healthyFlow, 20))), BY_HAND);
}

/** Works: the healthy machine's direction at 70 % of its speed or more; weak down to 20 %; dead below or the other way. */
export function actuatorPrediction(solver: SituationSolver, part: number, works: number, dead: number) {
  const healthy = motionOf(solver.solve({ mode: 'live' }), part);
  return (world: World): Prediction => {
    const motion = motionOf(world, part);
    const same = motion.direction === healthy.direction;
    const moves = moving(motion, healthy.flow);
    const speed = same ? (moves * motion.flow) / Math.max(healthy.flow, 1e-6) : 0;
    const ratio = Math.max(speed, 1e-9);
    const good = soft(Math.log(ratio / works), 0.12);
    const none = 1 - soft(Math.log(ratio / dead), 0.12);
    return { type: 'choice', odds: { works: good, dead: none, weak: Math.max(0, 1 - good - none) } };
  };
}

/** Fluid nodes with a way to the atmosphere at them: silencers and a valve's own vents. */
export function ventNodes({ compiled, a, b, present }: Situation): number[] {
  const found = new Set<number>();
  for (const { index, role } of compiled.branches) {
    if (role !== 'vent' || !present[index]) continue;
    for (const node of [a[index]!, b[index]!]) if (node !== compiled.atmosphere) found.add(node);
  }
  return [...found];
}
