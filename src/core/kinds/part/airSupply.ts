import { fluidSource } from './bases';
import { definePart } from './module';

export const airSupply = definePart<'airSupply'>()({
  ...fluidSource,
  chain: {
    letter: 'P',
    figure: 'kPa',
    words: ['air supply', 'air main', 'compressor', 'vacuum pump', 'air', 'vacuum'],
  },
  accessMinutes: 0.3,
  odds: { noOutput: 0.5, lowPressure: 0.8 },
  energy: ({ kPa, refrigerant }) => (refrigerant ? 'refrigerant' : kPa < 0 ? 'vacuum' : 'air'),
  labelled: { kPa: { saidBy: ['kPa'] } },
  make: ({ common, far, given }) => {
    const vacuum = /vacuum/i.test(given.typed);
    const kPa = given.figures.kPa ?? (vacuum ? 60 : 700);
    return {
      part: { ...common, kind: 'airSupply', nodes: { out: far }, kPa: vacuum ? -Math.abs(kPa) : kPa },
    };
  },
});
