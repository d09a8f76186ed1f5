import { leak } from '../../diagnosis/faultTypes';
import { seal } from './branch';
import { definePart, nothing, traits } from './module';
import { LEAK } from './ranges';

export const plug = definePart<'plug'>()({
  // A plug that is typed is an electrical one: this stops an opening, and is put there by a press.
  chain: { letter: 'U', figure: null, words: [] },
  traits: traits({ fluid: true, ends: true }),
  accessMinutes: 1,
  odds: { leaking: 0.1 },
  branches: ({ nodes }) => [seal(nodes.in)],
  faults: ({ add, body }) => add('leaking', LEAK, [leak(body, 'a')]),
  energy: nothing,
  labelled: {},
  make: ({ common, near }) => ({ part: { ...common, kind: 'plug', nodes: { in: near } } }),
});
