import type { Branch } from '../circuit/compile';
import { isNotKnown } from '../circuit/windings';
import type { CircuitModel } from '../circuit/model';
import type { Common, Spread } from '../circuit/spread';
import {
  branchAmps,
  conductance,
  hasDelta,
  LIMIT_SPREAD,
  limitedBranches,
  notKnownSources,
  scatterSources,
  toleranceOf,
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

/** What moves a pair's volts, as they are shown, together with every other reading: the branch that nobody has said and that weighs most. */
export function voltsCommon(world: World, i: number, j: number): Common | undefined {
  let most: Common | undefined;
  for (const { branch, a, b, amps, bend } of notKnownSources(world)) {
    const slope = -amps * world.changed.drawnDown(i, j, a, b);
    if (slope !== 0 && Math.abs(slope) > Math.abs(most?.slope ?? 0)) most = { branch, slope, bend };
  }
  return most;
}

/** The same for the current through a branch, by its size where it alternates. */
export function ampsCommon(world: World, through: number): Common | undefined {
  const own = notKnownSources(world).find(({ branch }) => branch === through);
  if (own) return { branch: through, slope: own.amps * (1 - own.bend), bend: own.bend };
  const siemens = conductance(world, through);
  if (siemens === 0) return undefined;
  const { a, b } = world.edges[through]!;
  const moved = voltsCommon(world, a, b);
  return moved && { ...moved, slope: siemens * moved.slope };
}

/** The same for the current through a branch, amperes. */
export function ampsScatter(model: CircuitModel, world: World, through: number): number {
  const own = conductance(world, through);
  if (own === 0) return 0;
  const { a, b } = world.edges[through]!;
  const { liveTolerance: tolerance } = model.compiled.branches[through]!;
  const amps = branchAmps(world, through);
  const spread = limitedBranches(world).includes(through) ? LIMIT_SPREAD : tolerance;
  const direct = Math.abs(amps) * toleranceOf(world, through, spread) * TOLERANCE_SIGMA;
  const fromVolts = own * voltsScatter(world, a, b);
  const unsaid = notKnownSources(world).find(({ branch }) => branch === through);
  if (unsaid) {
    // What nobody has said is known apart from all the rest: as much as it takes more, less what that leaves of its volts.
    const left = direct * (1 - unsaid.bend);
    return Math.sqrt(left * left + Math.max(fromVolts ** 2 - (direct * unsaid.bend) ** 2, 0));
  }
  // In a series loop the two are the same cause seen twice; the larger one is the honest figure.
  return Math.max(direct, fromVolts);
}

/** The same for the resistance between two nodes, ohms. */
export function ohmsScatter(model: CircuitModel, world: World, i: number, j: number): Spread {
  const below = world.changed.below(i, j);
  const pairs = (below.spreads ??= new Map<number, Spread>());
  const pair = i * world.situation.nodeCount + j;
  let spread = pairs.get(pair);
  if (spread === undefined) {
    spread = pairScatter(model, world, i, j);
    pairs.set(pair, spread);
  }
  return spread;
}

/** How far what rests may be off from its own ohms at rest; null where it has what it has at work. */
function restTolerance({ rest }: Branch, { resting }: World): number | null {
  return rest && (rest.said || resting) ? rest.tolerance : null;
}

function pairScatter(model: CircuitModel, world: World, i: number, j: number): Spread {
  let common: Common | undefined;
  let variance = CONTACT_SCATTER_OHMS ** 2;
  for (const branch of model.compiled.scattering) {
    const tolerance = restTolerance(branch, world) ?? branch.tolerance;
    if (tolerance === 0 || branch.domain === 'fluid' || hasDelta(world, branch.index)) continue;
    const siemens = conductance(world, branch.index);
    if (siemens === 0) continue;
    const { a, b } = world.edges[branch.index]!;
    const reach = world.changed.transfer(i, j, a, b);
    const slope = siemens * reach * reach;
    variance += (slope * tolerance * TOLERANCE_SIGMA) ** 2;
    // As at work: what takes more reads less.
    if (isNotKnown(tolerance) && slope > Math.abs(common?.slope ?? 0))
      common = {
        branch: branch.index,
        slope: -slope,
        bend: Math.min(siemens * world.changed.pairOhms(a, b), 1),
      };
  }
  return { sigma: Math.sqrt(variance), ...(common && { common }) };
}
