import type { Reading } from '../../circuit/schema';
import { entryWriter } from '../../testing/entryWriter';
import { reduceJob } from '../reduceJob';
import { toPutBack } from './putBack';

const write = entryWriter();
const on = { controls: { bit: '1' } };
const read = (setup: Reading['setup']) =>
  write('reading', {
    typed: '0',
    reading: { kind: 'pressure', at: 'C:A', value: 0, setup } as Reading,
  });
const asked = (setup: Reading['setup']) => ({ setup });

describe('what goes back before a test', () => {
  it('is what the last reading left off, and what the ledger says is in, that the test is taken without', () => {
    const state = reduceJob([
      read({ ...on, open: ['C:B'], jumpers: [['S+', 'A1:O']] }),
      read({ ...on, open: ['C:B'], unplugged: ['X1'], pulled: ['F1'] }),
    ]);
    const { back, lines } = toPutBack(state, asked(on));
    expect(back).toEqual({
      pulled: ['F1'],
      unplugged: ['X1'],
      open: ['C:B'],
      jumpers: [['S+', 'A1:O']],
    });
    expect(lines.map(({ entry }) => entry.body.item)).toEqual(['Bridge S+ to A1:O', 'Line off C:B']);
  });

  it('is nothing that the test has as well, a bridge in either direction', () => {
    const state = reduceJob([read({ ...on, open: ['C:B'], jumpers: [['S+', 'A1:O']], unplugged: ['X1'] })]);
    const same = asked({ open: ['C:B'], jumpers: [['A1:O', 'S+']], unplugged: ['X1'] });
    expect(toPutBack(state, same)).toEqual({ back: {}, lines: [] });
    expect(toPutBack(state, asked({ open: ['C:B', 'C:A'], unplugged: ['X1'] })).back).toEqual({
      jumpers: [['S+', 'A1:O']],
    });
  });

  it('is nothing that is said to be out, or that was found in the machine', () => {
    const state = reduceJob([
      read({ ...on, open: ['C:B'] }),
      write('ledger', {
        item: 'wire across the seat switch',
        kind: 'jumper',
        puts: { jumpers: [['S+', 'A1:O']] },
        found: true,
      }),
      write('ledgerOut', { item: 'Line off C:B' }),
    ]);
    expect(toPutBack(state, asked(on))).toEqual({ back: {}, lines: [] });
    expect(toPutBack(reduceJob([]), asked(on))).toEqual({ back: {}, lines: [] });
  });

  it('a plug that is off by the last reading and by its own line goes back once, and its line with it', () => {
    const off = write('ledger', { item: 'Plug X1 off', kind: 'lifted', puts: { unplugged: ['X1'] } });
    const { back, lines } = toPutBack(reduceJob([off, read({ unplugged: ['X1'] })]), asked(on));
    expect(back).toEqual({ unplugged: ['X1'] });
    expect(lines.map(({ entry }) => entry.body.item)).toEqual(['Plug X1 off']);
  });

  it('a plug that went back on since is not asked for again', () => {
    const state = reduceJob([read({ unplugged: ['X1'] }), read(on)]);
    expect(toPutBack(state, asked(on)).back).toEqual({});
  });
});
