import { forced } from '../../diagnosis/faultTypes';
import { ATMOSPHERE } from './branch';
import { definePart, nothing, traits } from './module';
import { LOW_PRESSURE } from './ranges';

/** Pressure lost per flow when the file gives none, kPa per L/min: linearised at working flow. */
const RESTRICTION = 0.05;
const TOLERANCE = 0.03;

export const regulator = definePart<'regulator'>()({
  chain: { letter: 'Z', figure: 'kPa', words: ['regulator'] },
  traits: traits({ fluid: true }),
  accessMinutes: 0.3,
  odds: { lowPressure: 0.5, blocked: 0.3 },
  branches: ({ nodes: { in: from, out: to }, restriction, kPa }) => {
    const ohms = restriction ?? RESTRICTION;
    return [
      // While it regulates it is a source of its set pressure; what it draws from its inlet is neglected.
      { role: 'body', fluid: true, from: to, to: ATMOSPHERE, ohms, emf: -kPa, emfTolerance: TOLERANCE },
      { role: 'wideOpen', fluid: true, from, to, ohms },
    ];
  },
  devices: ({ nodes, kPa }, { index }, { compiled: { nodeIndex } }) => [
    {
      kind: 'regulator',
      part: index,
      inlet: nodeIndex.get(nodes.in)!,
      outlet: nodeIndex.get(nodes.out)!,
      kPa,
    },
  ],
  faults: ({ add, part, body }) => {
    add('lowPressure', LOW_PRESSURE, [
      { weight: 1, edits: (factor) => [{ type: 'emf', branch: body.index, factor }] },
    ]);
    add('blocked', null, [
      { weight: 1, edits: () => part.branches.flatMap((branch) => forced(branch, false).edits(1)) },
    ]);
  },
  energy: nothing,
  labelled: { kPa: { saidBy: ['kPa'] } },
  make: ({ common, near, far, given }) => ({
    part: { ...common, kind: 'regulator', nodes: { in: near, out: far }, kPa: given.figures.kPa ?? 600 },
  }),
});
