import { busAdapter } from './server';

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
