import { connect, createServer, type AddressInfo, type Server } from 'node:net';
import { CircuitModel } from '@/core/circuit/model';
import type { Test } from '@/core/circuit/schema';
import { faultByName, listFaults } from '@/core/diagnosis/faults';
import { singleCoil } from '@/core/templates/electrical';
import type { LineChannel } from '../lineChannel';
import { serialChannel } from '../serialChannel';
import { tcpChannel } from '../tcpChannel';
import { plainInstrument } from './plainInstrument';
import { scpiInstrument } from './scpiInstrument';
import { METER_NAME, placeCommand, serveMeter } from './simulator';
import { Leads, SimulatedMeter } from './simulatedMeter';

const circuit = singleCoil();
const on = { controls: { key: 'on' } };
const SUPPLY: Test = { kind: 'volts', from: 'X1.1:2', to: 'GND', setup: on };
const COIL: Test = {
  kind: 'ohms',
  from: 'X1.1:2',
  to: 'Y1:2',
  setup: { isolated: ['G1'], unplugged: ['X1'] },
};

function meterWith(part?: string, fault?: string) {
  const found = part && fault ? faultByName(listFaults(new CircuitModel(circuit)), part, fault) : null;
  const edits = found ? found.fault.variants[0]!.edits(found.severity) : [];
  return new SimulatedMeter([{ machine: 'T-1', name: 'Valve', circuit, edits }]);
}

const listening: Server[] = [];
const listen = (server: Server) =>
  new Promise<number>((resolve) =>
    server.listen(0, '127.0.0.1', () => {
      listening.push(server);
      resolve((server.address() as AddressInfo).port);
    }),
  );
afterEach(async () => {
  await Promise.all(
    listening.splice(0).map((server) => new Promise((resolve) => server.close(() => resolve(null)))),
  );
});

describe('a simulated bench meter', () => {
  it('shows what the circuit has at its leads, on the dial it stands on', () => {
    const meter = meterWith();
    const leads = meter.stand('T-1', 'Valve', SUPPLY);
    expect(Math.abs(Number(leads.show()) - 12.5)).toBeLessThan(0.4);
    meter.mode = { measures: 'ohms' };
    // Ohms on what is live show nothing that counts.
    expect(leads.show()).toBe('OL');
    meter.mode = { measures: 'amps', coupling: 'dc' };
    expect(leads.show()).toBe(0);
    meter.mode = { measures: 'ohms' };
    expect(Number(meter.stand('T-1', 'Valve', COIL).show())).toBeCloseTo(9, 0);
  });
  it('finds the hidden fault, and has a hand of its own at each place', () => {
    const open = meterWith('Y1', 'open');
    open.mode = { measures: 'ohms' };
    expect(open.stand('T-1', 'Valve', COIL).show()).toBe('OL');
    const leads = meterWith().stand('T-1', 'Valve', SUPPLY);
    const shown = Array.from({ length: 20 }, () => Number(leads.show()));
    expect(new Set(shown).size).toBeGreaterThan(10);
    expect(Math.max(...shown) - Math.min(...shown)).toBeLessThan(0.05);
  });
  it('what is switched on and off waits for whoever reads slowly', () => {
    const meter = meterWith();
    meter.mode = { measures: 'amps', coupling: 'dc' };
    const clamp: Test = { kind: 'amps', through: 'Y1', setup: on };
    let now = 0;
    const leads = new Leads(meter, new CircuitModel(circuit), [], clamp, true, () => now);
    const shown = Array.from({ length: 300 }, () => {
      now += 700;
      return Number(leads.show());
    });
    const starts = shown.filter((value, k) => k > 0 && value > 0.5 && shown[k - 1]! <= 0.5);
    expect(starts).toHaveLength(3);
    expect(shown.filter((value) => value > 0.5).length).toBeGreaterThan(150);
  });
  it('refuses a machine, a point and a test that are not there', () => {
    const meter = meterWith();
    expect(() => meter.stand('Q-9', 'Valve', SUPPLY)).toThrow(/no function "Valve" on "Q-9"/);
    expect(() => meter.stand('T-1', 'Valve', { kind: 'volts' })).toThrow();
    expect(meter.stand('T-1', 'Valve', { ...SUPPLY, from: 'X99' }).show()).toBe('OL');
  });
});

