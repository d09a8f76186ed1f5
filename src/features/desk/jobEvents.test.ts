import { lastNumbers } from '@/db/jobs';
import type { StoredEntry } from '@/db/entries';
import { jobStream, tellJob } from './jobEvents';

jest.mock('@/db/jobs', () => ({ lastNumbers: jest.fn() }));
jest.mock('../serverLog', () => ({ log: { warn: jest.fn() } }));
const asked = lastNumbers as jest.Mock;
const entry = (number: number) => ({ number, entry: { id: `e${number}` } }) as unknown as StoredEntry;

/** Lets what waits for promises run on. */
const settle = () => jest.advanceTimersByTimeAsync(0);

function follower(jobId: string, log: StoredEntry[], after = 0) {
  const leave = new AbortController();
  const read = jest.fn(() => Promise.resolve(log));
  const reader = jobStream(after, read, jobId, leave.signal).getReader();
  const said: string[] = [];
  let done = false;
  void (async () => {
    for (let piece = await reader.read(); !piece.done; piece = await reader.read())
      said.push(new TextDecoder().decode(piece.value));
    done = true;
  })();
  return { read, said, leave: () => leave.abort(), isDone: () => done };
}

describe('who follows a job', () => {
  beforeEach(() => {
    jest.useFakeTimers();
    asked.mockReset().mockResolvedValue(new Map());
  });
  afterEach(() => jest.useRealTimers());

  it('hears what is there at once, and what comes when it comes', async () => {
    const log = [entry(1)];
    const one = follower('a', log);
    await settle();
    expect(one.said).toEqual([`data: ${JSON.stringify(log)}\n\n`]);
    log.push(entry(2));
    tellJob('a');
    await settle();
    expect(one.said[1]).toBe(`data: ${JSON.stringify([entry(2)])}\n\n`);
    one.leave();
    await settle();
    expect(one.isDone()).toBe(true);
  });

  it('three hundred who wait cost one question a second, and are told now and then that the server is there', async () => {
    const all = Array.from({ length: 300 }, (_one, at) => follower(`job ${at % 40}`, []));
    await settle();
    asked.mockClear();
    for (const { read } of all) read.mockClear();
    await jest.advanceTimersByTimeAsync(10_000);
    expect(asked).toHaveBeenCalledTimes(10);
    expect(asked.mock.calls[0][0]).toHaveLength(40);
    expect(all.every(({ read }) => read.mock.calls.length === 0)).toBe(true);
    expect(all.every(({ said }) => said.slice(1).join('') === 'data: []\n\n'.repeat(2))).toBe(true);
    for (const { leave } of all) leave();
    await jest.advanceTimersByTimeAsync(3000);
    expect(asked).toHaveBeenCalledTimes(10);
  });

  it('hears within a second what another server wrote', async () => {
    const log: StoredEntry[] = [];
    const one = follower('b', log);
    await settle();
    log.push(entry(1));
    asked.mockResolvedValue(new Map([['b', 1]]));
    await jest.advanceTimersByTimeAsync(1000);
    expect(one.said.at(-1)).toBe(`data: ${JSON.stringify(log)}\n\n`);
    one.leave();
  });

  it('is let go when the database does not answer, so that the browser can say so', async () => {
    const one = follower('c', []);
    await settle();
    asked.mockRejectedValue(new Error('away'));
    await jest.advanceTimersByTimeAsync(1000);
    expect(one.isDone()).toBe(true);
    one.leave();
  });
});
