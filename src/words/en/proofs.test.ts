import { CircuitModel } from '@/core/circuit/model';
import type { Circuit } from '@/core/circuit/schema';
import { proofList } from '@/core/job/proofList';
import { reduceJob } from '@/core/job/reduceJob';
import { findLanes } from '@/core/path/lanes';
import { demoCircuit } from '@/testing/demoCircuits';
import { proofWords } from './proofs';

const speakerOf = (circuit: Circuit) => {
  const model = new CircuitModel(circuit);
  return { model, lanes: findLanes(model), gaugeUnit: 'bar' as const };
};

describe('what is asked to be shown', () => {
  it.each([
    ['press-clamp', 'C1', /soapy water at its joints, each position$/],
    ['groomer-tiller-lift', 'C1', /never felt for by hand, each position$/],
    ['heater-flap', 'Q1', /the gauge stays for a minute; no water at its joints/],
  ])('that a joint is tight, in the way of what flows: %s', (name, part, words) => {
    expect(proofWords(speakerOf(demoCircuit(name)), { id: 'tight', kind: 'tight', part })).toMatch(words);
  });

  it.each([
    ['Q1', '3', 'Line back on Q1:3'],
    ['Y1', '1', 'Wire back on Y1:1'],
    ['X9', 'left', 'Wire back on X9:left'],
  ])('that what came off %s:%s is back, by what it is', (part, terminal, words) => {
    const proof = { id: 'back', kind: 'wire', part, terminal } as const;
    expect(proofWords(speakerOf(demoCircuit('press-clamp')), proof)).toBe(words);
  });

  it('that what a pressure switch lets work stops without its pressure', () => {
    const speaker = speakerOf(demoCircuit('dryer-air-switch'));
    const proof = proofList(speaker.model, reduceJob([])).find(({ kind }) => kind === 'withoutPressure')!;
    expect(proofWords(speaker, proof)).toBe(
      'Y1 heater contactor coil lets go with P0 dryer fan shut and vented, heat on',
    );
  });
});
