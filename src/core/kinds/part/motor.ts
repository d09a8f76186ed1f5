import { LOAD, openShortOrToFrame, restingBranches } from './bases';
import { definePart, nothing, round, traits } from './module';

export const motor = definePart<'motor'>()({
  chain: { letter: 'M', figure: 'ohms', words: ['motor', 'fan'] },
  traits: traits({ ...LOAD, works: true }),
  accessMinutes: 1.5,
  odds: { open: 0.8, short: 0.3, shortToFrame: 0.3, jammed: 0.4 },
  // Its winding and its brushes: standing it has no volts of its own, and how they touch differs from place to place.
  branches: restingBranches({ share: 1 / 6, spread: 1 }),
  faults: (context) => {
    openShortOrToFrame(context);
    const { add, part, body: own } = context;
    // A rotor that is held draws what its winding lets through, and goes on drawing it.
    add('jammed', null, [
      {
        weight: 1,
        edits: () => [
          {
            type: 'ohms',
            branch: own.index,
            ohms: Math.min(own.rest!.ohms, own.ohms),
            held: own.rest!.tolerance,
          },
          { type: 'jam', part: part.index },
        ],
      },
    ]);
  },
  energy: nothing,
  labelled: { ohms: { saidBy: ['ohms', 'watts'] } },
  make: ({ common, two, ohms, volts }) => ({
    part: { ...common, kind: 'motor', nodes: two, ohms: ohms(round(volts / 2)) },
  }),
});
