/** @jest-environment jsdom */
import { entryWriter } from '@/core/testing/entryWriter';
import { httpTransport } from './transport';

const entry = entryWriter();
const sent = [entry('complaint', { words: 'a' }), entry('complaint', { words: 'b' })];
const answering = (status: number, body: unknown) => {
  const fetching = jest.fn((_url: string, _init: RequestInit) =>
    Promise.resolve({
      status,
      json: () => (body === undefined ? Promise.reject(new SyntaxError('no JSON')) : Promise.resolve(body)),
    }),
  );
  Object.assign(globalThis, { fetch: fetching });
  return fetching;
};
const transport = httpTransport(417);

describe('the way to the server', () => {
  it('sends entries with its own clock, and gives what became of each', async () => {
    const results = sent.map(({ id }, at) => ({ id, state: 'added', number: at + 1 }));
    const fetching = answering(200, { added: 2, results });
    expect(await transport.send(sent)).toEqual({ added: 2, results });
    const [url, init] = fetching.mock.calls[0]!;
    expect(url).toBe('/api/jobs/417/entries');
    const body = JSON.parse(init.body as string) as { entries: unknown; sentAt: string };
    expect(body.entries).toEqual(sent);
    expect(Math.abs(Date.parse(body.sentAt) - Date.now())).toBeLessThan(60_000);
  });

  it('entries that were judged one by one are so, even when all were refused', async () => {
    const results = [{ id: sent[0]!.id, state: 'refused', code: 'moved', message: 'It has moved.' }];
    answering(409, { code: 'conflict', message: 'It has moved.', results });
    expect(await transport.send(sent)).toEqual({ added: 0, results });
  });

  it.each([[500], [502], [503], [429], [200]])(
    'an answer %d that judged nothing is tried again',
    async (status) => {
      answering(status, undefined);
      expect(await transport.send(sent)).toBeNull();
    },
  );

  it('a request that is refused as a whole tells each entry why', async () => {
    answering(404, { code: 'no-job', message: 'There is no job 417.' });
    expect(await transport.send(sent)).toEqual({
      added: 0,
      results: sent.map(({ id }) => ({ id, state: 'refused', code: '404', message: 'There is no job 417.' })),
    });
    answering(413, undefined);
    expect(await transport.send(sent)).toMatchObject({
      results: sent.map(() => ({ message: expect.stringContaining('413') as string })),
    });
    answering(401, { code: 'signed-out', message: 'Nobody is signed in here any more.' });
    expect(await transport.send(sent)).toBe('signedOut');
  });

  it('what somebody else would send by signing in meanwhile is not refused for good: it waits', async () => {
    const message = 'It is written in the name of Ilse, and Rasmus is signed in.';
    const results = sent.map(({ id }) => ({ id, state: 'refused', code: 'notYourName', message }));
    answering(400, { code: 'bad-input', message, results });
    expect(await transport.send(sent)).toBe('signedOut');
  });

  it('a server that is away is no answer', async () => {
    Object.assign(globalThis, { fetch: () => Promise.reject(new TypeError('Failed to fetch')) });
    await expect(transport.send(sent)).rejects.toThrow();
    await expect(transport.upload(new Blob(['x']))).rejects.toThrow(/not kept yet/);
  });

  it('a picture is uploaded by content, refused with a sentence, or tried again', async () => {
    answering(200, { hash: 'ab' });
    expect(await transport.upload(new Blob(['x']))).toEqual({ hash: 'ab' });
    answering(415, { message: 'That is no picture.' });
    expect(await transport.upload(new Blob(['x']))).toEqual({ trouble: 'That is no picture.' });
    answering(500, {});
    await expect(transport.upload(new Blob(['x']))).rejects.toThrow(/the server failed/);
    const large = { size: 21_000_000 } as Blob;
    expect(await transport.upload(large)).toEqual({ trouble: expect.stringContaining('20 MB') });
  });
});
