import { fluidSource } from './bases';
import { definePart } from './module';

export const pump = definePart<'pump'>()({
  ...fluidSource,
  chain: { letter: 'P', figure: 'kPa', words: ['oil pump', 'pump'] },
  accessMinutes: 0.5,
  odds: { noOutput: 0.4, lowPressure: 0.6 },
  energy: ({ kPa }) => (kPa < 0 ? 'vacuum' : 'oil'),
  labelled: { kPa: { saidBy: ['kPa'] } },
  make: ({ common, far, given }) => {
    return { part: { ...common, kind: 'pump', nodes: { out: far }, kPa: given.figures.kPa ?? 18_000 } };
  },
});
