import type { AddressInfo, Server } from 'node:net';
import type { Test } from '@/core/circuit/schema';
import type { MeterReport } from '@/core/instrument/meterReport';
import { Recording, traceOfRecorded } from '@/core/instrument/recorded';
import { singleCoil } from '@/core/templates/electrical';
import { serveMeter } from '@/devices/meter/simulator';
import { SimulatedMeter } from '@/devices/meter/simulatedMeter';
import { addressOf } from '@/devices/tcpChannel';
import { meterEvents, placeAsked, turnMeter } from './server';

jest.mock('../serverLog', () => ({ log: { info: jest.fn(), warn: jest.fn(), error: jest.fn() } }));

const SUPPLY = { kind: 'volts', from: 'X1.1:2', to: 'GND', setup: { controls: { key: 'on' } } } as const;
const meter = new SimulatedMeter([{ machine: 'T-1', name: 'Valve', circuit: singleCoil(), edits: [] }]);
let server: Server;
beforeAll(
  () =>
    new Promise<void>((resolve) => {
      server = serveMeter(meter).listen(0, '127.0.0.1', resolve);
    }),
);
afterAll(() => new Promise((resolve) => server.close(resolve)));
beforeEach(() => {
  process.env.SPIRAXIS_METER = `127.0.0.1:${(server.address() as AddressInfo).port}`;
});
afterEach(() => {
  delete process.env.SPIRAXIS_METER;
});

/** Reports until one satisfies; then the page is left. */
async function until(
  place: Parameters<typeof meterEvents>[0],
  enough: (report: MeterReport) => boolean,
): Promise<MeterReport> {
  const leave = new AbortController();
  const reader = meterEvents(place, leave.signal).getReader();
  const decoder = new TextDecoder();
  for (let line = 0; line < 200; line++) {
    const { value } = await reader.read();
    const report = JSON.parse(decoder.decode(value).replace(/^data: /, '')) as MeterReport;
    if (!enough(report)) continue;
    leave.abort();
    return report;
  }
  throw new Error('it never came');
}

describe('the shop’s meter at the server', () => {
  it('stands where the server’s own settings say, and nowhere else', () => {
    expect(addressOf('127.0.0.1:5025')).toEqual({ host: '127.0.0.1', port: 5025 });
    expect(addressOf('[::1]:5025')).toEqual({ host: '::1', port: 5025 });
    expect(addressOf('bench meter')).toBeNull();
    expect(addressOf('')).toBeNull();
  });
  it('sends values of the points that the page asks about, and is turned', async () => {
    const place = { machine: 'T-1', function: 'Valve', test: SUPPLY, pace: 'eye' as const };
    const volts = await until(place, ({ samples }) => samples.length >= 2);
    expect(volts).toMatchObject({ simulated: true, turns: true, lost: null });
    expect(Math.abs(Number(volts.samples.at(-1)!.value) - 12.5)).toBeLessThan(0.4);
    await turnMeter({ measures: 'ohms' });
    expect(meter.mode).toEqual({ measures: 'ohms' });
    await turnMeter({ measures: 'volts', coupling: 'dc' });
  });
  it('whose leads cannot stand there says why; one that is not there too', async () => {
    const nowhere = await until(
      { machine: 'Q-9', function: 'Valve', test: SUPPLY, pace: 'eye' as const },
      ({ lost }) => lost !== null && lost !== 'the meter is being called',
    );
    expect(nowhere.lost).toMatch(/no function Valve on Q-9/);
    expect(nowhere.samples).toEqual([]);
    process.env.SPIRAXIS_METER = '127.0.0.1:1';
    const gone = { machine: 'T-1', function: 'Valve', test: null, pace: 'eye' as const };
    expect((await until(gone, ({ lost }) => lost?.includes('nobody answers') ?? false)).samples).toEqual([]);
    await expect(turnMeter({ measures: 'ohms' })).rejects.toMatchObject({ status: 503 });
    delete process.env.SPIRAXIS_METER;
    await until(gone, ({ lost }) => lost === 'no meter is set up at this server');
    await expect(turnMeter({ measures: 'ohms' })).rejects.toMatchObject({ status: 404 });
  });
  it('records as fast as values come, switched on and off meanwhile', async () => {
    const clamp: Test = { kind: 'amps', through: 'Y1', setup: { controls: { key: 'on' } } };
    const place = { machine: 'T-1', function: 'Valve', test: clamp, pace: 'recording' as const };
    await turnMeter({ measures: 'amps', coupling: 'dc' });
    const seen = new Recording();
    await until(place, ({ samples, count }) => {
      seen.take(samples, count);
      return seen.seconds > 1 && seen.samples.length > 40;
    });
    const { values } = traceOfRecorded(seen.samples, { measures: 'amps', coupling: 'dc' });
    expect(values.length).toBeGreaterThan(20);
    expect(Math.abs(values[0]!)).toBeLessThan(0.1);
    expect(values.at(-1)!).toBeGreaterThan(1);
    await turnMeter({ measures: 'volts', coupling: 'dc' });
  });
  it('a place that is none is refused with the field', () => {
    const ask = (query: string) => () => placeAsked(new URL(`http://127.0.0.1/api/meter?${query}`));
    expect(ask('machine=T-1&function=Valve&test={')).toThrow(/test: is no JSON/);
    expect(ask('function=Valve')).toThrow(/machine/);
    expect(ask('machine=T-1&function=Valve&test={"kind":"volts"}')).toThrow(/test/);
    const test = encodeURIComponent(JSON.stringify(SUPPLY));
    expect(ask(`machine=T-1&function=Valve&test=${test}`)()).toEqual({
      machine: 'T-1',
      function: 'Valve',
      test: SUPPLY,
      pace: 'eye',
    });
  });
});
