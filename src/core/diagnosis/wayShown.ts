import type { Edit } from '../circuit/edits';
import type { CircuitModel } from '../circuit/model';
import type { Domain } from '../circuit/compile';
import type { Setup } from '../circuit/schema';
import { branchAmps, type World } from '../circuit/world';
import { kindOf } from '../kinds/part/index';
import type { CandidateFault, FaultName } from './faultTypes';
import { logLikelihood, type Observation } from './observations';
import type { FaultPlace } from './onPart';
import { predict } from './predict';
import { motionOf } from './predictFluid';
import { leadDuring, leadEdits, type WeighedFault } from './weighed';

/** Faults that stop whatever has to pass a part. */
const CUTS: readonly FaultName[] = ['open', 'noOutput', 'stuckOpen', 'blocked', 'stuckAtRest', 'stuckClosed'];
/** Of what a part gets on the sound circuit, below which it is cut off. */
const CUT_OFF = 0.1;
/** How much worse the readings must fit were something on the way broken too, log: ten times less likely. */
const SHOWN = 2.3;

/** One part on the way to, or from, a suspect that may be broken as well for all that was read. */
export interface NotShown {
  fault: CandidateFault;
  /** Both faults together. */
  edits: readonly Edit[];
}

/**
 * What feeds a suspect and takes its return, and that no reading has shown good: broken beside the suspect it would have
 * changed nothing that was read. A load needs both its ways; for a wire, a contact or a fuse the way that brings the volts
 * to it is enough. A leak needs none: what leaks has been fed.
 */
export function wayNotShown(
  model: CircuitModel,
  faults: readonly CandidateFault[],
  lead: WeighedFault,
  place: FaultPlace,
  observations: readonly Observation[],
): NotShown[] {
  if (place.leaks || place.otherEnds.length > 0 || place.crossed.length > 0) return [];
  const own = leadEdits(lead);
  const reach = reachOf(model, place, observations);
  if (!reach) return [];
  const { supplyVolts } = model.compiled;
  const during = leadDuring(lead);
  const fitOf = (besides: readonly Edit[]) =>
    observations.reduce(
      (sum, one, k) => sum + logLikelihood(one, predict(one.bound, [...during(k), ...besides]), supplyVolts),
      0,
    );
  const alone = fitOf([]);
  const found = new Map<number, NotShown>();
  for (const fault of faults) {
    if (fault.part === place.part || found.has(fault.part) || !CUTS.includes(fault.fault)) continue;
    if (lead.partner?.fault.part === fault.part) continue;
    for (const variant of fault.variants) {
      const cut = variant.edits(fault.severity?.most ?? 1);
      if (!reach.isCutBy(cut)) continue;
      if (fitOf(cut) - alone > -SHOWN) found.set(fault.part, { fault, edits: [...own, ...cut] });
      break;
    }
  }
  return [...found.values()];
}

interface Reach {
  /** Whether a fault elsewhere keeps from the suspect what it needs. */
  isCutBy: (edits: readonly Edit[]) => boolean;
}

/** What comes to a part in a position in which it should work: those of the readings first. Null where it never gets anything. */
function reachOf(model: CircuitModel, place: FaultPlace, observations: readonly Observation[]): Reach | null {
  const own = model.compiled.parts[place.part]!;
  const { traits } = kindOf(own.part);
  const isLoad = traits.load || traits.falls || traits.actuator;
  const before: readonly Edit[] = isLoad
    ? []
    : place.branches.map((branch) => ({ type: 'ohms', branch, ohms: Infinity }));
  // A pressure switch wants its volts and its pressure.
  const measures = isLoad
    ? [(world: World) => carried(world, place)]
    : (['electrical', 'fluid'] as const).map((domain) => nearest(model, place, domain));
  for (const setup of workingSetups(model, observations)) {
    const solver = model.situation(setup);
    if (carried(solver.solve({ mode: 'live' }), place) === 0) continue;
    const sound = measures.map((measure) => measure(solver.solve({ mode: 'live' }, before)));
    if (sound.every((size) => size === 0)) continue;
    return {
      isCutBy: (edits) => {
        const world = solver.solve({ mode: 'live' }, [...before, ...edits]);
        return measures.some((measure, at) => sound[at]! > 0 && measure(world) < CUT_OFF * sound[at]!);
      },
    };
  }
  return null;
}

/** Positions of the controls that readings were taken in, with nothing apart, then all others. */
function workingSetups(model: CircuitModel, observations: readonly Observation[]): Setup[] {
  const taken = observations.map(({ bound: { test } }): Setup => {
    const { controls, afterSeconds } = test.setup;
    return { ...(controls ? { controls } : {}), ...(afterSeconds === undefined ? {} : { afterSeconds }) };
  });
  const timed = model.compiled.circuit.parts.some(({ kind }) => kind === 'timer');
  return [
    ...taken,
    ...model.combinations.flatMap((controls): Setup[] => [
      { controls },
      ...(timed ? [{ controls, afterSeconds: 0.1 }] : []),
    ]),
  ];
}

/** Current or flow of a part, or motion of an actuator; 0 where there is none to speak of. */
function carried(world: World, { part, branches }: FaultPlace): number {
  const own = world.situation.compiled.parts[part]!;
  if (kindOf(own.part).traits.actuator) {
    const { direction, flow } = motionOf(world, part);
    return direction === 0 ? 0 : flow;
  }
  const pieces = branches.length > 0 ? branches : own.branches.map(({ index }) => index);
  const most = pieces.reduce((top, branch) => Math.max(top, Math.abs(branchAmps(world, branch))), 0);
  return most > 1e-4 ? most : 0;
}

/** Highest volts, or pressure, at any of a part's ends of one sort. */
function nearest({ compiled }: CircuitModel, { part }: FaultPlace, domain: Domain): (world: World) => number {
  const nodes = compiled.parts[part]!.nodes.filter((node) => compiled.domains[node] === domain);
  const zero = domain === 'fluid' ? compiled.atmosphere : compiled.frame;
  return (world) =>
    nodes.reduce((top, node) => {
      const size = Math.abs(world.changed.pairVolts(node, zero));
      return Number.isNaN(size) ? top : Math.max(top, size);
    }, 0);
}
