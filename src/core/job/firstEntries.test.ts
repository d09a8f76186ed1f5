import { demoCircuit } from '@/testing/demoCircuits';
import { CircuitModel } from '../circuit/model';
import { firstEntries, trialKey } from './firstEntries';
import { seenWork } from './seenWork';

const model = new CircuitModel(demoCircuit('groomer-tiller-float'));
const head = { person: 'Ilse', openedAt: '2026-11-20T08:00:00.000Z', idOf: (at: number) => `id-${at}` };

describe('the entries that a job begins with', () => {
  const trials = seenWork(model);
  const said = {
    title: 'Float dead',
    words: '',
    answers: { [trialKey(trials[0]!)]: 'dead' as const, 'none-of-it': 'weak' as const },
  };

  it('are the complaint and what was tried, each a moment after the other', () => {
    const [complaint, reading, ...more] = firstEntries(model, said, head);
    expect(complaint).toMatchObject({
      id: 'id-0',
      type: 'complaint',
      body: { words: 'Float dead' },
      at: head.openedAt,
    });
    expect(reading).toMatchObject({
      id: 'id-1',
      type: 'reading',
      at: '2026-11-20T08:00:00.001Z',
      body: { reading: { kind: 'function', part: trials[0]!.ref, value: 'dead' } },
    });
    expect(more).toEqual([]);
  });

  it('are the same whenever they are made', () => {
    expect(firstEntries(model, said, head)).toEqual(firstEntries(model, said, head));
    expect(firstEntries(model, { ...said, words: 'It will not float' }, head)[0]).toMatchObject({
      body: { words: 'It will not float' },
    });
  });
});
