import type { Circumstance, LOOKED_AT } from '../circuit/circumstances';
import type { Part } from '../circuit/schema';
import type { CandidateFault, FaultName } from './faultTypes';
import { isStraySign, type StraySign } from './strayWork';

/** Something looked at: a plug, a loom or hoses by where they run, a rod by hand, a throttle by its screw, a relief valve by ear and warmth, or the whole for water. */
export interface Look {
  at: (typeof LOOKED_AT)[number];
  /** The plug, the rod's, throttle's or relief valve's own part, or the place of the loom or the hoses; null for the whole. */
  subject: string | null;
  good: boolean;
}

/** What is known of a fault without a meter. */
export interface Signs {
  when: readonly Circumstance[];
  looks: readonly Look[];
}
export const NO_SIGNS: Signs = { when: [], looks: [] };

/** How much likelier a sign is with some faults than with others. */
interface Likelihood {
  faults: readonly FaultName[];
  /** Kinds of part that it is said of; all where none is named. */
  kinds?: readonly Part['kind'][];
  /** Only of what draws more with the fault in it. */
  drawsMore?: true;
  /** Times as likely as with the rest. */
  factor: number;
  /** Why: a rule of thumb of the trade. */
  because: string;
}

const JOINTS: readonly FaultName[] = ['open', 'highResistance'];
const WIRING: readonly Part['kind'][] = ['wire', 'pin'];
const CONTACTS: readonly Part['kind'][] = ['switch', 'relay', 'timer', 'pressureSwitch'];
const LEAKS: readonly FaultName[] = ['weakInsulation', 'shortToFrame'];
/** Where air expands, and cools. */
const EXHAUSTS: readonly Part['kind'][] = ['valve', 'silencer', 'throttle', 'regulator'];
const WINDINGS: readonly Part['kind'][] = ['coil', 'relay', 'motor', 'transformer', 'proportionalValve'];

/** Where the circuit itself tells which faults would make something work that was not asked for. */
const STRAY = {
  shown: { factor: 8, because: 'with this fault it does just that' },
  not: {
    factor: 1 / 60,
    because: 'with this fault it would stand still; words, and what the drawing does not show, may be wrong',
  },
};

