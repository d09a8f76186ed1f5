import { demoCircuit } from '@/testing/demoCircuits';
import { CircuitModel } from '../circuit/model';
import { singleCoil } from '../templates/electrical';
import { airClamp, hydraulicLift } from '../templates/fluid';
import { contactorTwoSupplies } from '../templates/line';
import { clearBefore } from './clearBefore';

const reasons = (
  circuit: ReturnType<typeof airClamp>,
  ref: string,
  fault: 'stuckAtRest' | 'jammed' | 'sealLeak',
) => clearBefore(new CircuitModel(circuit), ref, fault);

describe('what would spoil the next one of an air, oil, vacuum or refrigerant part', () => {
  it('is looked for at the filter before it, else at its supply', () => {
    expect(reasons(airClamp(), 'Q1', 'stuckAtRest')).toEqual([{ part: 'Z1', reason: 'foulAir' }]);
    expect(reasons(airClamp(), 'C1', 'sealLeak')).toEqual([{ part: 'Z1', reason: 'foulAir' }]);
    expect(reasons(hydraulicLift(), 'Q1', 'stuckAtRest')).toEqual([{ part: 'P1', reason: 'foulOil' }]);
    expect(reasons(demoCircuit('heater-flap'), 'Q1', 'stuckAtRest')[0]!.reason).toBe('foulVacuum');
    expect(reasons(demoCircuit('cellar-liquid-valve'), 'Q1', 'stuckAtRest')).toEqual([
      { part: 'P0', reason: 'foulRefrigerant' },
    ]);
  });

  it('is nothing of the kind for what no dirt does', () => {
    const clamp = new CircuitModel(airClamp());
    expect(clearBefore(clamp, 'H1', 'leaking')).toEqual([]);
    expect(clearBefore(clamp, 'W1', 'open').some(({ reason }) => reason.startsWith('foul'))).toBe(false);
    // A spool without pilot pressure is no spoilt one, and a dirty one is: both are said.
    expect(clearBefore(clamp, 'Q1', 'stuckMidway').map(({ reason }) => reason)).toEqual([
      'missingAir',
      'foulAir',
    ]);
  });
});

describe('what would burn the next winding', () => {
  it('is the supply that feeds it, and none that feeds something else', () => {
    const fan = new CircuitModel(contactorTwoSupplies());
    expect(clearBefore(fan, 'K1', 'open')).toEqual([{ part: 'G2', reason: 'overLineVoltage' }]);
    const coil = clearBefore(new CircuitModel(singleCoil()), 'Y1', 'shortedTurns');
    expect(coil).toContainEqual({ part: 'G1', reason: 'overVoltage' });
  });
});
