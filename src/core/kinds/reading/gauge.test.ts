import { demoCircuit } from '@/testing/demoCircuits';
import { CircuitModel } from '../../circuit/model';
import { GAUGE_STANDS, type GaugeStand, type Test } from '../../circuit/schema';
import { Diagnoser } from '../../diagnosis/diagnose';
import { bindTest, predict } from '../../diagnosis/predict';
import { faultByName, listFaults } from '../../diagnosis/faults';

const circuit = demoCircuit('heater-flap');
const watch = { kind: 'gauge', part: 'U1', setup: { controls: { command: 'on' } } } as const;

describe('the machine’s own gauge', () => {
  it('stands at full with a sound machine, at half where the flap stays at rest', () => {
    const model = new CircuitModel(circuit);
    const likeliest = (fault?: [string, string], test: Test = watch) => {
      const found = fault && faultByName(listFaults(model), ...fault);
      const edits = found ? found.fault.variants[0]!.edits(found.severity) : [];
      const told = predict(bindTest(model, test), edits);
      if (told.type !== 'choice') throw new Error('no choice');
      expect(Object.values(told.odds).reduce((sum, one) => sum + one, 0)).toBeCloseTo(1, 6);
      return [...GAUGE_STANDS].sort((a, b) => told.odds[b]! - told.odds[a]!)[0];
    };
    expect(likeliest()).toBe('full');
    expect(likeliest(['Y1', 'open'])).toBe('half');
    // Not asked for it stays at rest; one that is pulled all the same shows full.
    const off = { ...watch, setup: { controls: { command: 'off' } } };
    expect(likeliest(undefined, off)).toBe('half');
    expect(likeliest(['Q1', 'stuckShifted'], off)).toBe('full');
  });
  it('“never past half” weighs as a complaint: the sound machine is out, and it says the same as a flap that stays', () => {
    const doubt = (value: GaugeStand) => new Diagnoser(circuit).diagnose([{ ...watch, value }]);
    const { noFault } = new Diagnoser(circuit).diagnose([]);
    expect(doubt('half').noFault).toBeLessThan(0.3 * noFault);
    expect(doubt('full').noFault).toBeGreaterThan(1.2 * noFault);
    const still = new Diagnoser(circuit).diagnose([{ ...watch, kind: 'function', value: 'dead' }]);
    const first = ({ suspects }: typeof still) => suspects.slice(0, 3).map(({ part }) => part);
    expect(first(doubt('half'))).toEqual(first(still));
  });
  it('is refused of a part that no gauge follows', () => {
    const model = new CircuitModel(circuit);
    expect(() => bindTest(model, { ...watch, part: 'Y1' })).toThrow(/no gauge that follows "Y1"/);
  });
});
