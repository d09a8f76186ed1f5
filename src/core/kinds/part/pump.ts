import { broken } from '../../diagnosis/faultTypes';
import { ATMOSPHERE } from './branch';
import { definePart, traits } from './module';
import { LOW_PRESSURE } from './ranges';

/** Pressure lost per flow when the file gives none, kPa per L/min: linearised at working flow. */
const RESTRICTION = 0.05;
const TOLERANCE = 0.04;

export const pump = definePart<'pump'>()({
  chain: { letter: 'P', figure: 'kPa', words: ['oil pump', 'pump'] },
  traits: traits({ fluid: true, supply: true }),
  accessMinutes: 0.5,
  odds: { noOutput: 0.4, lowPressure: 0.6 },
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
  energy: ({ kPa }) => (kPa < 0 ? 'vacuum' : 'oil'),
  make: ({ common, far, given }) => {
    return { part: { ...common, kind: 'pump', nodes: { out: far }, kPa: given.figures.kPa ?? 18_000 } };
  },
});
