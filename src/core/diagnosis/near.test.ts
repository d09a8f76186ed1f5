import { demoCircuit } from '@/testing/demoCircuits';
import { CircuitModel } from '../circuit/model';
import { Diagnoser } from './diagnose';
import { listCandidateTests } from './candidateTests';
import { doubtedParts, nearOf } from './near';
import type { WeighedFault } from './weighed';

const circuit = demoCircuit('groomer-comb-flaps');
const model = new CircuitModel(circuit);
const { faults } = new Diagnoser(circuit);
const at = (ref: string) => model.compiled.partIndex.get(ref)!;
const refs = (parts: ReadonlySet<number>) =>
  [...parts].map((part) => model.compiled.parts[part]!.part.ref).sort();

/** Doubt by part, all of it on the part's first fault. */
const doubt = (shares: Record<string, number>): WeighedFault[] =>
  Object.entries(shares).map(([ref, share]) => ({
    fault: faults.find(({ part }) => part === at(ref))!,
    share,
    points: [],
    fits: [],
    intermittent: 0,
  }));

describe('where tests are looked for', () => {
  it('at what is doubted, and not at what has less than a thousandth of the doubt', () => {
    expect(refs(doubtedParts(model, doubt({ Y52: 0.6, W212: 0.4, Y54: 1e-5 })))).toEqual(['W212', 'Y52']);
  });
  it('spread thin, none is left out: the least of many alike is as good as the best', () => {
    const all = Object.fromEntries(model.compiled.parts.map(({ part }) => [part.ref, 1e-4]));
    delete all['G1'];
    const known = Object.keys(all).filter((ref) => faults.some(({ part }) => part === at(ref)));
    const shares = Object.fromEntries(known.map((ref) => [ref, 1e-4]));
    expect(refs(doubtedParts(model, doubt(shares)))).toEqual([...known].sort());
  });
  it('nothing doubted, nothing looked at', () => {
    expect(doubtedParts(model, []).size).toBe(0);
  });
  it('what lies right beside it counts too; a bus that joins everything brings nothing', () => {
    const near = nearOf(model, new Set([at('W212')]));
    expect(near.part(at('X50.2'))).toBe(true);
    expect(near.part(at('DQ2'))).toBe(true);
    expect(near.part(at('Y54'))).toBe(false);
    const node = (name: string) => model.compiled.nodeIndex.get(name)!;
    expect(near.node(node('X50:2'))).toBe(true);
    expect(near.node(node('X50:3'))).toBe(false);
    // Four coils share their common: the doubt of one does not bring the others.
    expect(nearOf(model, new Set([at('Y51')])).part(at('Y52'))).toBe(false);
  });
  it('a plan about a few parts holds tests on them, and is shorter than the plan of all', () => {
    const all = listCandidateTests(model).tests;
    const parts = new Set([at('W212'), at('Y52')]);
    const few = listCandidateTests(model, {}, { parts, setups: [] }).tests;
    expect(few.length).toBeGreaterThan(0);
    expect(few.length).toBeLessThan(all.length);
    const keys = new Set(all.map(({ key }) => key));
    expect(few.filter(({ bound }) => bound.test.kind === 'ohms').every(({ key }) => keys.has(key))).toBe(
      true,
    );
  });
});
