import { demoCircuit } from '@/testing/demoCircuits';
import type { Circuit, Reading } from '../circuit/schema';
import { CircuitModel } from '../circuit/model';
import { Diagnoser } from './diagnose';
import { learnFromTwins } from './learnFromTwins';
import { gatherObservations } from './observations';

/** Four coils that nobody wrote ohms on. */
function unknownCoils(): Circuit {
  const circuit = structuredClone(demoCircuit('groomer-comb-flaps'));
  for (const part of circuit.parts) if (part.kind === 'coil') delete part.ohms;
  return circuit;
}
const model = new CircuitModel(unknownCoils());
const dead = { pulled: ['F21'], unplugged: ['X50'] };
const ohms = (coil: string, value: number | 'OL', setup: object = dead): Reading =>
  ({ kind: 'ohms', from: `${coil}:1`, to: 'Y50:2', setup, value }) as Reading;
const learnt = (...readings: Reading[]) =>
  Object.fromEntries(
    [...learnFromTwins(model, gatherObservations(model, readings))].map(([part, { ohms }]) => [part, ohms]),
  );

describe('ohms that nobody has said', () => {
  it('are taken from a twin that was read alone; a coil teaches itself nothing', () => {
    expect(learnt(ohms('Y51', 21.4))).toEqual({ Y52: 21.4, Y53: 21.4, Y54: 21.4 });
  });
  it('of several twins the middle one', () => {
    expect(learnt(ohms('Y51', 21.4), ohms('Y52', 21.8), ohms('Y53', 9))['Y54']).toBe(21.4);
  });
  it('over range, and where nothing was read, teach nothing', () => {
    expect(learnt(ohms('Y51', 'OL'))).toEqual({});
    expect(learnt()).toEqual({});
  });
  it('a shorted twin teaches nothing: it has no ohms of its own left', () => {
    expect(learnt(ohms('Y51', 0))).toEqual({});
    expect(learnt(ohms('Y51', 0.06), ohms('Y52', 21.8))['Y54']).toBe(21.8);
    const { suspects } = new Diagnoser(unknownCoils()).diagnose([ohms('Y51', 0)]);
    expect(suspects.every(({ share }) => Number.isFinite(share))).toBe(true);
  });
  it('where the ohms stand on the drawing there is nothing to learn', () => {
    const known = new CircuitModel(demoCircuit('groomer-comb-flaps'));
    expect(learnFromTwins(known, gatherObservations(known, [ohms('Y51', 21.4)])).size).toBe(0);
  });
});