/** The one table of what words say of faults. Factors are likelihood ratios; a sign that is not there says nothing. */
export const SIGN_LIKELIHOODS: Readonly<Record<Circumstance, readonly Likelihood[]>> = {
  atOnce: [],
  onCommand: [],
  wet: [
    { faults: LEAKS, factor: 4, because: 'water bridges what is cracked' },
    { faults: JOINTS, kinds: WIRING, factor: 4, because: 'a corroded joint fails when it is wet' },
  ],
  bumps: [
    { faults: JOINTS, kinds: WIRING, factor: 6, because: 'a loose joint parts when it is shaken' },
    {
      faults: ['stuckOpen', 'highResistance'],
      kinds: ['switch'],
      factor: 6,
      because: 'a seat or lever contact lifts',
    },
    {
      faults: ['stuckOpen', 'highResistance'],
      kinds: ['relay'],
      factor: 2,
      because: 'a relay is thrown open',
    },
  ],
  afterMinutes: [
    { faults: ['shortedTurns', 'weakInsulation'], factor: 4, because: 'insulation gives way as it warms' },
    { faults: ['open'], kinds: WINDINGS, factor: 4, because: 'a cracked winding parts as it warms' },
    {
      faults: ['ventBlocked', 'blocked'],
      kinds: EXHAUSTS,
      factor: 3,
      because: 'ice grows where wet air expands',
    },
  ],
  hot: [
    { faults: ['shortedTurns', 'weakInsulation'], factor: 4, because: 'insulation gives way when hot' },
    { faults: ['open'], kinds: WINDINGS, factor: 4, because: 'a cracked winding parts when hot' },
  ],
  comesAndGoes: [
    { faults: JOINTS, kinds: WIRING, factor: 3, because: 'a joint makes and breaks' },
    {
      faults: ['stuckOpen', 'highResistance'],
      kinds: CONTACTS,
      factor: 2,
      because: 'a worn contact makes and breaks',
    },
  ],
  betterWarm: [
    { faults: ['weakInsulation', 'highResistance'], factor: 4, because: 'moisture dries out' },
    { faults: ['stuckAtRest', 'stuckMidway', 'jammed'], factor: 4, because: 'what sticks loosens' },
    { faults: ['ventBlocked', 'blocked'], factor: 4, because: 'water that froze in it thaws' },
  ],
  afterPause: [
    {
      faults: ['highResistance', 'stuckOpen'],
      kinds: CONTACTS,
      factor: 4,
      because: 'a film grows on a contact that rests',
    },
    {
      faults: ['stuckAtRest', 'stuckMidway', 'jammed'],
      factor: 4,
      because: 'what moves sticks where it rested',
    },
  ],
  movesByItself: [{ faults: ['sealLeak', 'leaking'], factor: 3, because: 'it creeps' }],
  doesNotStop: [],
  wrongOneMoves: [],
  shock: [{ faults: LEAKS, factor: 8, because: 'the frame has become live' }],
  fuseHoldsSeconds: [
    {
      faults: ['shortedTurns', 'jammed', 'weakInsulation'],
      drawsMore: true,
      factor: 3,
      because: 'a dead short takes it at once',
    },
  ],
  fuseHoldsMinutes: [
    {
      faults: ['shortedTurns', 'weakInsulation', 'jammed'],
      drawsMore: true,
      factor: 6,
      because: 'only a small overload, or one that grows, takes minutes',
    },
  ],
};

/** What a look says of what it was given to: with it bad, and with it good. */
const LOOKS: Readonly<Record<Look['at'], { bad: readonly Likelihood[]; good: readonly Likelihood[] }>> = {
  plug: {
    bad: [
      { faults: [...JOINTS, 'swapped'], kinds: ['pin'], factor: 12, because: 'bent, green or half seated' },
    ],
    good: [
      { faults: [...JOINTS, 'swapped'], kinds: ['pin'], factor: 0.4, because: 'a look finds most bad pins' },
    ],
  },
  loom: {
    bad: [
      {
        faults: ['shortToFrame', 'shortBetween', 'shortToSupply', 'weakInsulation', 'open'],
        kinds: ['wire'],
        factor: 10,
        because: 'rubbed through',
      },
    ],
    good: [
      {
        faults: ['shortToFrame', 'shortBetween', 'shortToSupply'],
        kinds: ['wire'],
        factor: 0.6,
        because: 'a look sees part of a loom',
      },
    ],
  },
  leak: {
    bad: [
      { faults: ['leaking'], factor: 50, because: 'air is heard and oil is seen where it comes out' },
      { faults: ['sealLeak'], factor: 3, because: 'what passes a seal leaves at a rod or an exhaust' },
    ],
    good: [{ faults: ['leaking'], factor: 0.3, because: 'a leak that stops a function is seldom silent' }],
  },
  rod: {
    bad: [{ faults: ['jammed'], factor: 20, because: 'with its air off it does not go by hand either' }],
    good: [{ faults: ['jammed'], factor: 0.05, because: 'with its air off it goes freely by hand' }],
  },
  rotor: {
    bad: [{ faults: ['jammed'], kinds: ['motor'], factor: 20, because: 'it does not turn by hand either' }],
    good: [
      { faults: ['jammed'], kinds: ['motor'], factor: 0.05, because: 'nothing holds what turns by hand' },
    ],
  },
  throttle: {
    bad: [
      { faults: ['blocked'], kinds: ['throttle'], factor: 20, because: 'screwed in it lets little past' },
    ],
    good: [{ faults: ['blocked'], kinds: ['throttle'], factor: 0.3, because: 'what is left is dirt in it' }],
  },
  relief: {
    bad: [
      {
        faults: ['lowPressure', 'leaking'],
        kinds: ['relief'],
        factor: 15,
        because: 'oil that passes a relief is heard, and heats it',
      },
    ],
    good: [
      {
        faults: ['lowPressure', 'leaking'],
        kinds: ['relief'],
        factor: 0.15,
        because: 'a relief that lets all of a pump’s oil go is neither silent nor cool',
      },
    ],
  },
  water: {
    bad: [
      { faults: LEAKS, factor: 5, because: 'water bridges what is cracked' },
      { faults: JOINTS, kinds: ['pin'], factor: 5, because: 'water corrodes a plug' },
    ],
    good: [],
  },
};

