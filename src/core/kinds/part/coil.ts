import type { Branch } from '../../circuit/compile';
import type { Edit } from '../../circuit/edits';
import type { PartOf } from '../../circuit/partSchema';
import { broken, worsened } from '../../diagnosis/faultTypes';
import { LOAD } from './bases';
import { saidOf } from '../../circuit/assumed';
import { isDrawKnown } from '../../circuit/windings';
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
  odds: { open: 1, shortedTurns: 0.6, shortToFrame: 0.3, weakInsulation: 0.1, jammed: 0.3 },
  branches: (part) => [
    { ...body(part, part.ohms ?? 1), tolerance: part.tolerance ?? LOAD_TOLERANCE, winding: part },
  ],
  faults: (
    { add, part, body: own, turns, leakRange, leaks, weakRange, weakSpots, movesSpool },
    { inrushAmps },
  ) => {
    add('open', null, [broken(own)]);
    add('shortedTurns', turns(own), [worsened(own)]);
    add('shortToFrame', leakRange(own), leaks(own));
    add('weakInsulation', weakRange(own), weakSpots(own));
    // Where a valve's spool hangs on it, that is what jams.
    if (!movesSpool)
      add('jammed', null, [
        { weight: 1, edits: () => [...openGap(own, inrushAmps), { type: 'jam', part: part.index }] },
      ]);
  },
  energy: nothing,
  // Where nobody says its ohms it is drawn without them.
  labelled: {
    pullInAmps: { follows: 'ohms', inversely: true },
    holdAmps: { follows: 'ohms', inversely: true },
  },
  make: ({ common, two, saidOhms, volts }) => ({
    part: {
      ...common,
      kind: 'coil',
      nodes: two,
      ...(saidOhms === undefined
        ? {}
        : {
            ohms: saidOhms,
            pullInAmps: round((PULL_IN_SHARE * volts) / saidOhms),
            holdAmps: round((DRAWN_HOLD * volts) / saidOhms),
          }),
    },
  }),
});

/** An armature that does not close leaves this share of the sealed reactance: three times the current or more. */
const GAP_SHARE = 0.3;

/** What an armature that stays out does to its coil: on direct volts nothing, on alternating volts it draws its inrush current for good. */
export function openGap(own: Branch, inrushAmps?: number): Edit[] {
  return own.reactance > 0 ? [gapOf(own, inrushAmps)] : [];
}

/** An alternating coil with its armature open. */
export function gapOf(own: Branch, inrushAmps?: number): Edit {
  const { ohms, reactance } = own;
  const open = inrushAmps
    ? Math.sqrt(Math.max((own.volts / inrushAmps) ** 2 - ohms ** 2, 0)) / reactance
    : GAP_SHARE;
  return { type: 'gap', branch: own.index, share: Math.min(open, 1) };
}

/**
 * Current at which a coil pulls its plunger in, amperes. A coil of which nobody has said what it draws, as an alternating one of which only
 * ohms are known, has no figure that the file's amperes could be held against, and where nobody said them there are none: it pulls in at the
 * usual share of whatever it draws.
 */
export function pullInAmps(branch: Branch, part: PartOf<'coil'>): number {
  const usual = (PULL_IN_SHARE * branch.volts) / Math.hypot(branch.ohms, branch.reactance);
  return isDrawKnown(branch) ? (saidOf(part, 'pullInAmps') ?? usual) : usual;
}

/** Current below which it lets go again, amperes. */
export function holdAmps(branch: Branch, part: PartOf<'coil'>): number {
  const usual = HOLD_SHARE * pullInAmps(branch, part);
  return isDrawKnown(branch) ? (saidOf(part, 'holdAmps') ?? usual) : usual;
}
