import { worsened } from '../../diagnosis/faultTypes';
import { definePart, nothing, traits } from './module';
import { BLOCKED } from './ranges';

/** Pressure lost per flow when the file gives none, kPa per L/min: linearised at working flow. */
const RESTRICTION = 0.05;

export const filter = definePart<'filter'>()({
  chain: { letter: 'Z', figure: null, words: ['filter', 'water trap'] },
  traits: traits({ fluid: true }),
  accessMinutes: 0.5,
  odds: { blocked: 0.5 },
  branches: ({ nodes, restriction }) => [
    { role: 'body', fluid: true, from: nodes.in, to: nodes.out, ohms: restriction ?? RESTRICTION },
  ],
  faults: ({ add, body }) => add('blocked', BLOCKED, [worsened(body)]),
  energy: nothing,
  labelled: {},
  make: ({ common, near, far }) => ({ part: { ...common, kind: 'filter', nodes: { in: near, out: far } } }),
});