describe('SCPI over a socket', () => {
  it('is identified, turned, placed and read; refuses in its own words; goes on after that', async () => {
    const port = await listen(serveMeter(meterWith()));
    const one = scpiInstrument(tcpChannel({ host: '127.0.0.1', port }));
    const other = scpiInstrument(tcpChannel({ host: '127.0.0.1', port }));
    try {
      expect(await one.identify()).toBe(METER_NAME);
      expect(await one.mode()).toEqual({ measures: 'volts', coupling: 'dc' });
      await one.tell(placeCommand('T-1', 'Valve', SUPPLY));
      const sample = await one.read();
      expect(sample!.mode).toEqual({ measures: 'volts', coupling: 'dc' });
      expect(Math.abs(Number(sample!.value) - 12.5)).toBeLessThan(0.4);
      // Leads are one person's, the dial is one for all.
      expect((await other.read())!.value).toBe(0);
      await other.turnTo({ measures: 'ohms' });
      expect(await one.mode()).toEqual({ measures: 'ohms' });
      await expect(one.tell(placeCommand('Q-9', 'Valve', SUPPLY))).rejects.toThrow(/no function/);
      await expect(one.tell('CONF:TEMP')).rejects.toThrow(/-224/);
      await expect(one.tell('HELLO')).rejects.toThrow(/-113,"Undefined header"/);
      expect((await one.read())!.value).toBe(0);
    } finally {
      one.close();
      other.close();
    }
  });
  it('speaks the standard to others too: several commands a line, short and long names, any case', async () => {
    const port = await listen(serveMeter(meterWith()));
    const answers = await new Promise<string[]>((resolve) => {
      const socket = connect(port, '127.0.0.1', () =>
        socket.write(
          '*CLS;:meas:volt:dc?;SENSe:FUNCtion?\nFUNC "RES"\nCONF?\n*RST\nfunc?\nNO:SUCH\n*OPC?\nSYST:ERR?\nSYST:ERR?\n',
        ),
      );
      const lines: string[] = [];
      let text = '';
      socket.on('data', (piece) => {
        text += String(piece);
        lines.splice(0, lines.length, ...text.split('\n').slice(0, -1));
        if (lines.length === 7) socket.end(() => resolve(lines));
      });
    });
    expect(answers).toEqual([
      '+0.00000000E+00',
      '"VOLT:DC"',
      '"RES +1.0E+01,+1.0E-05"',
      '"VOLT:DC"',
      '1',
      '-113,"Undefined header"',
      '0,"No error"',
    ]);
  });
  it('that says nothing is given up, and nobody there is said', async () => {
    const port = await listen(createServer((socket) => socket.on('error', () => undefined).resume()));
    const silent = scpiInstrument(tcpChannel({ host: '127.0.0.1', port }), 60);
    await expect(silent.identify()).rejects.toThrow(/does not answer/);
    await expect(silent.read()).rejects.toThrow(/does not answer/);
    silent.close();
    const nobody = scpiInstrument(tcpChannel({ host: '127.0.0.1', port: 1 }));
    await expect(nobody.identify()).rejects.toThrow(/nobody answers/);
  });
});

/** A channel whose other end is this test. */
function ownChannel() {
  let on: Parameters<LineChannel['listen']>[0] | null = null;
  const channel: LineChannel = { send: jest.fn(), listen: (given) => (on = given), close: jest.fn() };
  return { channel, say: (line: string) => on!.line(line), lose: (why: string) => on!.lost(why) };
}

describe('a meter that sends lines', () => {
  it('gives each value once, and none that is old', async () => {
    let now = 0;
    const { channel, say } = ownChannel();
    const meter = plainInstrument(channel, () => now);
    say('27.41 VDC');
    say('27.42 VDC');
    expect(await meter.read()).toEqual({ mode: { measures: 'volts', coupling: 'dc' }, value: 27.42 });
    const next = meter.read();
    say('garbage');
    say('OL kohm');
    expect(await next).toEqual({ mode: { measures: 'ohms' }, value: 'OL' });
    say('3 V');
    now = 10_000;
    expect(await meter.read()).toBeNull();
    expect(meter.turnTo).toBeUndefined();
  });
  it('that is unplugged says so to who waits and to who asks', async () => {
    const { channel, lose } = ownChannel();
    const meter = plainInstrument(channel);
    const waiting = meter.read();
    lose('the plug was pulled');
    await expect(waiting).rejects.toThrow('the plug was pulled');
    await expect(meter.read()).rejects.toThrow('the plug was pulled');
  });
});

describe('a plug of the browser', () => {
  it('cuts what comes into lines, writes lines, and says when it is pulled', async () => {
    const written: string[] = [];
    let feed: ReadableStreamDefaultController<Uint8Array>;
    const port = {
      readable: new ReadableStream<Uint8Array>({ start: (controller) => void (feed = controller) }),
      writable: new WritableStream<Uint8Array>({
        write: (bytes) => void written.push(new TextDecoder().decode(bytes)),
      }),
      close: jest.fn(() => Promise.resolve()),
    } as unknown as SerialPort;
    const channel = serialChannel(port);
    const lines: string[] = [];
    const lost = new Promise<string>((resolve) =>
      channel.listen({ line: (line) => void lines.push(line), lost: resolve }),
    );
    channel.send('READ?');
    const bytes = new TextEncoder().encode('27.4 V\r\n6.8 kΩ\r12');
    // Cut in the middle of a sign of two bytes.
    feed!.enqueue(bytes.slice(0, 15));
    feed!.enqueue(bytes.slice(15));
    feed!.enqueue(new TextEncoder().encode(' V\n'));
    feed!.close();
    expect(await lost).toMatch(/pulled/);
    expect(lines).toEqual(['27.4 V', '6.8 kΩ', '12 V']);
    expect(written).toEqual(['READ?\n']);
  });
});
