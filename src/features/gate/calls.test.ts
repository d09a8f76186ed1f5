import { signedFor } from '../people/testing/signedFor';
import { Refused } from './failure';

jest.mock('../serverLog', () => ({ log: { warn: jest.fn(), error: jest.fn() } }));

describe('calls of one device', () => {
  it('are counted, and too many are told when to go on; another device is not', async () => {
    process.env.SPIRAXIS_CALLS_A_MINUTE = '5';
    const { countCall } = await import('./calls');
    const who = signedFor();
    for (let call = 0; call < 5; call++) await countCall(who);
    const refused = await countCall(who).catch((error: unknown) => error);
    expect(refused).toBeInstanceOf(Refused);
    expect(refused).toMatchObject({ status: 429, code: 'too-many', againIn: expect.any(Number) as number });
    await countCall({ ...who, device: { ...who.device, id: 'another' } });
  });

  it.each([
    [undefined, 1200],
    ['', 1200],
    ['many', 1200],
    ['0', 1200],
    ['-5', 1200],
    ['30', 30],
  ])('a limit set to %j is %d', async (set, calls) => {
    const { callsAMinute } = await import('./calls');
    expect(callsAMinute(set)).toBe(calls);
  });
});
