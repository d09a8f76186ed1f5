import { overcurrent } from './bases';
import { definePart } from './module';

export const fuse = definePart<'fuse'>()({
  ...overcurrent,
  chain: { letter: 'F', figure: 'amps', words: ['fusible link', 'fuse'] },
  accessMinutes: 0.5,
  odds: { open: 0.8 },
  labelled: { amps: { saidBy: ['amps'] } },
  make: ({ common, two, given }) => ({
    part: { ...common, kind: 'fuse', nodes: two, amps: given.figures.amps ?? 10 },
  }),
});
