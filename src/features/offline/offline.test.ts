import { entryWriter } from '@/core/testing/entryWriter';
import { waitingWords } from '@/words/en/offline';
import { forgetKept, jobOfPath, openPages, pageKey } from './caches';
import { keepPages, listKept } from './keepPages';
import { countWaiting } from './waiting';

const row = (person: string, job: number, refused?: { code: string; message: string }) => ({
  entry: entryWriter(person)('looked', { check: 'plug X1', finding: 'good' }),
  job,
  ...(refused ? { refused } : {}),
});

describe('what waits in a browser', () => {
  const rows = [
    row('Ilse', 417),
    row('ilse', 417),
    row('Ilse', 418),
    row('Ilse', 419, { code: 'moved', message: 'The job has moved.' }),
    row('Tove', 417),
  ];

  it('is counted for who is signed in, and said of others by name', () => {
    const waiting = countWaiting(rows, 'Ilse');
    expect(waiting).toMatchObject({ entries: 3, jobs: [417, 418], aside: [419] });
    expect([...waiting.others]).toEqual([['Tove', 1]]);
    expect(waitingWords(waiting, false).map(({ words }) => words)).toEqual([
      '3 entries of 2 jobs wait here for the server.',
      'Not taken by the server; look at it there:',
      '1 entry of Tove waits on this device, and will be sent when Tove signs in here.',
    ]);
    // A job that is open says its own.
    expect(waitingWords({ ...waiting, jobs: [418] }, true).map(({ words }) => words)).toEqual([
      'Entries of 1 other job wait here for the server.',
    ]);
  });

  it('is nobody’s to send where nobody is signed in', () => {
    const waiting = countWaiting(rows, null);
    expect([waiting.entries, waiting.jobs]).toEqual([0, []]);
    expect(waiting.others.get('Tove')).toBe(1);
    expect(waitingWords(countWaiting([], 'Ilse'), false)).toEqual([]);
  });
});

describe('a page that is kept', () => {
  it.each([
    ['http://shed/jobs/417?step=prove#x', 'http://shed/jobs/417'],
    ['http://shed/jobs/417/report?x=1', 'http://shed/jobs/417/report?x=1'],
    ['http://shed/parts?q=coil', 'http://shed/parts?q=coil'],
  ])('%s is kept as %s', (address, key) => expect(pageKey(address)).toBe(key));

  it('is a job’s where its path is one', () => {
    expect([jobOfPath('/jobs/417'), jobOfPath('/jobs/417/report'), jobOfPath('/jobs/x')]).toEqual([
      417,
      null,
      null,
    ]);
  });
});

describe('pages that go with the one that is open', () => {
  const put = jest.fn(() => Promise.resolve());
  const define = (name: string, value: unknown) =>
    Object.defineProperty(globalThis, name, { value, configurable: true });
  beforeEach(() => {
    jest.useFakeTimers();
    define('caches', { open: () => Promise.resolve({ put }) });
    define('location', { origin: 'http://shed' });
    define('navigator', { onLine: true });
  });
  afterEach(() => {
    jest.useRealTimers();
    put.mockClear();
    for (const name of ['caches', 'location', 'navigator', 'fetch']) Reflect.deleteProperty(globalThis, name);
  });
  const kept = () => put.mock.calls.map(([url]: unknown[]) => url);

  it('are asked for again where the server had its hands full, and no more once they are here', async () => {
    const busy = new Set(['http://shed/a']);
    const asked = jest.fn((url: string) => Promise.resolve({ ok: !busy.has(url), redirected: false }));
    define('fetch', asked);
    await keepPages(['/a', '/b']);
    expect(kept()).toEqual(['http://shed/b']);
    await jest.advanceTimersByTimeAsync(6000);
    expect(kept()).toEqual(['http://shed/b']);
    busy.clear();
    await jest.advanceTimersByTimeAsync(200_000);
    expect(kept()).toEqual(['http://shed/b', 'http://shed/a']);
    expect(asked).toHaveBeenCalledTimes(4);
    await keepPages(['/a', '/b']);
    expect(asked).toHaveBeenCalledTimes(4);
  });

  it('are asked for a few times and no more where the server never gives them', async () => {
    const asked = jest.fn(() => Promise.reject(new TypeError('Failed to fetch')));
    define('fetch', asked);
    await keepPages(['/never']);
    await jest.advanceTimersByTimeAsync(3_600_000);
    expect(asked).toHaveBeenCalledTimes(4);
  });
});

describe('a browser that keeps nothing', () => {
  it.each([
    ['has no caches', undefined],
    [
      'shuts them',
      {
        open: () => Promise.reject(new Error('SecurityError')),
        delete: () => Promise.reject(new Error('SecurityError')),
      },
    ],
  ])('because it %s holds nobody up', async (_why, caches) => {
    Object.defineProperty(globalThis, 'caches', { value: caches, configurable: true });
    if (caches === undefined) Reflect.deleteProperty(globalThis, 'caches');
    expect(await openPages()).toBeNull();
    expect(await listKept()).toEqual([]);
    await expect(forgetKept()).resolves.toBeUndefined();
    Reflect.deleteProperty(globalThis, 'caches');
  });
});
