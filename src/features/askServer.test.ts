import { askServer, askStatus, NotAnswered } from './askServer';

const answering = (answer: (signal: AbortSignal) => Promise<unknown>) =>
  Object.assign(globalThis, {
    fetch: (_path: string, { signal }: { signal: AbortSignal }) => answer(signal),
  });
const silent = (signal: AbortSignal) =>
  new Promise((_resolve, reject) => signal.addEventListener('abort', () => reject(new Error('aborted'))));

describe('asking the server', () => {
  it('gives its data', async () => {
    answering(() => Promise.resolve({ status: 200, json: () => Promise.resolve({ n: 1 }) }));
    expect(await askServer('/x')).toEqual({ n: 1 });
  });

  it.each([
    [503, { message: 'The database does not answer.' }, 'The database does not answer.'],
    [500, null, 'The server failed (500).'],
    [200, null, 'The server failed (200).'],
  ])('a refusal %d comes with its sentence', async (status, body, message) => {
    answering(() =>
      Promise.resolve({ status, json: () => (body ? Promise.resolve(body) : Promise.reject(new Error())) }),
    );
    await expect(askServer('/x')).rejects.toEqual(new NotAnswered(message, status));
  });

  it('a server that says nothing is given up within ten seconds, in its head or in its body', async () => {
    jest.useFakeTimers();
    answering(silent);
    const head = expect(askServer('/x')).rejects.toMatchObject({
      status: 0,
      message: 'The server does not answer.',
    });
    answering((signal) => Promise.resolve({ status: 200, json: () => silent(signal) }));
    const body = expect(askStatus('/x')).rejects.toThrow();
    await jest.advanceTimersByTimeAsync(10_000);
    await head;
    await body;
    jest.useRealTimers();
  });

  it('a page that is left asks no more', async () => {
    answering(silent);
    const leave = new AbortController();
    const asked = expect(askServer('/x', { signal: leave.signal })).rejects.toThrow(NotAnswered);
    leave.abort();
    await asked;
  });
});
