import { CircuitModel } from '../circuit/model';
import type { Reading } from '../circuit/schema';
import { seededRandom } from '../random';
import { TEMPLATES } from '../templates/templates';
import { Diagnoser, type Diagnosis } from './diagnose';
import { faultByName } from './faults';
import type { CandidateFault } from './faultTypes';
import { workingPatterns } from './patterns';
import { bindTest, predict, predictedValue } from './predict';

/** What the program says at every step on the way from a complaint to a name. */
const CIRCUITS = ['single-coil', 'two-way-pair', 'spring-cylinder'];
const FAULTS_EACH = 5;
const MOST_READINGS = 9;

interface Way {
  id: string;
  hidden: CandidateFault;
  diagnoser: Diagnoser;
  steps: { readings: Reading[]; diagnosis: Diagnosis }[];
}

/** What a machine with a fault in it answers to a test, without noise. */
function answer(diagnoser: Diagnoser, fault: CandidateFault, test: object): Reading {
  const bound = bindTest(diagnoser.model, test as Reading);
  const { severity } = faultByName(diagnoser.faults, fault.ref, fault.fault);
  const prediction = predict(bound, fault.variants[0]!.edits(severity));
  return { ...test, value: predictedValue(bound.test.kind, prediction) } as Reading;
}

function follow(id: string, hidden: CandidateFault, diagnoser: Diagnoser): Way {
  const { model } = diagnoser;
  const readings: Reading[] = workingPatterns(model).flatMap(({ setup, loads }) =>
    loads
      .filter((ref) => model.compiled.circuit.parts.find((one) => one.ref === ref)!.kind === 'coil')
      .map((part) => answer(diagnoser, hidden, { kind: 'function', part, setup })),
  );
  const steps: Way['steps'] = [];
  for (let taken = 0; taken <= MOST_READINGS; taken++) {
    const diagnosis = diagnoser.diagnose(readings, { most: 3 });
    steps.push({ readings: [...readings], diagnosis });
    const next = diagnosis.next[0];
    if (diagnosis.verdict.state === 'name' || !next) break;
    readings.push(answer(diagnoser, hidden, next.test));
  }
  return { id, hidden, diagnoser, steps };
}

const WAYS = CIRCUITS.flatMap((id) => {
  const diagnoser = new Diagnoser(TEMPLATES.find((one) => one.id === id)!.build());
  const random = seededRandom(17);
  const list = diagnoser.faults.filter(({ other }) => other === undefined);
  return Array.from({ length: FAULTS_EACH }, () =>
    follow(id, list[Math.floor(random.next() * list.length)]!, diagnoser),
  );
});
const EVERY = WAYS.flatMap(({ steps }) => steps);

describe('on the way from a complaint to a name', () => {
  it('all doubt is always shared out', () => {
    for (const { diagnosis } of EVERY) {
      const total = diagnosis.suspects.reduce((sum, { share }) => sum + share, diagnosis.noFault);
      expect(total).toBeCloseTo(1, 6);
      const shares = diagnosis.suspects.map(({ share }) => share);
      expect(shares).toEqual(shares.toSorted((a, b) => b - a));
    }
  });

  it('a part is named on nine tenths and two readings, one of them on the part, none of them the complaint', () => {
    const named = EVERY.filter(({ diagnosis }) => diagnosis.verdict.state === 'name');
    expect(named.length).toBeGreaterThan(WAYS.length / 2);
    for (const { diagnosis, readings } of named) {
      if (diagnosis.verdict.state !== 'name') continue;
      const { share, proofs, part } = diagnosis.verdict;
      expect(share).toBeGreaterThanOrEqual(0.9);
      expect(proofs).toMatchObject({ have: 2, need: 2, onPart: true });
      expect(diagnosis.suspects[0]!.part).toBe(part);
      const kinds = proofs.readings.map((at) => readings[at]!);
      expect(kinds.length).toBeGreaterThanOrEqual(2);
      for (const { kind, setup } of kinds)
        if (kind === 'function' || kind === 'click')
          expect(Object.keys(setup).some((key) => key !== 'controls' && key !== 'afterSeconds')).toBe(true);
    }
  });

  it('what is named is what was hidden, or the fuse that it took down, with the cause to be found first', () => {
    for (const { id, hidden, steps, diagnoser } of WAYS) {
      const { verdict } = steps.at(-1)!.diagnosis;
      if (verdict.state !== 'name' || verdict.part === hidden.ref) continue;
      const { kind } = diagnoser.model.compiled.circuit.parts.find(({ ref }) => ref === verdict.part)!;
      expect([id, hidden.ref, kind]).toEqual([id, hidden.ref, 'fuse']);
      expect(hidden.fault).toMatch(/short/i);
      expect(verdict.clearFirst[0]).toEqual({ part: verdict.part, reason: 'shortBehind' });
    }
  });

  it('words alone never name a part', () => {
    for (const { steps } of WAYS) expect(steps[0]!.diagnosis.verdict.state).not.toBe('name');
  });

  it('the order in which readings were taken does not matter', () => {
    for (const { diagnoser, steps } of WAYS.slice(0, 8)) {
      const { readings, diagnosis } = steps.at(-1)!;
      const turned = diagnoser.diagnose(readings.toReversed(), { most: 1 });
      expect(turned.suspects[0]!.part).toBe(diagnosis.suspects[0]!.part);
      expect(turned.suspects[0]!.share).toBeCloseTo(diagnosis.suspects[0]!.share, 4);
      expect(turned.verdict.state).toBe(diagnosis.verdict.state);
    }
  });

  it('no test is offered twice, and each could be taken as it stands', () => {
    for (const { diagnoser, steps } of WAYS) {
      const model = new CircuitModel(diagnoser.model.compiled.circuit);
      for (const { diagnosis } of steps)
        for (const { test, minutes, outcomes } of diagnosis.next) {
          expect(() => bindTest(model, test)).not.toThrow();
          expect(minutes).toBeGreaterThan(0);
          // Answers too faint to show are left off.
          expect(outcomes.reduce((sum, { share }) => sum + share, 0)).toBeCloseTo(1, 2);
        }
      const asked = steps.slice(0, -1).flatMap(({ diagnosis }) => {
        const [next] = diagnosis.next;
        return next ? [JSON.stringify(next.test)] : [];
      });
      expect(new Set(asked).size).toBe(asked.length);
    }
  });
});
