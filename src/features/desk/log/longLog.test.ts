import { readLongLog } from './longLog';
import { PIECE, type SentEntry } from './protocol';

const log = (length: number): SentEntry[] =>
  Array.from({ length }, (_, at) => ({
    number: at + 1,
    entry: { id: `e${at + 1}` } as SentEntry['entry'],
    receivedAt: '2026-03-06T17:16:22.293Z',
    skewMs: null,
  }));

/** What the server has; null while it is away, a number where it only refuses. */
let server: SentEntry[] | null | number = [];
const asked: number[] = [];
const kept = new Map<string, Response>();
let full = false;
Object.assign(globalThis, {
  caches: {
    open: () =>
      Promise.resolve({
        match: (path: string) => Promise.resolve(kept.get(path)?.clone()),
        put: (path: string, answer: Response) => {
          if (full) return Promise.reject(new Error('quota'));
          kept.set(path, answer);
          return Promise.resolve();
        },
      }),
  },
  fetch: (path: string) => {
    const after = Number(new URL(path, 'http://shed').searchParams.get('after'));
    asked.push(after);
    if (server === null) return Promise.reject(new TypeError('no network'));
    if (typeof server === 'number')
      return Promise.resolve(Response.json({ message: 'It said no.' }, { status: server }));
    return Promise.resolve(Response.json(server.slice(after, after + PIECE)));
  },
});

const JOB = { number: 412, id: '019a0000-0000-7000-8000-000000000412' };

beforeEach(() => {
  kept.clear();
  asked.length = 0;
  full = false;
});

describe('a log that is too long for its page', () => {
  it('comes in pieces, whole and in order, also where its last piece is full', async () => {
    for (const length of [2 * PIECE + 7, 2 * PIECE, 3]) {
      kept.clear();
      server = log(length);
      const came: number[] = [];
      expect(await readLongLog(JOB, (entries) => came.push(entries))).toEqual(server);
      expect(came.at(-1)).toBe(length);
    }
  });

  it('is asked for once: the next time only what may have grown comes', async () => {
    server = log(2 * PIECE + 7);
    await readLongLog(JOB);
    server = log(2 * PIECE + 9);
    asked.length = 0;
    expect(await readLongLog(JOB)).toEqual(server);
    expect(asked).toEqual([2 * PIECE]);
  });

  it('is there without a network as it came last, and one job’s is not another’s', async () => {
    const whole = log(PIECE + 5);
    server = whole;
    await readLongLog(JOB);
    server = null;
    expect(await readLongLog(JOB)).toEqual(whole);
    await expect(readLongLog({ ...JOB, number: 413 })).rejects.toThrow('The server does not answer.');
  });

  it.each([
    [503, 'a server that is busy', true],
    [403, 'somebody who may not look', false],
  ])('%d, %s: what is kept is shown: %s', async (status, _who, shown) => {
    const whole = log(PIECE + 5);
    server = whole;
    await readLongLog(JOB);
    server = status;
    if (shown) expect(await readLongLog(JOB)).toEqual(whole);
    else await expect(readLongLog(JOB)).rejects.toThrow('It said no.');
  });

  it('is not what another job under the same number left, in a shed that was begun anew', async () => {
    server = log(PIECE + 5);
    await readLongLog(JOB);
    server = log(PIECE + 5).map((one) => ({ ...one, receivedAt: '2026-05-01T08:00:00.000Z' }));
    expect(await readLongLog({ ...JOB, id: '019a0000-0000-7000-8000-000000000999' })).toEqual(server);
  });

  it('comes on a device that is full', async () => {
    full = true;
    server = log(PIECE + 5);
    expect(await readLongLog(JOB)).toEqual(server);
  });
});
