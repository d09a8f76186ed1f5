import { bridged, forced, worsened, type SeverityRange } from '../../diagnosis/faultTypes';
import { body, CONTACT_OHMS } from './branch';
import { definePart, nothing, traits } from './module';

/** A jumper that somebody left, with its own bad joints; a track of water and dirt. */
const BRIDGE: SeverityRange = { unit: 'ohms', least: 0.05, most: 1e4, mainLeast: 0.05, mainMost: 100 };

export const switchKind = definePart<'switch'>()({
  chain: {
    letter: 'S',
    figure: 'ohms',
    words: ['push button', 'pushbutton', 'button', 'selector', 'switch', 'contact', 'interlock', 'limit'],
  },
  traits: traits({ contact: true, carries: true }),
  accessMinutes: 1.2,
  odds: { stuckOpen: 0.8, stuckClosed: 0.4, bridged: 0.1, highResistance: 0.6 },
  branches: (part) => [body(part, part.ohms ?? CONTACT_OHMS)],
  faults: ({ add, body: own, series }) => {
    add('stuckOpen', null, [forced(own, false)]);
    add('stuckClosed', null, [forced(own, true)]);
    add('bridged', BRIDGE, [bridged(own)]);
    add('highResistance', series(own), [worsened(own)]);
  },
  energy: nothing,
  labelled: {},
  make: ({ common, two, ref, given: { figures }, worked }) => {
    const { closedWhen, controls } = worked(ref);
    const ohms = figures.ohms === undefined ? {} : { ohms: figures.ohms };
    return { part: { ...common, kind: 'switch', nodes: two, closedWhen, ...ohms }, controls };
  },
});
