import { demoCircuit } from '@/testing/demoCircuits';
import { CircuitModel } from '../../circuit/model';
import { fusesOf } from './bearing';

describe('fuses that a load hangs on', () => {
  it('are those that its own current flows through, not that of its contactor’s coil', () => {
    const winch = new CircuitModel(demoCircuit('winch-reversing'));
    // Without F2 the contactor drops, and the motor with it; of its current F2 carries nothing.
    expect(fusesOf(winch, 'M1', { controls: { pendant: 'in' } })).toEqual([]);
    expect(fusesOf(winch, 'K1', { controls: { pendant: 'in' } }).map(({ part }) => part)).toEqual(['F2']);
  });
});
