import { kindOf } from '../kinds/part';
import { InputError } from '../circuit/inputError';
import { CircuitModel } from '../circuit/model';
import type { Reading, Test } from '../circuit/schema';
import { isDeadKind } from '../circuit/testPlace';
import { listCandidateTests } from '../diagnosis/candidateTests';
import { cautionsOf } from '../diagnosis/cautionsOf';
import { Diagnoser } from '../diagnosis/diagnose';
import { listFaults } from '../diagnosis/faults';
import { workingPatterns } from '../diagnosis/patterns';
import { bindTest, predict, predictedValue, type BoundTest } from '../diagnosis/predict';
import type { Prediction } from '../diagnosis/prediction';
import { seededRandom } from '../random';
import { rewriteCircuit } from '../testing/rewriteCircuit';
import { TEMPLATES } from './templates';

const circuits = TEMPLATES.map(({ id, build }) => [id, build()] as const);

describe('the templates', () => {
  it('are many, with ids of their own', () => {
    expect(TEMPLATES.length).toBeGreaterThanOrEqual(24);
    expect(new Set(TEMPLATES.map(({ id }) => id)).size).toBe(TEMPLATES.length);
  });

  it.each(TEMPLATES)('$id takes other values than its own', ({ build }) => {
    const volts = { volts: 30 };
    expect(() => new CircuitModel(build(volts))).not.toThrow();
  });
});

describe.each(circuits)('%s', (_id, circuit) => {
  const model = new CircuitModel(circuit);

  it('works when sound: every load runs in some position, no fuse blows, nothing chatters', () => {
    const works = new Set<string>();
    for (const { setup, loads, driven } of workingPatterns(model)) {
      const world = model.situation(setup).solve({ mode: 'live' });
      expect(world.chatters).toBe(false);
      for (const load of world.fuseLoad) expect(load).toBeLessThan(1);
      for (const ref of [...loads, ...driven]) {
        const { kind } = model.compiled.parts[model.compiled.partIndex.get(ref)!]!.part;
        if (kind === 'resistor') continue;
        const test: Test = { kind: kind === 'relay' ? 'click' : 'function', part: ref, setup };
        const value = predictedValue(test.kind, predict(bindTest(model, test), []));
        if (value === 'works' || value === true) works.add(ref);
      }
    }
    for (const { kind, ref } of circuit.parts) {
      const does = kindOf({ kind }).traits.draws || kindOf({ kind }).traits.actuator;
      if (does && kind !== 'resistor') expect(works).toContain(ref);
    }
  });

  it('answers every fault as the circuit rewritten with that fault does', () => {
    const random = seededRandom(circuit.parts.length);
    const { tests } = listCandidateTests(model);
    let compared = 0;
    for (const fault of listFaults(model)) {
      const { severity, variants, ref } = fault;
      const size = severity ? severity.least * (severity.mainMost / severity.least) ** random.next() : 1;
      const plain = rewriteCircuit(circuit, ref, fault.fault, size);
      if (!plain) continue;
      const other = soundModel(plain);
      if (!other) continue;
      for (let round = 0; round < 12; round++) {
        const { bound } = tests[Math.floor(random.next() * tests.length)]!;
        if (!comparable(bound.test, ref)) continue;
        const again = boundIn(other, bound.test);
        if (!again) continue;
        compared++;
        expectAlike(bound.test.kind, predict(bound, variants[0]!.edits(size)), predict(again, []));
      }
    }
    expect(compared).toBeGreaterThan(20);
  });

  it('answers two faults at once, in either order, as the circuit rewritten with both does', () => {
    const random = seededRandom(circuit.parts.length);
    const { tests } = listCandidateTests(model);
    const faults = listFaults(model);
    const pick = <T>(list: readonly T[]) => list[Math.floor(random.next() * list.length)]!;
    let compared = 0;
    for (let round = 0; round < 400; round++) {
      const [one, two, { bound }] = [pick(faults), pick(faults), pick(tests)];
      const [size, other] = [one, two].map(({ severity }) =>
        severity ? severity.least * (severity.mainMost / severity.least) ** random.next() : 1,
      ) as [number, number];
      if (one.part === two.part || !comparable(bound.test, one.ref) || !comparable(bound.test, two.ref))
        continue;
      const first = [one.variants[0]!.edits(size), two.variants[0]!.edits(other)];
      const [fast, turned] = [predict(bound, first.flat()), predict(bound, first.reverse().flat())];
      expectAlike(bound.test.kind, fast, turned);
      const half = rewriteCircuit(circuit, one.ref, one.fault, size);
      const plain =
        half &&
        half.parts.some(({ ref }) => ref === two.ref) &&
        rewriteCircuit(half, two.ref, two.fault, other);
      const again = plain && soundModel(plain);
      const slow = again && boundIn(again, bound.test);
      if (!slow) continue;
      compared++;
      expectAlike(bound.test.kind, fast, predict(slow, []));
    }
    expect(compared).toBeGreaterThan(10);
  });

  it('never offers what is not allowed', () => {
    for (const { bound } of listCandidateTests(model).tests) {
      const { test, solver } = bound;
      const cautions = cautionsOf(model, test);
      if (isDeadKind(test.kind) && 'from' in test) {
        const { changed } = solver.solve({ mode: 'live' });
        const volts = changed.pairVolts(
          model.compiled.nodeIndex.get(test.from)!,
          model.compiled.nodeIndex.get(test.to)!,
        );
        expect(Math.abs(volts) > 0.05).toBe(false);
        expect(cautions).toContain('powerOff');
      }
      if (test.setup.jumpers) expect(test.setup.jumpers).toHaveLength(0);
      const holds = circuit.parts.some((part) => part.kind === 'coil' && part.holdsLoad);
      if (holds && (test.setup.unplugged || test.setup.pulled || test.setup.isolated)) {
        expect(test.setup.secured).toContain('Y1');
        expect(cautions).toContain('heldLoad');
      }
    }
  });

  it('leads from a complaint to a hidden fault by its own advice', () => {
    const diagnoser = new Diagnoser(circuit);
    // An open suppression diode has no symptom: nobody would complain.
    const candidates = diagnoser.faults.filter(
      ({ fault, part }) =>
        ['open', 'stuckAtRest', 'lowPressure'].includes(fault) && circuit.parts[part]!.kind !== 'diode',
    );
    const hidden = candidates[Math.floor(candidates.length / 2)]!;
    const edits = hidden.variants[0]!.edits(0.2);
    const read = (test: Test): Reading => {
      const prediction = predict(bindTest(diagnoser.model, test), edits);
      return { ...test, value: predictedValue(test.kind, prediction) } as Reading;
    };
    const readings: Reading[] = [];
    for (const { setup, loads, driven } of workingPatterns(diagnoser.model)) {
      for (const part of circuit.parts) {
        const does = loads.includes(part.ref) && part.kind !== 'relay' && part.kind !== 'resistor';
        if (does || driven.includes(part.ref))
          readings.push(read({ kind: 'function', part: part.ref, setup }));
      }
    }
    for (let step = 0; step < 14; step++) {
      const { verdict, next } = diagnoser.diagnose(readings, { most: 1 });
      if (verdict.state === 'name') {
        expect([hidden.ref, hidden.other]).toContain(verdict.part);
        return;
      }
      expect(next.length).toBeGreaterThan(0);
      readings.push(read(next[0]!.test));
    }
    const { suspects } = diagnoser.diagnose(readings, { most: 1 });
    expect(suspects.slice(0, 3).map(({ part }) => part)).toContain(hidden.ref);
  });
});

