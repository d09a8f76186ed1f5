import { leak, worsened } from '../../diagnosis/faultTypes';
import { definePart, nothing, traits } from './module';
import { BLOCKED, LEAK } from './ranges';

/** Pressure lost per flow when the file gives none, kPa per L/min: linearised at working flow. */
const RESTRICTION = 0.05;

export const hose = definePart<'hose'>()({
  chain: { letter: 'L', figure: null, words: ['hose', 'pipe', 'tube'] },
  traits: traits({ fluid: true }),
  accessMinutes: 2,
  odds: { blocked: 0.4, leaking: 0.6 },
  branches: ({ nodes, restriction }) => [
    { role: 'body', fluid: true, from: nodes['1'], to: nodes['2'], ohms: restriction ?? RESTRICTION },
  ],
  faults: ({ add, body }) => {
    add('blocked', BLOCKED, [worsened(body)]);
    add('leaking', LEAK, [leak(body, 'a'), leak(body, 'b')]);
  },
  energy: nothing,
  labelled: {},
  make: ({ common, two, given: { figures } }) => ({
    part: {
      ...common,
      kind: 'hose',
      nodes: two,
      ...(figures.restriction === undefined ? {} : { restriction: figures.restriction }),
    },
  }),
});
