import { forced } from '../../diagnosis/faultTypes';
import { body, CONTACT_OHMS } from './branch';
import { definePart, nothing, traits } from './module';

export const timer = definePart<'timer'>()({
  chain: { letter: 'K', figure: 'seconds', words: ['timer', 'timed contact', 'delay'] },
  traits: traits({ contact: true, carries: true, electronic: true }),
  accessMinutes: 1.2,
  odds: { stuckOpen: 0.6, stuckClosed: 0.4 },
  branches: (part) => [body(part, part.ohms ?? CONTACT_OHMS)],
  faults: ({ add, body: own }) => {
    add('stuckOpen', null, [forced(own, false)]);
    add('stuckClosed', null, [forced(own, true)]);
  },
  energy: nothing,
  labelled: { seconds: { saidBy: ['seconds'] } },
  make: ({ common, two, given: { figures }, worked }) => {
    const { closedWhen, controls } = worked('key');
    return {
      part: { ...common, kind: 'timer', nodes: two, closedWhen, seconds: figures.seconds ?? 3 },
      controls,
    };
  },
});
