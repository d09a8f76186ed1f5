import { keepSource, keptSource } from './liveSource';
import { choosePlug, openPlug, reachesPlugs } from './plug';

/** What of a browser these need. */
const browser: Record<string, unknown> = {};
const kept = new Map<string, string>();
const storage = {
  getItem: (key: string) => kept.get(key) ?? null,
  setItem: (key: string, value: string) => void kept.set(key, value),
};
const given = (serial: unknown) => void (browser.serial = serial);
beforeAll(() => {
  Object.defineProperty(globalThis, 'navigator', { value: browser, configurable: true });
  Object.defineProperty(globalThis, 'localStorage', { value: storage, configurable: true });
});
afterEach(() => {
  delete browser.serial;
  kept.clear();
});

describe('a plug of this device', () => {
  it('is not to be had where the browser reaches none', async () => {
    expect(reachesPlugs()).toBe(false);
    await expect(openPlug({ speech: 'lines', baudRate: 9600 })).rejects.toThrow('reaches no serial plug');
  });
  it('is asked for once; a question that is closed is no failure', async () => {
    given({ requestPort: jest.fn().mockResolvedValueOnce({}).mockRejectedValueOnce(new Error('closed')) });
    expect(reachesPlugs()).toBe(true);
    expect(await choosePlug()).toBe(true);
    expect(await choosePlug()).toBe(false);
  });
  it('that was allowed before is opened as it talks', async () => {
    const lines = ['3.2 V\n'];
    const port = {
      open: jest.fn(() => Promise.resolve()),
      close: jest.fn(() => Promise.resolve()),
      readable: {
        getReader: () => ({
          read: () =>
            lines.length > 0
              ? Promise.resolve({ done: false, value: new TextEncoder().encode(lines.shift()) })
              : new Promise(() => undefined),
          cancel: () => Promise.resolve(),
          releaseLock: () => undefined,
        }),
      },
      writable: { getWriter: () => ({ write: () => Promise.resolve(), releaseLock: () => undefined }) },
    };
    given({ getPorts: () => Promise.resolve([port]) });
    const meter = await openPlug({ speech: 'lines', baudRate: 2400 });
    expect(port.open).toHaveBeenCalledWith({ baudRate: 2400 });
    expect(await meter.read()).toEqual({ mode: { measures: 'volts' }, value: 3.2 });
    given({ getPorts: () => Promise.resolve([]) });
    await expect(openPlug({ speech: 'scpi', baudRate: 9600 })).rejects.toThrow('no plug is chosen');
  });
});

describe('the kept source', () => {
  it('comes back as it was, and is typing where it is damaged', () => {
    for (const source of [
      { from: 'typed' },
      { from: 'shop' },
      { from: 'plug', speech: 'scpi', baudRate: 9600 },
    ] as const) {
      keepSource(source);
      expect(keptSource()).toEqual(source);
    }
    for (const text of [
      '{',
      'null',
      '7',
      '{"from":"moon"}',
      '{"from":"plug","speech":"scpi","baudRate":7}',
    ]) {
      kept.set('spiraxis-live-meter', text);
      expect(keptSource()).toEqual({ from: 'typed' });
    }
  });
});
