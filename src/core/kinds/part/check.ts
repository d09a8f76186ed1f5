import { forced } from '../../diagnosis/faultTypes';
import { definePart, nothing, traits } from './module';

/** Pressure lost per flow when the file gives none, kPa per L/min: linearised at working flow. */
const RESTRICTION = 0.08;

export const check = definePart<'check'>()({
  chain: { letter: 'RV', figure: null, words: ['check valve', 'non-return valve'] },
  traits: traits({ fluid: true }),
  accessMinutes: 1.5,
  odds: { stuckOpen: 0.3, stuckClosed: 0.3 },
  branches: ({ nodes, restriction, crackingKPa }) => [
    {
      role: 'body',
      fluid: true,
      from: nodes.in,
      to: nodes.out,
      ohms: restriction ?? RESTRICTION,
      emf: -(crackingKPa ?? 0),
    },
  ],
  devices: ({ crackingKPa }, { branches: [own] }, { a }) => [
    { kind: 'diode', branch: own!.index, volts: crackingKPa ?? 0, from: a[own!.index]! },
  ],
  faults: ({ add, body }) => {
    add('stuckOpen', null, [forced(body, true)]);
    add('stuckClosed', null, [forced(body, false)]);
  },
  energy: nothing,
  labelled: {},
  make: ({ common, near, far }) => ({ part: { ...common, kind: 'check', nodes: { in: near, out: far } } }),
});
