import { overcurrent } from './bases';
import { definePart } from './module';

export const breaker = definePart<'breaker'>()({
  ...overcurrent,
  chain: { letter: 'F', figure: 'amps', words: ['circuit breaker', 'breaker'] },
  accessMinutes: 0.5,
  odds: { open: 0.6 },
  labelled: { amps: { saidBy: ['amps'] } },
  make: ({ common, two, given }) => ({
    part: { ...common, kind: 'breaker', nodes: two, amps: given.figures.amps ?? 10 },
  }),
});
