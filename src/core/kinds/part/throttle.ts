import { worsened } from '../../diagnosis/faultTypes';
import { definePart, nothing, traits } from './module';
import { BLOCKED } from './ranges';

/** Pressure lost per flow when the file gives none, kPa per L/min: linearised at working flow. */
const RESTRICTION = 0.5;

export const throttle = definePart<'throttle'>()({
  chain: { letter: 'RZ', figure: 'restriction', words: ['throttle', 'restrictor'] },
  traits: traits({ fluid: true }),
  accessMinutes: 1.5,
  odds: { blocked: 0.5 },
  branches: ({ nodes, restriction }) => [
    { role: 'body', fluid: true, from: nodes['1'], to: nodes['2'], ohms: restriction ?? RESTRICTION },
  ],
  faults: ({ add, body }) => add('blocked', BLOCKED, [worsened(body)]),
  energy: nothing,
  labelled: {},
  make: ({ common, two, given: { figures } }) => ({
    part: {
      ...common,
      kind: 'throttle',
      nodes: two,
      ...(figures.restriction === undefined ? {} : { restriction: figures.restriction }),
    },
  }),
});
