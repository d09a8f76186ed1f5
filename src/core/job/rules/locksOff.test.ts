import { CircuitModel } from '../../circuit/model';
import { circuitSchema } from '../../circuit/schema';
import { airClamp } from '../../templates/fluid';
import { entryWriter } from '../../testing/entryWriter';
import { reduceJob } from '../reduceJob';
import { locksOff } from './locksOff';

const write = entryWriter();
const model = new CircuitModel(
  circuitSchema.parse({
    ...airClamp(),
    energies: [{ energy: 'heldLoad', name: 'Clamp jaw', how: 'Rest it on the block' }],
  }),
);
const close = (point: string) =>
  write('isolation', { point, energy: 'air', how: '', lock: '1', tag: '', released: '' });

describe('the order in which locks come off', () => {
  it('leaves what holds the load mechanically to the last, whenever it was put on', () => {
    const state = reduceJob([close('Clamp jaw'), close('G1'), close('P0'), close('moving: C1')]);
    expect([...locksOff(model, state).keys()]).toEqual(['moving: C1', 'P0', 'G1', 'Clamp jaw']);
    const otherwise = reduceJob([close('P0'), close('Clamp jaw'), close('G1')]);
    expect([...locksOff(model, otherwise).keys()].at(-1)).toBe('Clamp jaw');
  });

  it('a lock that no plan knows comes first, and none is lost', () => {
    const state = reduceJob([close('G1'), close('Old pump'), close('Clamp jaw')]);
    expect([...locksOff(model, state).keys()]).toEqual(['Old pump', 'G1', 'Clamp jaw']);
  });
});
