import { bridged } from '../../diagnosis/faultTypes';
import { seal } from './branch';
import { definePart, nothing, traits } from './module';
import { SEAL_LEAK } from './ranges';

export const cylinder = definePart<'cylinder'>()({
  chain: { letter: 'C', figure: null, words: ['cylinder', 'ram'] },
  traits: traits({ fluid: true, ends: true, actuator: true, works: true }),
  accessMinutes: 1.5,
  odds: { sealLeak: 0.5, jammed: 0.4 },
  branches: ({ nodes }) => [seal(nodes.a, nodes.b)],
  faults: ({ add, part, body }) => {
    add('sealLeak', SEAL_LEAK, [bridged(body)]);
    add('jammed', null, [{ weight: 1, edits: () => [{ type: 'jam', part: part.index }] }]);
  },
  energy: nothing,
  labelled: {},
  make: ({ common, near, far }) => ({ part: { ...common, kind: 'cylinder', nodes: { a: near, b: far } } }),
});
