import { forced, leak } from '../../diagnosis/faultTypes';
import { ATMOSPHERE } from './branch';
import { definePart, nothing, traits } from './module';
import { LEAK, LOW_PRESSURE } from './ranges';

/** Pressure that is needed over its setting per flow that it lets go, kPa per L/min: linearised at working flow. */
const RESTRICTION = 2;
const TOLERANCE = 0.05;

/** Lets what feeds a line go back to the tank, or into the open, once its pressure is reached: no more than that ever stands there. */
export const relief = definePart<'relief'>()({
  chain: { letter: 'RV', figure: 'kPa', words: ['relief valve', 'relief'] },
  traits: traits({ fluid: true, ends: true }),
  accessMinutes: 2,
  odds: { lowPressure: 0.4, leaking: 0.4, stuckClosed: 0.1 },
  branches: ({ nodes, kPa, restriction }) => [
    {
      role: 'body',
      fluid: true,
      from: nodes.in,
      to: ATMOSPHERE,
      ohms: restriction ?? RESTRICTION,
      emf: -kPa,
      emfTolerance: TOLERANCE,
    },
  ],
  devices: ({ kPa }, { branches: [own], index }, { a }) => [
    { kind: 'diode', branch: own!.index, volts: kPa, from: a[own!.index]!, part: index },
  ],
  faults: ({ add, part, body }) => {
    // Its spring has set, or somebody has turned it: it opens early.
    add('lowPressure', LOW_PRESSURE, [
      {
        weight: 1,
        edits: (factor) => [
          { type: 'emf', branch: body.index, factor },
          { type: 'threshold', part: part.index, factor },
        ],
      },
    ]);
    // Dirt under its seat.
    add('leaking', LEAK, [leak(body, 'a')]);
    add('stuckClosed', null, [forced(body, false)]);
  },
  energy: nothing,
  labelled: { kPa: { saidBy: ['kPa'] } },
  make: ({ common, near, given }) => ({
    part: { ...common, kind: 'relief', nodes: { in: near }, kPa: given.figures.kPa ?? 16_000 },
  }),
});
