import { entryWriter, fitted } from '../testing/entryWriter';
import fc from 'fast-check';
import { entrySchema, type Entry } from './entries';
import { reduceJob } from './reduceJob';

let counter = 0;
function entry(body: Omit<Entry, 'id' | 'at' | 'person'>): Entry {
  counter++;
  const id = `019a0000-0000-7000-8000-${String(counter).padStart(12, '0')}`;
  const at = new Date(Date.UTC(2026, 0, 1, 0, 0, counter)).toISOString();
  return entrySchema.parse({ ...body, id, at, person: 'Tove' });
}

function ohms(value: number | 'OL'): Entry {
  const reading = { kind: 'ohms' as const, from: 'A', to: 'B', setup: {}, value };
  return entry({ type: 'reading', body: { reading, typed: String(value) } });
}

describe('reduceJob', () => {
  const log = [
    entry({ type: 'complaint', body: { words: 'Will not lift' } }),
    ohms(12),
    ohms('OL'),
    entry({ type: 'noReach', body: { node: 'A' } }),
    ohms(31),
  ];
  log.push(entry({ type: 'withdrawal', supersedes: log[1]!.id, body: {} }));

  it('gives the same state however often entries arrive: the first time counts', () => {
    const wanted = reduceJob(log);
    fc.assert(
      fc.property(fc.shuffledSubarray(log), (again) => {
        expect(reduceJob([...log, ...again])).toEqual(wanted);
      }),
    );
  });

  it('goes by the order of arrival and never by a writer’s clock', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: -1e7, max: 1e7 }), { minLength: 6, maxLength: 6 }), (skews) => {
        const skewed = log.map((one, at) => ({
          ...one,
          at: new Date(Date.parse(one.at) + skews[at]!).toISOString(),
        }));
        const [state, wanted] = [reduceJob(skewed), reduceJob(log)];
        const ids = ({ history }: typeof state) => history.map(({ entry: one }) => one.id);
        expect(ids(state)).toEqual(ids(wanted));
        expect(state.readings.map(({ reading }) => reading)).toEqual(
          wanted.readings.map(({ reading }) => reading),
        );
      }),
    );
  });

  it('has in the ledger what a reading put in, until it is out, also where the reading was taken back', () => {
    const setup = { lifted: [{ part: 'K4', node: 'A' }], unplugged: ['X2'] };
    const reading = { kind: 'ohms' as const, from: 'A', to: 'B', setup, value: 2 };
    const lifting = entry({ type: 'reading', body: { reading, typed: '2' } });
    const out = entry({ type: 'ledgerOut', body: { item: 'K4 off A' } });
    const once = [lifting, entry({ type: 'withdrawal', supersedes: lifting.id, body: {} })];
    for (const entries of [[lifting], once])
      expect(reduceJob(entries).ledger).toMatchObject([
        { entry: { body: { item: 'K4 off A', kind: 'lifted' } }, out: null },
      ]);
    expect(reduceJob([...once, out]).ledger).toMatchObject([{ out: { entry: { id: out.id } } }]);
    const again = entry({ type: 'reading', body: { reading, typed: '2' } });
    expect(reduceJob([...once, out, again]).ledger).toMatchObject([{ out: null }]);
    // A log that wrote the line by itself has it once.
    const written = entry({ type: 'ledger', body: { item: 'K4 off A', kind: 'lifted', minutes: 10 } });
    expect(reduceJob([lifting, written]).ledger).toMatchObject([{ entry: { id: written.id } }]);
  });

  it('counts what stands, and keeps what was taken back in the record', () => {
    const state = reduceJob(log);
    expect(state.readings.map(({ reading }) => reading.value)).toEqual(['OL', 31]);
    expect(state.history.map(({ superseded }) => superseded)).toEqual([true, false, false]);
    expect(state.complaint).toBe('Will not lift');
    expect(state.noReach).toEqual(['A']);
  });

  it('knows how many of the readings that count were taken before each repair', () => {
    const write = entryWriter();
    const reading = (value: number, more = {}) =>
      write('reading', {
        reading: { kind: 'volts', from: 'A', to: 'GND', setup: {}, value },
        typed: String(value),
        ...more,
      });
    const [slip, first, fix, proof, after] = [
      reading(9),
      reading(0),
      write('fix', fitted('W2')),
      reading(12, { phase: 'fixed' }),
      reading(12),
    ];
    const corrected = { ...first!, supersedes: slip!.id };
    const state = reduceJob([slip!, corrected, fix!, proof!, after!]);
    expect(state.readings.map(({ reading: { value } }) => value)).toEqual([0, 12]);
    expect(state.mended).toEqual([{ part: 'W2', from: 1 }]);
  });

  it('lets a correction take the place of a reading', () => {
    const wrong = ohms(3);
    const reading = { kind: 'ohms' as const, from: 'A', to: 'B', setup: {}, value: 300 };
    const mended = entry({ type: 'reading', supersedes: wrong.id, body: { reading, typed: '300' } });
    expect(reduceJob([wrong, mended]).readings.map(({ reading: one }) => one.value)).toEqual([300]);
  });
});
