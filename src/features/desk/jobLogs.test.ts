import type { LRUCache } from 'lru-cache';
import { readEntries, type StoredEntry } from '@/db/entries';
import { inThisShed, ofProcess } from '@/db/shed';
import { wholeLog } from './jobLogs';

jest.mock('@/db/entries', () => ({ readEntries: jest.fn() }));
const read = readEntries as jest.Mock;
const entry = (number: number) => ({ number }) as StoredEntry;
const stored = [1, 2, 3].map(entry);
const numbers = async (jobId: string) => (await wholeLog(jobId)).map(({ number }) => number);
/** The logs at hand, as the process holds them. */
const atHand = () =>
  ofProcess('logs', (): LRUCache<string, StoredEntry[]> => {
    throw new Error('nothing is at hand');
  });

describe('a log at hand', () => {
  beforeEach(() =>
    read
      .mockReset()
      .mockImplementation((_job: string, after: number) =>
        Promise.resolve(stored.filter(({ number }) => number > after)),
      ),
  );

  it('is read on from its last number', async () => {
    expect(await numbers('a')).toEqual([1, 2, 3]);
    expect(await numbers('a')).toEqual([1, 2, 3]);
    expect(read.mock.calls.map(([, after]) => after as number)).toEqual([0, 3]);
  });

  it('is whole though two read it at once', async () => {
    expect(await Promise.all([numbers('b'), numbers('b')])).toEqual([
      [1, 2, 3],
      [1, 2, 3],
    ]);
  });

  it('never loses its beginning when it had to make room while it was read on', async () => {
    await wholeLog('c');
    read.mockImplementationOnce(() => {
      atHand().delete(inThisShed('c'));
      return Promise.resolve([entry(4)]);
    });
    expect(await numbers('c')).toEqual([1, 2, 3, 4]);
  });
});
