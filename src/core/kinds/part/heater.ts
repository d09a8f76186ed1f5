import { broken } from '../../diagnosis/faultTypes';
import { body, LOAD_TOLERANCE } from './branch';
import { definePart, nothing, round, traits } from './module';
import { SHORT_OHMS } from './ranges';

export const heater = definePart<'heater'>()({
  chain: { letter: 'E', figure: 'ohms', words: ['heater', 'glow plug', 'element'] },
  traits: traits({ load: true, works: true }),
  accessMinutes: 1.5,
  odds: { open: 0.8, short: 0.3, shortToFrame: 0.3 },
  branches: (part) => [{ ...body(part, part.ohms), tolerance: part.tolerance ?? LOAD_TOLERANCE }],
  faults: ({ add, body: own, leakRange, leaks }) => {
    add('open', null, [broken(own)]);
    add('short', null, [{ weight: 1, edits: () => [{ type: 'ohms', branch: own.index, ohms: SHORT_OHMS }] }]);
    add('shortToFrame', leakRange(own), leaks(own));
  },
  energy: nothing,
  make: ({ common, two, ohms, volts }) => ({
    part: { ...common, kind: 'heater', nodes: two, ohms: ohms(round(volts / 2)) },
  }),
});
