import { forced, worsened } from '../../diagnosis/faultTypes';
import { body, CONTACT_OHMS, seal } from './branch';
import { definePart, nothing, round, traits } from './module';
import { DRIFT } from './ranges';

export const pressureSwitch = definePart<'pressureSwitch'>()({
  chain: {
    letter: 'B',
    figure: 'makeKPa',
    words: ['pressure switch', 'air switch', 'oil switch', 'vacuum switch'],
  },
  traits: traits({ fluid: true, contact: true, carries: true }),
  accessMinutes: 1.2,
  odds: { stuckOpen: 0.6, stuckClosed: 0.4, highResistance: 0.4, drifted: 0.4 },
  branches: (part) => [body(part, part.ohms ?? CONTACT_OHMS), seal(part.nodes.port)],
  fluidEnd: (key) => key === 'port',
  devices: ({ nodes, makeKPa, breakKPa }, { index }, { compiled: { nodeIndex } }) => [
    { kind: 'pressureSwitch', part: index, port: nodeIndex.get(nodes.port)!, makeKPa, breakKPa },
  ],
  faults: ({ add, part, series }) => {
    const contact = part.branches[0]!;
    add('highResistance', series(contact), [worsened(contact)]);
    add('stuckOpen', null, [forced(contact, false)]);
    add('stuckClosed', null, [forced(contact, true)]);
    add('drifted', DRIFT, [
      { weight: 1, edits: (factor) => [{ type: 'threshold', part: part.index, factor }] },
    ]);
  },
  energy: nothing,
  labelled: { makeKPa: { saidBy: ['makeKPa', 'kPa'] }, breakKPa: { follows: 'makeKPa' } },
  make: ({ common, two, ref, given }) => {
    const makeKPa = given.figures.makeKPa ?? given.figures.kPa ?? 400;
    return {
      part: {
        ...common,
        kind: 'pressureSwitch',
        nodes: { ...two, port: `${ref}:P` },
        makeKPa,
        breakKPa: round(0.75 * makeKPa),
        contact: given.normallyClosed ? 'NC' : 'NO',
      },
    };
  },
});
