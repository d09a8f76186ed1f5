import type { PartOf } from '../../circuit/partSchema';
import { conductorOhms, gaugeArea } from '../../circuit/wireGauge';
import { broken, worsened } from '../../diagnosis/faultTypes';
import { body } from './branch';
import { definePart, nothing, traits } from './module';

const WIRE_OHMS = 0.02;

export const wire = definePart<'wire'>()({
  chain: { letter: 'W', figure: 'ohms', words: ['wire', 'cable', 'lead', 'core', 'strap'] },
  traits: traits({ carries: true }),
  accessMinutes: 1.5,
  // A short between two wires of a bundle, or to a live feed, is no fault of one part: `pairFaults` adds it with these odds.
  odds: {
    open: 0.6,
    highResistance: 0.5,
    shortToFrame: 0.4,
    weakInsulation: 0.2,
    shortBetween: 0.2,
    shortToSupply: 0.15,
  },
  branches: (part) => [body(part, ohmsOf(part))],
  faults: ({ add, body: own, frame, series, leakRange, leaks, weakRange, weakSpots, bondedFactor }) => {
    add('open', null, [broken(own)]);
    add('highResistance', series(own), [worsened(own)]);
    // A wire that is the frame bond itself cannot leak to the frame.
    if (own.a === frame && own.b === frame) return;
    const factor = bondedFactor(own);
    add('shortToFrame', leakRange(own), leaks(own), { factor });
    add('weakInsulation', weakRange(own), weakSpots(own), { factor });
  },
  energy: nothing,
  labelled: {},
  make: ({ common, two, given: { figures, colour } }) => {
    const { mm2, awg, lengthMetres } = figures;
    const sized = lengthMetres !== undefined && (mm2 !== undefined || awg !== undefined);
    return {
      part: {
        ...common,
        kind: 'wire',
        nodes: two,
        ...(mm2 === undefined ? {} : { mm2 }),
        ...(awg === undefined ? {} : { awg }),
        ...(lengthMetres === undefined ? {} : { lengthMetres }),
        ...(figures.ohms !== undefined || !sized ? { ohms: figures.ohms ?? 0.04 } : {}),
        ...(colour ? { colour } : {}),
      },
    };
  },
});

function ohmsOf(part: PartOf<'wire'>): number {
  if (part.ohms !== undefined) return part.ohms;
  const area = part.mm2 ?? (part.awg === undefined ? undefined : gaugeArea(part.awg));
  if (part.lengthMetres === undefined || area === undefined) return WIRE_OHMS;
  return conductorOhms(part.lengthMetres, area);
}
