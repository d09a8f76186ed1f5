import { bridged, broken, worsened, type FaultVariant } from '../../diagnosis/faultTypes';
import { LOAD, loadBranches } from './bases';
import { OPENING_STEPS } from './branch';
import { definePart, nothing, round, traits } from './module';
import { SEAL_LEAK } from './ranges';

/** Pressure lost per flow when fully open and the file gives none, kPa per L/min. */
const RESTRICTION = 0.15;
/** Share of the nominal current at which one begins to open, and is fully open, before anybody has said otherwise. */
const FROM_SHARE = 0.25;
const FULL_SHARE = 0.9;

export const proportionalValve = definePart<'proportionalValve'>()({
  chain: { letter: 'Q', figure: 'ohms', words: ['proportional valve', 'proportional solenoid'] },
  traits: traits({ ...LOAD, fluid: true, ohmic: true, works: true }),
  accessMinutes: 1.5,
  odds: {
    open: 0.8,
    shortedTurns: 0.5,
    shortToFrame: 0.3,
    stuckAtRest: 0.6,
    stuckShifted: 0.3,
    stuckMidway: 0.5,
    sealLeak: 0.4,
  },
  branches: (part) => [
    ...loadBranches(part),
    {
      role: 'opening',
      fluid: true,
      from: part.nodes.in,
      to: part.nodes.out,
      ohms: part.restriction ?? RESTRICTION,
    },
  ],
  fluidEnd: (key) => key === 'in' || key === 'out',
  devices: ({ fromAmps, fullAmps }, { index, branches }) => [
    { kind: 'opening', part: index, coil: branches[0]!.index, from: fromAmps, full: fullAmps },
  ],
  faults: ({ add, part: { index, branches }, turns, leakRange, leaks }) => {
    const [coil, way] = [branches[0]!, branches[1]!];
    const stuck = (steps: number): FaultVariant => ({
      weight: 1,
      edits: () => [{ type: 'position', part: index, position: steps }],
    });
    add('open', null, [broken(coil)]);
    add('shortedTurns', turns(coil), [worsened(coil)]);
    add('shortToFrame', leakRange(coil), leaks(coil));
    add('stuckAtRest', null, [stuck(0)]);
    add('stuckShifted', null, [stuck(OPENING_STEPS)]);
    // Dirt holds it anywhere between.
    add(
      'stuckMidway',
      null,
      [0.2, 0.5, 0.8].map((share) => stuck(Math.round(share * OPENING_STEPS))),
    );
    add('sealLeak', SEAL_LEAK, [bridged(way)]);
  },
  energy: nothing,
  labelled: {
    ohms: { saidBy: ['ohms', 'watts'] },
    fromAmps: { follows: 'ohms', inversely: true },
    fullAmps: { follows: 'ohms', inversely: true },
  },
  make: ({ common, two, ref, ohms, volts }) => {
    const own = ohms(round(volts / 1.2));
    return {
      part: {
        ...common,
        kind: 'proportionalValve',
        nodes: { ...two, in: `${ref}:P`, out: `${ref}:A` },
        ohms: own,
        fromAmps: round((FROM_SHARE * volts) / own),
        fullAmps: round((FULL_SHARE * volts) / own),
      },
    };
  },
});
