import { expose } from 'comlink';
import { singleCoil } from '@/core/templates/electrical';
import { DiagnosisClient } from './diagnosisClient';
import { makeDiagnosisService } from './diagnosisService';
import { readLog } from './logClient';
import { justDrawn } from './protocol';

type Behaviour = 'answers' | 'hangs' | 'crashes' | 'refuses';

/** A worker as the browser gives it: a port to the real service, or one that fails in one of the ways workers fail. */
class StandInWorker {
  static behaviour: Behaviour = 'answers';
  static service: () => object = () => makeDiagnosisService(2);
  static made: StandInWorker[] = [];
  onerror: ((event: { message: string; preventDefault: () => void }) => void) | null = null;
  ended = false;
  private readonly channel = new MessageChannel();

  constructor() {
    StandInWorker.made.push(this);
    const { behaviour, service } = StandInWorker;
    if (behaviour === 'answers' || behaviour === 'refuses') expose(service(), this.channel.port2);
    if (behaviour === 'crashes')
      setTimeout(() => this.onerror?.({ message: 'out of memory', preventDefault: () => undefined }), 5);
  }
  postMessage(message: unknown, transfer: Transferable[] = []) {
    this.channel.port1.postMessage(message, transfer);
  }
  addEventListener(type: 'message', listener: (event: MessageEvent) => void) {
    this.channel.port1.addEventListener(type, listener);
    this.channel.port1.start();
  }
  removeEventListener(type: 'message', listener: (event: MessageEvent) => void) {
    this.channel.port1.removeEventListener(type, listener);
  }
  terminate() {
    this.ended = true;
    this.channel.port1.close();
    this.channel.port2.close();
  }
}

/** Ports that stay open would keep the test from ending: comlink makes some of its own. */
const channels: MessageChannel[] = [];
const before = { Worker: globalThis.Worker, MessageChannel: globalThis.MessageChannel };
class CountedChannel extends before.MessageChannel {
  constructor() {
    super();
    channels.push(this);
  }
}

const circuit = singleCoil();
const known = justDrawn(circuit);
beforeAll(() => {
  globalThis.Worker = StandInWorker as unknown as typeof Worker;
  globalThis.MessageChannel = CountedChannel;
});
afterAll(() => {
  Object.assign(globalThis, before);
  for (const { port1, port2 } of channels) {
    port1.close();
    port2.close();
  }
});
beforeEach(() => {
  StandInWorker.made = [];
  StandInWorker.behaviour = 'answers';
  StandInWorker.service = () => makeDiagnosisService(2);
});
afterEach(() => {
  jest.useRealTimers();
  for (const worker of StandInWorker.made) worker.terminate();
});

describe('the calculation in its worker', () => {
  it('is asked through one worker, and answers with data', async () => {
    const client = new DiagnosisClient();
    const answer = await client.weigh(known, [], { most: 3 });
    expect(answer).toMatchObject({ ok: true });
    if (answer.ok) expect(answer.value.diagnosis.next.length).toBeGreaterThan(0);
    const powered = await client.evaluate(known, [], { kind: 'ohms', from: 'B+', to: 'GND', setup: {} });
    // Input that makes no sense comes back as a sentence, not as a crash.
    expect(powered).toMatchObject({ ok: false, input: true, message: expect.stringMatching(/powered/) });
    expect(StandInWorker.made).toHaveLength(1);
    client.close();
    expect(StandInWorker.made[0]!.ended).toBe(true);
  });

  it('that crashes says so to everybody who waits, and the next question gets a new worker', async () => {
    StandInWorker.behaviour = 'crashes';
    const client = new DiagnosisClient();
    const waiting = [client.weigh(known, [], {}), client.weigh(known, [], {})];
    const message = 'The calculation stopped: out of memory.';
    expect(await Promise.all(waiting)).toEqual([
      { ok: false, input: false, message },
      { ok: false, input: false, message },
    ]);
    StandInWorker.behaviour = 'answers';
    expect(await client.weigh(known, [], { most: 1 })).toMatchObject({ ok: true });
    expect(StandInWorker.made).toHaveLength(2);
    client.close();
  });

  it('that hangs is ended after its time', async () => {
    jest.useFakeTimers({ doNotFake: ['setImmediate', 'queueMicrotask', 'nextTick'] });
    StandInWorker.behaviour = 'hangs';
    const client = new DiagnosisClient();
    const answer = client.weigh(known, [], {});
    jest.advanceTimersByTime(31_000);
    expect(await answer).toEqual({
      ok: false,
      input: false,
      message: 'The calculation took too long and was stopped.',
    });
    expect(StandInWorker.made[0]!.ended).toBe(true);
  });

  it('is ended when the page leaves, and whoever waits is told', async () => {
    StandInWorker.behaviour = 'hangs';
    const client = new DiagnosisClient();
    const answer = client.weigh(known, [], {});
    client.close();
    expect(await answer).toEqual({ ok: false, input: false, message: 'The calculation was stopped.' });
  });
});

describe('a circuit', () => {
  it('goes to the worker once, and again only where the worker let it go', async () => {
    let opened = 0;
    StandInWorker.service = () => {
      const service = makeDiagnosisService(1);
      return { ...service, open: (one: typeof known) => (opened++, service.open(one)) };
    };
    const client = new DiagnosisClient();
    const other = singleCoil({ volts: 24, ohms: 30 });
    for (let k = 0; k < 3; k++)
      expect(await client.weigh(known, [], { most: 1 })).toMatchObject({ ok: true });
    expect(opened).toBe(1);
    await client.weigh(justDrawn(other), [], { most: 1 });
    expect(await client.weigh(known, [], { most: 1 })).toMatchObject({ ok: true });
    expect(opened).toBe(3);
    client.close();
  });
});

describe('a log being read', () => {
  const file = new Blob(['nothing']);

  it('gives its summary with its progress, and ends its worker', async () => {
    StandInWorker.service = () => ({
      read: async (_file: Blob, onProgress: (share: number) => Promise<void>) => {
        await onProgress(0.5);
        return { frames: 3 };
      },
    });
    const seen: number[] = [];
    const run = readLog(file, (share) => seen.push(share));
    expect(await run.answer).toEqual({ ok: true, value: { frames: 3 } });
    expect(seen).toEqual([0.5]);
    expect(StandInWorker.made[0]!.ended).toBe(true);
  });

  it('that cannot be read comes back as a sentence', async () => {
    StandInWorker.service = () => ({
      read: () => {
        throw new Error('the file went away');
      },
    });
    expect(await readLog(file, () => undefined).answer).toEqual({
      ok: false,
      input: false,
      message: 'The log could not be read: the file went away.',
    });
    StandInWorker.behaviour = 'crashes';
    expect(await readLog(file, () => undefined).answer).toMatchObject({
      ok: false,
      message: 'The log could not be read: out of memory.',
    });
  });

  it('is stopped by the person without a trace', async () => {
    StandInWorker.behaviour = 'hangs';
    const run = readLog(file, () => undefined);
    run.cancel();
    expect(await run.answer).toEqual({ ok: false, input: true, message: 'Stopped. Nothing was kept.' });
    expect(StandInWorker.made[0]!.ended).toBe(true);
  });
});
