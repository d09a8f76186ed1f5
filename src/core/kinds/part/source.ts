import { areLineVolts } from '../../safety/lineVolts';
import { broken } from '../../diagnosis/faultTypes';
import { definePart, traits } from './module';
import { LOW_SUPPLY } from './ranges';

const SOURCE_OHMS = 0.02;
const SOURCE_TOLERANCE = 0.04;

export const source = definePart<'source'>()({
  chain: {
    letter: 'G',
    figure: 'volts',
    words: ['battery', 'line supply', 'supply', 'source', 'line', 'mains', 'charger'],
  },
  traits: traits({ supply: true }),
  accessMinutes: 0.5,
  odds: { noOutput: 0.4, lowVoltage: 0.4 },
  branches: (part) => [
    {
      role: 'body',
      from: part.nodes['+'],
      to: part.nodes['-'],
      ohms: part.internalOhms ?? SOURCE_OHMS,
      emf: -part.volts,
      emfTolerance: SOURCE_TOLERANCE,
    },
  ],
  faults: ({ add, body }) => {
    add('noOutput', null, [broken(body)]);
    add('lowVoltage', LOW_SUPPLY, [
      { weight: 1, edits: (factor) => [{ type: 'emf', branch: body.index, factor }] },
    ]);
  },
  // By the volts first: no word makes a line supply a battery.
  energy: ({ volts, hz, supplies }) =>
    areLineVolts(volts) ? 'line' : (supplies ?? ((hz ?? 0) > 0 ? 'control' : 'battery')),
  labelled: { volts: { saidBy: ['volts'] } },
  make: ({ common, given, near, far }) => {
    const hz = given.figures.hz ?? (/line|mains/i.test(given.typed) ? 60 : 0);
    return {
      part: {
        ...common,
        label: given.label || (hz > 0 ? 'Line supply' : 'Battery'),
        kind: 'source',
        nodes: { '+': far, '-': near },
        volts: given.figures.volts ?? (hz > 0 ? 120 : 12.6),
        internalOhms: hz > 0 ? 0.2 : 0.02,
        ...(hz > 0 ? { hz } : {}),
      },
    };
  },
});
