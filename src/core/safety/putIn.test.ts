import { reduceJob } from '../job/reduceJob';
import { entryWriter } from '../testing/entryWriter';
import { putIn } from './putIn';

describe('what a test puts into the machine', () => {
  it('is nothing for a fuse that is pulled and a plug that is off', () => {
    expect(putIn({ pulled: ['F7'], unplugged: ['X8'], controls: { key: 'on' } })).toEqual([]);
  });

  it('is a line of the ledger for each bridge, lifted end, stopped opening and bench supply', () => {
    const lines = putIn({
      jumpers: [['S1:1', 'S1:2']],
      lifted: [{ part: 'W15', node: 'X8:1' }],
      open: ['Q1:5'],
      plugged: ['A'],
      energised: ['K1'],
    });
    expect(lines).toEqual([
      { item: 'Bridge S1:1 to S1:2', kind: 'jumper', minutes: 10, puts: { jumpers: [['S1:1', 'S1:2']] } },
      { item: 'W15 off X8:1', kind: 'lifted', puts: { lifted: [{ part: 'W15', node: 'X8:1' }] } },
      { item: 'Line off Q1:5', kind: 'lifted', puts: { open: ['Q1:5'] } },
      { item: 'Plug in A', kind: 'plug', puts: { plugged: ['A'] } },
      { item: 'Bench supply on K1', kind: 'other', minutes: 10, puts: { energised: ['K1'] } },
    ]);
    const entry = entryWriter();
    const entries = lines.map((body) => entry('ledger', body));
    // They stand in the ledger until each is said to be out.
    expect(reduceJob(entries).ledger.map(({ entry: { body } }) => body.item)).toEqual(
      lines.map(({ item }) => item),
    );
    const out = entry('ledgerOut', { item: 'Bridge S1:1 to S1:2' });
    expect(reduceJob([...entries, out]).ledger.filter((line) => !line.out)).toHaveLength(4);
  });
});
