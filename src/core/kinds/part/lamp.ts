import { LOAD, openOrShort, restingBranches } from './bases';
import { definePart, nothing, round, traits } from './module';

export const lamp = definePart<'lamp'>()({
  chain: { letter: 'H', figure: 'ohms', words: ['lamp', 'light', 'beacon', 'bulb'] },
  traits: traits({ ...LOAD, works: true }),
  accessMinutes: 1.5,
  odds: { open: 0.8, short: 0.3 },
  // A filament: an eighth to a fifteenth of its ohms while it is cold.
  branches: restingBranches({ share: 0.1, spread: 0.7 }),
  faults: openOrShort,
  energy: nothing,
  labelled: { ohms: { saidBy: ['ohms', 'watts'] } },
  make: ({ common, two, ohms, volts }) => ({
    part: { ...common, kind: 'lamp', nodes: two, ohms: ohms(round(volts / 2)) },
  }),
});
