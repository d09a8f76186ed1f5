import type { PartOf } from '../../circuit/partSchema';
import { definePart, nothing, round, traits } from './module';
import { LOW_SUPPLY } from './ranges';

export const transformer = definePart<'transformer'>()({
  chain: { letter: 'T', figure: 'secondaryVolts', words: ['control transformer', 'transformer'] },
  traits: traits({ unit: true }),
  accessMinutes: 1,
  odds: { open: 0.6, lowVoltage: 0.2 },
  // Two windings that are coupled: the solver holds them as a unit of their own.
  branches: () => [],
  faults: ({ add, part }) => {
    add('open', null, [
      { weight: 1, edits: () => [{ type: 'transformer', part: part.index, ohms: Infinity }] },
    ]);
    add('lowVoltage', LOW_SUPPLY, [
      { weight: 1, edits: (factor) => [{ type: 'transformer', part: part.index, factor }] },
    ]);
  },
  energy: nothing,
  labelled: { ratio: { saidBy: ['secondaryVolts', 'volts'] }, va: { saidBy: ['va'] } },
  make: ({ common, given: { figures }, near, far, frame, ref, volts }) => {
    const secondary = figures.secondaryVolts ?? figures.volts ?? 24;
    const primary = figures.primaryVolts ?? volts;
    return {
      part: {
        ...common,
        kind: 'transformer',
        nodes: { p1: near, p2: frame, s1: far, s2: `${ref}:s2` },
        ratio: round(primary / secondary),
        va: figures.va ?? 40,
      },
    };
  },
});

/** Copper resistance at the secondary giving about 10 % regulation at the rated load; a small control unit when unrated. */
export function transformerOhms(part: PartOf<'transformer'>, supplyVolts: number): number {
  const secondary = Math.max(supplyVolts / part.ratio, 1);
  return (0.1 * secondary * secondary) / (part.va ?? 50);
}