/**
 * Log-likelihood ratio of every fault under what was said and seen, by index of the fault, and last that of the sound circuit; all zero
 * without signs. `shown` tells which faults make work that nobody asked for.
 */
export function signWeights(
  faults: readonly CandidateFault[],
  partOf: (fault: CandidateFault) => Part,
  { when, looks }: Signs,
  shown: (sign: StraySign) => readonly boolean[],
): Float64Array {
  const weights = new Float64Array(faults.length + 1);
  if (when.length === 0 && looks.length === 0) return weights;
  const tell = (rules: readonly Likelihood[], concerns: (part: Part) => boolean) => {
    for (const fault of faults) {
      const part = partOf(fault);
      if (!concerns(part)) continue;
      // Of rules that say the same thing in other words the strongest counts.
      const factors = rules
        .filter(
          ({ faults: names, kinds, drawsMore }) =>
            names.includes(fault.fault) &&
            (!kinds || kinds.includes(part.kind)) &&
            (!drawsMore || mayDrawMore(fault)),
        )
        .map(({ factor }) => Math.log(factor));
      const strongest = factors.reduce((top, one) => (Math.abs(one) > Math.abs(top) ? one : top), 0);
      weights[fault.index] = weights[fault.index]! + strongest;
    }
  };
  for (const one of new Set(when)) {
    const told = Float64Array.from(weights);
    tell(SIGN_LIKELIHOODS[one], () => true);
    if (!isStraySign(one)) continue;
    const shows = shown(one);
    told.forEach((before, at) => {
      if (shows[at] === true) weights[at] = before + Math.log(STRAY.shown.factor);
      // What a rule of thumb speaks for, such as what creeps, is not ruled out by a circuit that does not show it.
      else if (weights[at] === before) weights[at] = before + Math.log(STRAY.not.factor);
    });
  }
  for (const { at, subject, good } of looks) {
    tell(LOOKS[at][good ? 'good' : 'bad'], (part) => subject === null || isAt(part, at, subject));
  }
  return weights;
}

/** A plunger that does not move leaves the current of its coil as it is, on direct volts. */
function mayDrawMore({ fault, variants }: CandidateFault): boolean {
  if (fault !== 'jammed') return true;
  return variants.some(({ edits }) => edits(1).some(({ type }) => type === 'gap' || type === 'ohms'));
}

/** Whether a look, found good or bad, would say anything of a fault of a part. */
export function lookSaysOf({ at, subject }: Omit<Look, 'good'>, part: Part, fault: FaultName): boolean {
  return (
    (subject === null || isAt(part, at, subject)) &&
    [...LOOKS[at].bad, ...LOOKS[at].good].some(
      ({ faults, kinds }) => faults.includes(fault) && (!kinds || kinds.includes(part.kind)),
    )
  );
}

function isAt(part: Part, at: Look['at'], subject: string): boolean {
  if (at === 'plug') return part.kind === 'pin' && part.connector === subject;
  if (at === 'rod' || at === 'rotor' || at === 'throttle' || at === 'relief') return part.ref === subject;
  return part.place === subject;
}
