import type { Branch } from '../circuit/compile';
import type { CircuitModel } from '../circuit/model';
import type { Solved } from '../circuit/network';
import {
  branchAmps,
  conductance,
  hasDelta,
  LIMIT_SPREAD,
  limitedBranches,
  scatterSources,
  type World,
} from '../circuit/world';

/** Share of a part's tolerance that is one standard deviation. */
export const TOLERANCE_SIGMA = 0.6;
/** Contact and plug resistance that differs from one good part to the next, ohms. */
const CONTACT_SCATTER_OHMS = 0.08;

/** Standard deviation of a pair's volts (kPa) from the spread of good parts. */
export function voltsScatter(world: World, i: number, j: number): number {
  let variance = 0;
  for (const { a, b, amps } of scatterSources(world)) {
    const volts = amps * world.changed.transfer(i, j, a, b);
    variance += volts * volts;
  }
  return TOLERANCE_SIGMA * Math.sqrt(variance);
}

/** The same for the current through a branch, amperes. */
export function ampsScatter(model: CircuitModel, world: World, through: number): number {
  const own = conductance(world, through);
  if (own === 0) return 0;
  const { a, b } = world.edges[through]!;
  const { liveTolerance: tolerance } = model.compiled.branches[through]!;
  const amps = branchAmps(world, through);
  const spread = limitedBranches(world).includes(through) ? LIMIT_SPREAD : tolerance;
  const direct = hasDelta(world, through) ? 0 : Math.abs(amps) * spread * TOLERANCE_SIGMA;
  const fromVolts = own * voltsScatter(world, a, b);
  // In a series loop the two are the same cause seen twice; the larger one is the honest figure.
  return Math.max(direct, fromVolts);
}

/** What the spread is of pairs of one network: whatever changes beside them leaves it as it is. */
const known = new WeakMap<Solved, Map<number, number>>();

/** The same for the resistance between two nodes, ohms. */
export function ohmsScatter(model: CircuitModel, world: World, i: number, j: number): number {
  const below = world.changed.below(i, j);
  const pairs = known.get(below) ?? new Map<number, number>();
  known.set(below, pairs);
  const pair = i * world.situation.nodeCount + j;
  let sigma = pairs.get(pair);
  if (sigma === undefined) {
    sigma = pairScatter(model, world, i, j);
    pairs.set(pair, sigma);
  }
  return sigma;
}

/** How far what rests may be off from its own ohms at rest; null where it has what it has at work. */
function restTolerance({ rest }: Branch, { resting }: World): number | null {
  return rest && (rest.said || resting) ? rest.tolerance : null;
}

function pairScatter(model: CircuitModel, world: World, i: number, j: number): number {
  let variance = CONTACT_SCATTER_OHMS ** 2;
  for (const branch of model.compiled.scattering) {
    const tolerance = restTolerance(branch, world) ?? branch.tolerance;
    if (tolerance === 0 || branch.domain === 'fluid' || hasDelta(world, branch.index)) continue;
    const siemens = conductance(world, branch.index);
    if (siemens === 0) continue;
    const { a, b } = world.edges[branch.index]!;
    const reach = world.changed.transfer(i, j, a, b);
    variance += (siemens * reach * reach * tolerance * TOLERANCE_SIGMA) ** 2;
  }
  return Math.sqrt(variance);
}
