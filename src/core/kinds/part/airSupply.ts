import { broken } from '../../diagnosis/faultTypes';
import { ATMOSPHERE } from './branch';
import { definePart, traits } from './module';
import { LOW_PRESSURE } from './ranges';

/** Pressure lost per flow when the file gives none, kPa per L/min: linearised at working flow. */
const RESTRICTION = 0.05;
const TOLERANCE = 0.04;

export const airSupply = definePart<'airSupply'>()({
  chain: {
    letter: 'P',
    figure: 'kPa',
    words: ['air supply', 'air main', 'compressor', 'vacuum pump', 'air', 'vacuum'],
  },
  traits: traits({ fluid: true, supply: true }),
  accessMinutes: 0.3,
  odds: { noOutput: 0.5, lowPressure: 0.8 },
  branches: ({ nodes, restriction, kPa }) => [
    {
      role: 'body',
      fluid: true,
      from: nodes.out,
      to: ATMOSPHERE,
      ohms: restriction ?? RESTRICTION,
      emf: -kPa,
      emfTolerance: TOLERANCE,
    },
  ],
  faults: ({ add, body }) => {
    add('noOutput', null, [broken(body)]);
    add('lowPressure', LOW_PRESSURE, [
      { weight: 1, edits: (factor) => [{ type: 'emf', branch: body.index, factor }] },
    ]);
  },
  energy: ({ kPa }) => (kPa < 0 ? 'vacuum' : 'air'),
  make: ({ common, far, given }) => {
    const vacuum = /vacuum/i.test(given.typed);
    const kPa = given.figures.kPa ?? (vacuum ? 60 : 700);
    return {
      part: { ...common, kind: 'airSupply', nodes: { out: far }, kPa: vacuum ? -Math.abs(kPa) : kPa },
    };
  },
});
