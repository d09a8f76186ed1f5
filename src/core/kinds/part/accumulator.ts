import { leak } from '../../diagnosis/faultTypes';
import { seal } from './branch';
import { definePart, traits } from './module';
import { LEAK } from './ranges';

/**
 * Oil held under pressure by gas. It feeds nothing that lasts, so that it counts in no settled state but by what leaks out of it; what it
 * holds when its pump has stopped is a matter of safety.
 */
export const accumulator = definePart<'accumulator'>()({
  chain: { letter: 'AC', figure: 'kPa', words: ['accumulator'] },
  traits: traits({ fluid: true, ends: true, stores: true }),
  accessMinutes: 2,
  odds: { leaking: 0.2 },
  branches: ({ nodes }) => [seal(nodes.in)],
  faults: ({ add, body }) => add('leaking', LEAK, [leak(body, 'a')]),
  energy: () => 'oil',
  labelled: { kPa: { saidBy: ['kPa'] } },
  make: ({ common, near, given }) => ({
    part: { ...common, kind: 'accumulator', nodes: { in: near }, kPa: given.figures.kPa ?? 8000 },
  }),
});
