import { leak } from '../../diagnosis/faultTypes';
import { seal } from './branch';
import { definePart, nothing, traits } from './module';
import { LEAK } from './ranges';

export const vacuumActuator = definePart<'vacuumActuator'>()({
  chain: { letter: 'C', figure: 'pullKPa', words: ['vacuum actuator', 'vacuum capsule'] },
  traits: traits({ fluid: true, ends: true, actuator: true, works: true }),
  accessMinutes: 1.5,
  odds: { leaking: 0.6, jammed: 0.3 },
  branches: ({ nodes }) => [seal(nodes.port)],
  faults: ({ add, part, body }) => {
    add('leaking', LEAK, [leak(body, 'a')]);
    add('jammed', null, [{ weight: 1, edits: () => [{ type: 'jam', part: part.index }] }]);
  },
  energy: nothing,
  labelled: { pullKPa: { saidBy: ['pullKPa', 'kPa'] } },
  make: ({ common, near, given: { figures } }) => ({
    part: {
      ...common,
      kind: 'vacuumActuator',
      nodes: { port: near },
      pullKPa: figures.pullKPa ?? figures.kPa ?? 25,
    },
  }),
});
