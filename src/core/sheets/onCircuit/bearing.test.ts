import { demoCircuit } from '@/testing/demoCircuits';
import { CircuitModel } from '../../circuit/model';
import { changeOverRelay } from '../../templates/electrical';
import { fusesOf, mostDrawn } from './bearing';

describe('fuses that a load hangs on', () => {
  it('are those that its own current flows through, not that of its contactor’s coil', () => {
    const winch = new CircuitModel(demoCircuit('winch-reversing'));
    // Without F2 the contactor drops, and the motor with it; of its current F2 carries nothing.
    expect(fusesOf(winch, 'M1', { controls: { pendant: 'in' } })).toEqual([]);
    expect(fusesOf(winch, 'K1', { controls: { pendant: 'in' } }).map(({ part }) => part)).toEqual(['F2']);
  });
});

describe('how many times what a load draws may flow', () => {
  it('is what its supply gives into a short, or what its fuse stands, and unknown in a moment', () => {
    const winch = new CircuitModel(demoCircuit('winch-reversing'));
    const most = mostDrawn(winch, 'M1', { controls: { pendant: 'in' } });
    expect(most).toBeGreaterThan(6);
    expect(most).toBeLessThan(20);
    expect(mostDrawn(winch, 'M1', { controls: { pendant: 'in' }, afterSeconds: 0.1 })).toBe(Infinity);
    // Ten amperes of fuse before two of a lamp.
    const lamp = mostDrawn(new CircuitModel(changeOverRelay()), 'H1', { controls: { switch: 'on' } });
    expect(lamp).toBeGreaterThan(7);
    expect(lamp).toBeLessThan(9);
  });
});
