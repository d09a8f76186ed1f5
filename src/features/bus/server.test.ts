import type { AddressInfo } from 'node:net';
import type { BusReport } from '@/core/codes/busWatch';
import { driverHighSide } from '@/core/templates/electrical';
import { SimulatedMachine } from '@/devices/bus/simulatedMachine';
import { serveMachines } from '@/devices/bus/simulator';
import { busAdapter, busEvents, tellBus } from './server';

jest.mock('../serverLog', () => ({ log: { info: jest.fn(), warn: jest.fn(), error: jest.fn() } }));

const before = process.env;
beforeEach(() => {
  const { SPIRAXIS_CAN: _can, SPIRAXIS_CAN_BIT_RATE: _rate, SPIRAXIS_BUS_PORT: _port, ...others } = before;
  process.env = others as typeof process.env;
});
afterAll(() => {
  process.env = before;
});

describe('the bus of this installation', () => {
  it('is none, the simulated one, or an adapter that is really there, which goes first', () => {
    expect(busAdapter()).toBeNull();
    process.env.SPIRAXIS_BUS_PORT = '33070';
    expect(busAdapter()).toMatchObject({ name: 'Simulated bus' });
    process.env.SPIRAXIS_CAN = '10.0.4.7:3333';
    expect(busAdapter()!.name).toBe('CAN adapter at the server');
    // A real machine is put into a position by hand.
    expect(busAdapter()!.handle).toBeUndefined();
  });
  it('with a bit rate that is none is silent and says so, and no other one is made up', () => {
    process.env.SPIRAXIS_CAN = '10.0.4.7:3333';
    process.env.SPIRAXIS_CAN_BIT_RATE = '300k';
    const told: string[] = [];
    const nothing = () => undefined;
    busAdapter()!.open('G-1', { onUp: nothing, onLine: nothing, onLost: (why) => told.push(why) });
    expect(told).toEqual([
      expect.stringMatching(/^SPIRAXIS_CAN_BIT_RATE is 300k; give one of 10000, .*250000/),
    ]);
  });
});

describe('a question to a bus', () => {
  it('goes out over the way that a page holds open, and nothing else ever does', async () => {
    const machine = new SimulatedMachine(
      [{ name: 'Float', circuit: driverHighSide(), edits: [], components: new Map() }],
      0x21,
      [[520330, 31]],
    );
    const server = serveMachines(new Map([['G-1', machine]]));
    const port = await new Promise<number>((resolve) =>
      server.listen(0, '127.0.0.1', () => resolve((server.address() as AddressInfo).port)),
    );
    process.env.SPIRAXIS_BUS_PORT = String(port);
    const ask = (body: object) => tellBus('G-1', JSON.stringify(body));
    expect((await ask({ ask: 'earlier' })).trouble).toMatch(/Nobody listens.*nothing was asked/);
    const leave = new AbortController();
    const reader = busEvents('G-1', leave.signal).getReader();
    const decoder = new TextDecoder();
    const until = async (check: (report: BusReport) => boolean) => {
      for (let line = 0; line < 100; line++) {
        const { value } = await reader.read();
        const report = JSON.parse(decoder.decode(value).replace(/^data: /, '')) as BusReport;
        if (check(report)) return report;
      }
      throw new Error('it never came');
    };
    await until(({ lost }) => lost === null);
    // Codes are cleared by nobody from here, nor is any other group asked for.
    for (const other of [{ ask: 'clear' }, { ask: 65228 }, { ask: '' }])
      expect((await ask(other)).trouble).not.toBeNull();
    expect(await ask({ ask: 'earlier' })).toEqual({ trouble: null });
    expect((await until(({ earlier }) => earlier !== null)).earlier).toEqual([]);
    leave.abort();
    expect((await ask({ ask: 'earlier' })).trouble).toMatch(/Nobody listens/);
    await new Promise((resolve) => server.close(resolve));
  });
});
