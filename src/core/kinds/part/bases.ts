import type { CompiledPart } from '../../circuit/compile';
import type { Device } from '../../circuit/deviceTypes';
import { broken } from '../../diagnosis/faultTypes';
import { ATMOSPHERE, body, LOAD_TOLERANCE, type BranchSpec, type RestFigures } from './branch';
import { nothing, traits, type FaultContext } from './module';
import { LOW_PRESSURE, SHORT_OHMS } from './ranges';

/** What kinds that behave alike have in common. What tells them apart (letter, words, odds, minutes) stands in each one's file. */

interface TwoEnds {
  nodes: { '1': string; '2': string };
}

/** What every load is. */
export const LOAD = { load: true, draws: true, falls: true } as const;

/** A load's one piece: its resistance and how far that may be off. */
export function loadBranches(part: TwoEnds & { ohms: number; tolerance?: number }): BranchSpec[] {
  return [{ ...body(part, part.ohms), tolerance: part.tolerance ?? LOAD_TOLERANCE }];
}

/** What a meter reads of a load cold or standing, where nobody has said: a share of what it has at work, and how far that may be off. */
export interface UsualRest {
  share: number;
  spread: number;
}

/** A load's one piece that reads less at rest than at work: a filament, a rotor. */
export function restingBranches(usual: UsualRest) {
  return (
    part: TwoEnds & { ohms: number; restOhms?: number | undefined; tolerance?: number },
  ): BranchSpec[] => {
    const { ohms, restOhms, tolerance = LOAD_TOLERANCE } = part;
    const rest: RestFigures =
      restOhms === undefined
        ? { ohms: usual.share * ohms, tolerance: usual.spread, said: false }
        : { ohms: restOhms, tolerance, said: true };
    return loadBranches(part).map((spec) => ({ ...spec, rest }));
  };
}

/** A load that breaks, or is bridged within itself. */
export function openOrShort({ add, body: own }: FaultContext<'open' | 'short'>): void {
  add('open', null, [broken(own)]);
  add('short', null, [{ weight: 1, edits: () => [{ type: 'ohms', branch: own.index, ohms: SHORT_OHMS }] }]);
}

/** A load in a metal shell, that can leak to it as well. */
export function openShortOrToFrame(context: FaultContext<'open' | 'short' | 'shortToFrame'>): void {
  openOrShort(context);
  context.add('shortToFrame', context.leakRange(context.body), context.leaks(context.body));
}

/** Cold resistance of a fuse or breaker drops about this many volts at the rating. */
const DROP_VOLTS = 0.08;

/** What opens by itself above a current. */
export const overcurrent = {
  traits: traits({ carries: true }),
  branches: (part: TwoEnds & { ohms?: number; amps: number }): BranchSpec[] => [
    body(part, part.ohms ?? DROP_VOLTS / part.amps),
  ],
  devices: ({ amps }: { amps: number }, { branches, index }: CompiledPart): Device[] => [
    { kind: 'fuse', branch: branches[0]!.index, amps, part: index },
  ],
  faults: ({ add, body: own }: FaultContext<'open'>) => add('open', null, [broken(own)]),
  energy: nothing,
};

/** Pressure lost per flow in a supply when the file gives none, kPa per L/min: linearised at working flow. */
const SUPPLY_RESTRICTION = 0.05;
const SUPPLY_TOLERANCE = 0.04;

/** A supply of air, oil or vacuum: pressure against the atmosphere behind its own restriction. */
export const fluidSource = {
  traits: traits({ fluid: true, supply: true }),
  branches: ({
    nodes,
    restriction,
    kPa,
  }: {
    nodes: { out: string };
    restriction?: number;
    kPa: number;
  }): BranchSpec[] => [
    {
      role: 'body',
      fluid: true,
      from: nodes.out,
      to: ATMOSPHERE,
      ohms: restriction ?? SUPPLY_RESTRICTION,
      emf: -kPa,
      emfTolerance: SUPPLY_TOLERANCE,
    },
  ],
  faults: ({ add, body: own }: FaultContext<'noOutput' | 'lowPressure'>) => {
    add('noOutput', null, [broken(own)]);
    add('lowPressure', LOW_PRESSURE, [
      { weight: 1, edits: (factor) => [{ type: 'emf', branch: own.index, factor }] },
    ]);
  },
};
