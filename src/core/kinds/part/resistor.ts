import { LOAD, loadBranches, openOrShort } from './bases';
import { definePart, nothing, round, traits } from './module';

export const resistor = definePart<'resistor'>()({
  chain: { letter: 'R', figure: 'ohms', words: ['resistor', 'resistance'] },
  traits: traits({ ...LOAD, ohmic: true }),
  accessMinutes: 1.5,
  odds: { open: 0.8, short: 0.3 },
  branches: loadBranches,
  faults: openOrShort,
  energy: nothing,
  labelled: { ohms: { saidBy: ['ohms', 'watts'] } },
  make: ({ common, two, ohms, volts }) => ({
    part: { ...common, kind: 'resistor', nodes: two, ohms: ohms(round(volts / 2)) },
  }),
});
