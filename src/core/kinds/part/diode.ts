import { bridged, forced } from '../../diagnosis/faultTypes';
import { definePart, nothing, traits } from './module';
import { SHORT_OHMS } from './ranges';

const DIODE_ON_OHMS = 0.05;
const SILICON_VOLTS = 0.7;

export const diode = definePart<'diode'>()({
  chain: { letter: 'V', figure: 'forwardVolts', words: ['suppressor', 'diode'] },
  traits: traits({}),
  accessMinutes: 1.5,
  odds: { open: 0.2, short: 0.5, reversed: 0.1 },
  branches: ({ nodes, forwardVolts }) => [
    {
      role: 'body',
      from: nodes.anode,
      to: nodes.cathode,
      ohms: DIODE_ON_OHMS,
      emf: -(forwardVolts ?? SILICON_VOLTS),
    },
  ],
  devices: ({ forwardVolts }, { branches }) => [
    { kind: 'diode', branch: branches[0]!.index, volts: forwardVolts ?? SILICON_VOLTS, from: -1 },
  ],
  faults: ({ add, body: own }) => {
    add('open', null, [forced(own, false)]);
    add('short', null, [{ weight: 1, edits: () => bridged(own).edits(SHORT_OHMS) }]);
    add('reversed', null, [{ weight: 1, edits: () => [{ type: 'reverse', branch: own.index }] }]);
  },
  energy: nothing,
  labelled: {},
  make: ({ common, near, far }) => ({
    part: { ...common, kind: 'diode', nodes: { anode: near, cathode: far } },
  }),
});