function expectAlike(kind: Test['kind'], one: Prediction, other: Prediction): void {
  if (one.type === 'number' && other.type === 'number') {
    if (one.mean === Infinity || other.mean === Infinity) expect(one.mean).toBe(other.mean);
    else expect(Math.abs(one.mean - other.mean)).toBeLessThan(1.5e-4 * (1 + Math.abs(other.mean)));
  } else expect(predictedValue(kind, one)).toEqual(predictedValue(kind, other));
}

/** The rewritten circuit opened; null where a part taken out leaves nothing to stand on. */
function soundModel(circuit: Parameters<typeof rewriteCircuit>[0]): CircuitModel | null {
  try {
    return new CircuitModel(circuit);
  } catch (error) {
    if (error instanceof InputError) return null;
    throw error;
  }
}

/** Readings judged against the healthy machine, or on a part that a set-up takes out, mean another thing there. */
function comparable({ kind, setup }: Test, ref: string): boolean {
  if (['function', 'moves', 'flow'].includes(kind)) return false;
  const touched = [...(setup.pulled ?? []), ...(setup.isolated ?? []), ...(setup.removed ?? [])];
  const lifted = (setup.lifted ?? []).map(({ part }) => part);
  const pins = (setup.unplugged ?? []).some((connector) => ref.startsWith(`${connector}.`));
  const swapped = (setup.swapped ?? []).flat();
  return !pins && ![...touched, ...lifted, ...swapped, ...(setup.energised ?? [])].includes(ref);
}

function boundIn(model: CircuitModel, test: Test): BoundTest | null {
  try {
    return bindTest(model, test);
  } catch (error) {
    if (error instanceof InputError) return null;
    throw error;
  }
}
