import { NextRequest } from 'next/server';
import { answerEvents, MOST_LINES } from './eventStream';

const call = (client: string) => {
  const leave = new AbortController();
  const request = new NextRequest('http://spiraxis.test/events', {
    headers: { 'x-forwarded-for': client },
    signal: leave.signal,
  });
  return {
    answer: answerEvents(
      request,
      () => new ReadableStream(),
      () => Promise.resolve(true),
    ),
    leave: () => leave.abort(),
  };
};

describe('event lines of one client', () => {
  it('are refused with a sentence beyond the limit, and taken again when one is closed', async () => {
    const open = Array.from({ length: MOST_LINES }, () => call('10.0.0.7'));
    expect(open.every(({ answer }) => answer.status === 200)).toBe(true);
    const refused = call('10.0.0.7').answer;
    expect(refused.status).toBe(429);
    expect(await refused.json()).toMatchObject({
      code: 'too-many',
      message: expect.stringContaining('close'),
    });
    // Another client is not held back by this one.
    const other = call('10.0.0.8');
    expect(other.answer.headers.get('content-type')).toBe('text/event-stream');
    open[0]!.leave();
    expect(call('10.0.0.7').answer.status).toBe(200);
    expect(call('10.0.0.7').answer.status).toBe(429);
  });
});

describe('an event line', () => {
  afterEach(() => jest.useRealTimers());
  it.each([
    ['whose listener is signed out', () => Promise.resolve(false)],
    ['while the database does not answer', () => Promise.reject(new Error('away'))],
  ])('%s ends within a minute', async (_what, still) => {
    jest.useFakeTimers();
    let ended = false;
    const request = new NextRequest('http://spiraxis.test/events', {
      headers: { 'x-forwarded-for': '10.0.0.9' },
    });
    answerEvents(
      request,
      (signal) => {
        signal.addEventListener('abort', () => (ended = true));
        return new ReadableStream();
      },
      still,
    );
    await jest.advanceTimersByTimeAsync(59_000);
    expect(ended).toBe(false);
    await jest.advanceTimersByTimeAsync(2000);
    expect(ended).toBe(true);
  });
});
