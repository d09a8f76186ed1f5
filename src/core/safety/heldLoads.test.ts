import { CircuitModel } from '../circuit/model';
import type { Circuit } from '../circuit/schema';
import { listCandidateTests } from '../diagnosis/candidateTests';
import { cautionsOf } from '../diagnosis/cautionsOf';
import { brakeRelease, singleCoil } from '../templates/electrical';
import { springCylinder } from '../templates/fluid';
import { freedLoads } from './heldLoads';

const brake = new CircuitModel(brakeRelease());
const RUN = { controls: { drive: 'running', guard: 'closed' } };

/** A circuit whose part has a load on it. */
function loaded(circuit: Circuit, ref: string): CircuitModel {
  const parts = circuit.parts.map((part) => (part.ref === ref ? { ...part, holdsLoad: true } : part));
  return new CircuitModel({ ...circuit, parts: parts as Circuit['parts'] });
}

describe('a brake that a spring applies', () => {
  it('is freed by current, in whatever way it comes, and holds when everything is taken away', () => {
    expect(freedLoads(brake, RUN)).toEqual([{ ref: 'Y1', by: 'fed' }]);
    expect(freedLoads(brake, { isolated: ['G1'], energised: ['Y1'] })).toEqual([{ ref: 'Y1', by: 'fed' }]);
    for (const setup of [{}, { pulled: ['F1'] }, { isolated: ['G1'] }, { ...RUN, unplugged: ['X1'] }])
      expect(freedLoads(brake, setup)).toEqual([]);
  });

  it('stands blocked in every test that feeds it, and says so', () => {
    const { tests } = listCandidateTests(brake);
    const fed = tests.filter(
      ({ bound: { drive, test } }) =>
        drive.mode === 'live' && freedLoads(brake, { ...test.setup, secured: [] }).length > 0,
    );
    expect(fed.length).toBeGreaterThan(5);
    for (const { bound } of fed) {
      expect(bound.test.setup.secured).toEqual(['Y1']);
      expect(cautionsOf(brake, bound.test)).toContain('freedLoad');
    }
  });
});

describe('a load that hangs on a coil or on pressure', () => {
  it('is let go when its coil’s run is taken apart, not by the operator’s own hand', () => {
    const coil = loaded(singleCoil(), 'Y1');
    expect(freedLoads(coil, { pulled: ['F1'] })).toEqual([{ ref: 'Y1', by: 'cut' }]);
    expect(freedLoads(coil, { pulled: ['F1'], secured: ['Y1'] })).toEqual([]);
    expect(freedLoads(coil, { controls: { key: 'off' } })).toEqual([]);
    expect(freedLoads(new CircuitModel(singleCoil()), { pulled: ['F1'] })).toEqual([]);
  });

  it('is let go when a line, a valve or a supply of its actuator is touched', () => {
    const cylinder = loaded(springCylinder(), 'C1');
    for (const setup of [{ open: ['C:A'] }, { override: ['Q1'] }, { isolated: ['P0'] }]) {
      expect(freedLoads(cylinder, setup)).toEqual([{ ref: 'C1', by: 'pressure' }]);
      expect(cautionsOf(cylinder, { kind: 'moves', part: 'C1', setup })).toContain('pressedLoad');
    }
    expect(freedLoads(cylinder, { controls: { switch: 'on' } })).toEqual([]);
  });
});
