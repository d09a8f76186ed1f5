import { demoCircuit } from '@/testing/demoCircuits';
import { CircuitModel } from '../../circuit/model';
import type { Reading } from '../../circuit/schema';
import { twoWayPair } from '../../templates/electrical';
import { jobSheet } from './build';

import { follow, MARKS } from '../testing/followSheet';

describe('two windings in a job', () => {
  it('two windings: which wire is which, an open one, and one whose ohms are not the drawing’s', () => {
    const circuit = demoCircuit('tractor-blower-stop');
    const sound = follow(circuit, 'windings').sheet;
    expect(sound.rows[0]).toMatchObject({ name: 'Y5P', with: 'Y5H', verdict: 'good' });
    expect(sound.answers[0]).toMatchObject({ common: 'Y5:C', pullIn: 'Y5:P', holdIn: 'Y5:H', off: [] });
    const open = follow(circuit, 'windings', ['Y5H', 'open']).sheet;
    expect(open.rows[0]!.verdict).toBe('open');
    expect(open.answers[0]!.findings).toEqual([{ code: 'nothingAt', wire: 'Y5:H' }]);
    const shorted = follow(circuit, 'windings', ['Y5H', 'shortedTurns', 8]).sheet;
    expect(shorted.rows[0]!.verdict).toBe('off');
    expect(shorted.answers[0]).toMatchObject({ off: ['Y5H'] });
  });
  it('two windings: a solenoid whose wires are exchanged accuses no winding', () => {
    const circuit = demoCircuit('tractor-blower-stop');
    const model = new CircuitModel(circuit);
    const { rows } = jobSheet(model, 'windings', [], MARKS)!;
    // Its common lies where the hold-in is drawn.
    const values = [14.56, 14.2, 0.36];
    const readings = rows[0]!.cells.map((cell, at) => ({ ...cell!.test, value: values[at]! }) as Reading);
    const told = jobSheet(model, 'windings', readings, MARKS)!;
    expect(told.rows[0]!.verdict).toBe('exchanged');
    expect(told.answers[0]).toMatchObject({ common: 'Y5:H', pullIn: 'Y5:P', holdIn: 'Y5:C', off: [] });
  });
  it('two windings: two valves on one return are no pair', () => {
    expect(jobSheet(new CircuitModel(twoWayPair()), 'windings', [], MARKS)).toBeNull();
  });
});
