/** @jest-environment jsdom */
import { followEvents } from './events';

/** An event line as browsers have it; jsdom has none. */
class Line {
  static readonly all: Line[] = [];
  onmessage: ((event: { data: string }) => void) | null = null;
  onerror: (() => void) | null = null;
  closed = false;
  constructor(readonly address: string) {
    Line.all.push(this);
  }
  say(message: unknown): void {
    this.onmessage?.({ data: JSON.stringify(message) });
  }
  close(): void {
    this.closed = true;
  }
}
const open = () => Line.all.filter(({ closed }) => !closed);
const look = (hidden: boolean) => {
  Object.defineProperty(document, 'hidden', { value: hidden, configurable: true });
  document.dispatchEvent(new Event('visibilitychange'));
};

let after = 0;
const on = { message: jest.fn((number: number) => (after = number)), lost: jest.fn() };
let stop: () => void;
beforeEach(() => {
  jest.useFakeTimers();
  jest.spyOn(Math, 'random').mockReturnValue(0.5);
  Object.assign(globalThis, { EventSource: Line });
  Line.all.length = 0;
  after = 0;
  on.message.mockClear();
  on.lost.mockClear();
  look(false);
  stop = followEvents<number>(() => `/events?after=${after}`, on);
});
afterEach(() => {
  stop();
  jest.useRealTimers();
});

describe('an event line', () => {
  it('that breaks is called again from where it had come to', () => {
    Line.all[0]!.say(7);
    expect(on.message).toHaveBeenCalledWith(7);
    Line.all[0]!.onerror!();
    expect(on.lost).toHaveBeenCalledTimes(1);
    expect(open()).toHaveLength(0);
    jest.advanceTimersByTime(1000);
    expect(open().map(({ address }) => address)).toEqual(['/events?after=7']);
  });

  it('waits longer after each failure, at most twenty seconds and a bit, and begins anew after a word', () => {
    const waits: number[] = [];
    for (let failure = 0; failure < 8; failure++) {
      const [line] = open();
      line!.onerror!();
      let waited = 0;
      while (open().length === 0) {
        jest.advanceTimersByTime(500);
        waited += 500;
      }
      waits.push(waited);
    }
    expect(waits).toEqual([1000, 2000, 4000, 8000, 16_000, 20_000, 20_000, 20_000]);
    open()[0]!.say(1);
    open()[0]!.onerror!();
    jest.advanceTimersByTime(1000);
    expect(open()).toHaveLength(1);
  });

  it('that is silent is dead, however open it looks; a heartbeat keeps it', () => {
    for (let beat = 0; beat < 4; beat++) {
      jest.advanceTimersByTime(14_000);
      open()[0]!.say(0);
    }
    expect(on.lost).not.toHaveBeenCalled();
    jest.advanceTimersByTime(15_000);
    expect(on.lost).toHaveBeenCalledTimes(1);
    expect(Line.all[0]!.closed).toBe(true);
  });

  it('is not held by a page that nobody looks at, and taken up at once when somebody does', () => {
    look(true);
    expect(open()).toHaveLength(0);
    jest.advanceTimersByTime(600_000);
    expect(Line.all).toHaveLength(1);
    look(false);
    expect(open()).toHaveLength(1);
  });

  it('is taken up at once when the network is back', () => {
    for (let failure = 0; failure < 6; failure++) {
      open()[0]?.onerror!();
      jest.advanceTimersByTime(20_000);
    }
    open()[0]?.onerror!();
    window.dispatchEvent(new Event('online'));
    expect(open()).toHaveLength(1);
  });

  it('ends when it is no longer followed', () => {
    stop();
    expect(open()).toHaveLength(0);
    look(false);
    window.dispatchEvent(new Event('online'));
    jest.advanceTimersByTime(60_000);
    expect(Line.all).toHaveLength(1);
  });
});

describe('why a line ended', () => {
  it.each([
    [401, 1],
    [200, 0],
    [503, 0],
  ])('is asked, and an answer of %s means signed out %s times', async (status, times) => {
    const signedOut = jest.fn();
    const answer = { status, json: () => Promise.resolve({}) };
    Object.assign(globalThis, { fetch: jest.fn(() => Promise.resolve(answer)) });
    const leave = followEvents<number>(() => '/events', { ...on, signedOut });
    Line.all.at(-1)!.onerror!();
    await jest.advanceTimersByTimeAsync(0);
    expect(fetch).toHaveBeenCalledWith('/api/session', expect.anything());
    expect(signedOut).toHaveBeenCalledTimes(times);
    leave();
  });
});
