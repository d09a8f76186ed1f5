import { broken } from '../../diagnosis/faultTypes';
import { body } from './branch';
import { definePart, nothing, traits } from './module';

/** Cold resistance drops about this many volts at the rating. */
const DROP_VOLTS = 0.08;

export const fuse = definePart<'fuse'>()({
  chain: { letter: 'F', figure: 'amps', words: ['fusible link', 'fuse'] },
  traits: traits({ carries: true }),
  accessMinutes: 0.5,
  odds: { open: 0.8 },
  branches: (part) => [body(part, part.ohms ?? DROP_VOLTS / part.amps)],
  devices: ({ amps }, { branches, index }) => [
    { kind: 'fuse', branch: branches[0]!.index, amps, part: index },
  ],
  faults: ({ add, body: own }) => add('open', null, [broken(own)]),
  energy: nothing,
  make: ({ common, two, given }) => ({
    part: { ...common, kind: 'fuse', nodes: two, amps: given.figures.amps ?? 10 },
  }),
});
