import { changePart } from '../draw/editCircuit';
import { emptyDrawing, layChains } from '../draw/layChain';
import { shareChanges } from './shareChanges';

const one = layChains(
  emptyDrawing('One'),
  'battery 12, fuse F7 5, key switch S1, plug X1, coil Y1 9, ground',
).circuit;
const other = layChains(emptyDrawing('Other'), 'G1, F7, S1, lamp H1 6, ground', one).circuit;

describe('a change of a shared part', () => {
  it('reaches the other function, and only that part of it', () => {
    const after = changePart(one, 'F7', { amps: 10 });
    const shared = shareChanges(one, after, other)!;
    expect(shared.parts.find(({ ref }) => ref === 'F7')).toMatchObject({ amps: 10 });
    expect(shared.parts.filter(({ ref }) => ref !== 'F7')).toEqual(
      other.parts.filter(({ ref }) => ref !== 'F7'),
    );
  });

  it('brings the positions it needs along', () => {
    const after = {
      ...changePart({ ...one, controls: { key: ['off', 'on', 'start'] } }, 'S1', {
        closedWhen: { key: ['on', 'start'] },
      }),
    };
    expect(shareChanges(one, after, other)!.controls).toEqual({ key: ['off', 'on', 'start'] });
  });

  it('is none where what changed is not shared', () => {
    expect(shareChanges(one, changePart(one, 'Y1', { ohms: 12 }), other)).toBeNull();
    const apart = changePart(other, 'F7', { amps: 20 });
    expect(shareChanges(one, changePart(one, 'F7', { amps: 10 }), apart)).toBeNull();
  });
});
