import { broken, worsened } from '../../diagnosis/faultTypes';
import { body } from './branch';
import { definePart, nothing, traits } from './module';

const PIN_OHMS = 0.005;

export const pin = definePart<'pin'>()({
  chain: { letter: 'X', figure: null, words: ['connector', 'plug', 'pin', 'terminal'] },
  traits: traits({ carries: true }),
  accessMinutes: 1,
  // Plugs in each other's place and pins in each other's are no fault of one pin: `pairFaults` adds them with these odds.
  odds: { open: 0.8, highResistance: 0.8, swapped: 0.03, crossedPins: 0.08 },
  branches: (part) => [body(part, part.ohms ?? PIN_OHMS)],
  faults: ({ add, body: own, series }) => {
    add('open', null, [broken(own)]);
    add('highResistance', series(own), [worsened(own)]);
  },
  energy: nothing,
  labelled: {},
  make: ({ common, two, ref }) => ({
    part: { ...common, kind: 'pin', nodes: two, connector: ref.split('.')[0]! },
  }),
});
