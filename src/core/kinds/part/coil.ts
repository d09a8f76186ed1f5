import type { PartOf } from '../../circuit/partSchema';
import { broken, worsened } from '../../diagnosis/faultTypes';
import { LOAD } from './bases';
import { body, LOAD_TOLERANCE } from './branch';
import { definePart, nothing, round, traits } from './module';

/** A coil without a pull-in figure is taken to pull in at this share of its nominal current (IEC 60947-4-1 asks for 85 % of volts hot). */
const PULL_IN_SHARE = 0.6;
/** A coil without a hold-in figure drops out at this share of its pull-in current. */
const HOLD_SHARE = 0.35;
/** Hold-in that a new coil is drawn with, as a share of its nominal current. */
const DRAWN_HOLD = 0.2;

export const coil = definePart<'coil'>()({
  chain: {
    letter: 'Y',
    figure: 'ohms',
    words: ['valve coil', 'solenoid', 'winding', 'coil', 'clutch', 'brake'],
  },
  traits: traits({ ...LOAD, ohmic: true, works: true }),
  accessMinutes: 1.5,
  odds: { open: 1, shortedTurns: 0.6, shortToFrame: 0.3, weakInsulation: 0.1 },
  branches: (part) => [
    {
      ...body(part, part.ohms),
      tolerance: part.tolerance ?? LOAD_TOLERANCE,
      ...(part.henries ? { henries: part.henries } : {}),
    },
  ],
  faults: ({ add, body: own, turns, leakRange, leaks, weakRange, weakSpots }) => {
    add('open', null, [broken(own)]);
    add('shortedTurns', turns(own), [worsened(own)]);
    add('shortToFrame', leakRange(own), leaks(own));
    add('weakInsulation', weakRange(own), weakSpots(own));
  },
  energy: nothing,
  make: ({ common, two, ohms, volts }) => {
    const own = ohms(round(volts / 1.2));
    return {
      part: {
        ...common,
        kind: 'coil',
        nodes: two,
        ohms: own,
        pullInAmps: round((PULL_IN_SHARE * volts) / own),
        holdAmps: round((DRAWN_HOLD * volts) / own),
      },
    };
  },
});

/** Current at which a coil pulls its plunger in, amperes. */
export function pullInAmps(supplyVolts: number, part: Pick<PartOf<'coil'>, 'pullInAmps' | 'ohms'>): number {
  return part.pullInAmps ?? (PULL_IN_SHARE * supplyVolts) / part.ohms;
}

/** Current below which it lets go again, amperes. */
export function holdAmps(
  supplyVolts: number,
  part: Pick<PartOf<'coil'>, 'pullInAmps' | 'holdAmps' | 'ohms'>,
): number {
  return part.holdAmps ?? HOLD_SHARE * pullInAmps(supplyVolts, part);
}
