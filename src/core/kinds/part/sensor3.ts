import type { Branch } from '../../circuit/compile';
import { broken } from '../../diagnosis/faultTypes';
import { LOAD_TOLERANCE } from './branch';
import { definePart, nothing, traits } from './module';

/** Places along its way where a wiper may be stuck. */
const STUCK_AT = [0.15, 0.5, 0.85];

export const sensor3 = definePart<'sensor3'>()({
  chain: {
    letter: 'B',
    figure: 'ohms',
    words: ['position sensor', 'three-wire sensor', '3-wire sensor', 'sensor', 'potentiometer'],
  },
  traits: traits({ electronic: true, falls: true, unit: true }),
  accessMinutes: 1.5,
  odds: { open: 0.6, short: 0.2, stuck: 0.3 },
  branches: (part) => {
    const wiper = `${part.ref}:wiper`;
    const tolerance = part.tolerance ?? LOAD_TOLERANCE;
    return [
      { role: 'upper', from: part.nodes.supply, to: wiper, ohms: part.ohms / 2, tolerance },
      { role: 'lower', from: wiper, to: part.nodes.return, ohms: part.ohms / 2, tolerance },
      { role: 'wiper', from: wiper, to: part.nodes.signal, ohms: Math.max(1, part.ohms / 100) },
    ];
  },
  faults: ({ add, part }) => {
    const [upper, lower, wiper] = part.branches as [Branch, Branch, Branch];
    add('open', null, [broken(upper), broken(lower), broken(wiper)]);
    add('short', null, [
      { weight: 1, edits: () => [{ type: 'ohms', branch: upper.index, ohms: 1 }] },
      { weight: 1, edits: () => [{ type: 'ohms', branch: lower.index, ohms: 1 }] },
    ]);
    add(
      'stuck',
      null,
      STUCK_AT.map((at) => ({
        weight: 1,
        edits: () => [
          { type: 'ohms' as const, branch: upper.index, ohms: (upper.ohms + lower.ohms) * (1 - at) },
          { type: 'ohms' as const, branch: lower.index, ohms: (upper.ohms + lower.ohms) * at },
        ],
      })),
    );
  },
  energy: nothing,
  labelled: { ohms: { saidBy: ['ohms'] } },
  make: ({ common, near, far, ref, given, controls: known, worked }) => {
    const { closedWhen, controls } = worked('position');
    const control = Object.keys(closedWhen)[0]!;
    const positions = given.when || known[control] ? controls[control]! : ['in', 'middle', 'out'];
    return {
      part: {
        ...common,
        kind: 'sensor3',
        nodes: { supply: near, signal: `${ref}:S`, return: far },
        ohms: given.figures.ohms ?? 4700,
        control,
      },
      controls: { ...controls, [control]: positions },
    };
  },
});
