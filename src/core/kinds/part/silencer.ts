import { worsened } from '../../diagnosis/faultTypes';
import { ATMOSPHERE } from './branch';
import { definePart, nothing, traits } from './module';
import { BLOCKED } from './ranges';

/** Pressure lost per flow when the file gives none, kPa per L/min: linearised at working flow. */
const RESTRICTION = 0.05;

export const silencer = definePart<'silencer'>()({
  chain: { letter: 'U', figure: null, words: ['silencer', 'exhaust'] },
  traits: traits({ fluid: true, ends: true }),
  accessMinutes: 0.5,
  odds: { blocked: 0.5 },
  branches: ({ nodes, restriction }) => [
    { role: 'vent', fluid: true, from: nodes.in, to: ATMOSPHERE, ohms: restriction ?? RESTRICTION },
  ],
  faults: ({ add, body }) => add('blocked', BLOCKED, [worsened(body)]),
  energy: nothing,
  labelled: {},
  make: ({ common, near }) => ({ part: { ...common, kind: 'silencer', nodes: { in: near } } }),
});
