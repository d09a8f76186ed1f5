import { sendUp } from './sendUp';

const SENDING = { patienceMs: 1000, silent: 'Nobody is there.', type: 'text/csv' } as const;
const table = new File(['code,name\nG-9,Groomer\n'], 'fleet.csv');
const answering = (status: number, answer: object) =>
  jest
    .spyOn(globalThis, 'fetch')
    .mockImplementation(() => Promise.resolve(new Response(JSON.stringify(answer), { status })));

describe('a file that somebody chose', () => {
  afterEach(() => jest.restoreAllMocks());

  it('goes up as what it is, and the answer comes back', async () => {
    const fetched = answering(200, { added: 1 });
    expect(await sendUp('/api/machines.csv', table, SENDING)).toEqual({ added: 1 });
    const [, init] = fetched.mock.calls[0]!;
    expect(init).toMatchObject({
      method: 'POST',
      headers: { 'content-type': 'text/csv' },
      body: 'code,name\nG-9,Groomer\n',
    });
  });

  it('is refused in the server’s own words, and in the page’s where nobody answers', async () => {
    answering(413, { message: 'A code table is 2 MB at most.' });
    expect(await sendUp('/api/machines.csv', table, SENDING)).toEqual({
      trouble: 'A code table is 2 MB at most.',
    });
    jest.spyOn(globalThis, 'fetch').mockRejectedValue(new TypeError('Failed to fetch'));
    expect(await sendUp('/api/machines.csv', table, SENDING)).toEqual({ trouble: 'Nobody is there.' });
  });

  it('that is gone by then says so, and nobody is asked', async () => {
    const fetched = answering(200, {});
    const gone = new File([], 'gone.csv');
    jest.spyOn(gone, 'text').mockRejectedValue(new DOMException('gone', 'NotReadableError'));
    expect(await sendUp('/api/machines.csv', gone, SENDING)).toEqual({
      trouble: 'gone.csv could not be read. Choose it again.',
    });
    expect(fetched).not.toHaveBeenCalled();
  });
});
