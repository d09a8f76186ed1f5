import type { MeterReport } from '@/core/instrument/meterReport';
import type { MeterSample } from '@/core/instrument/meterMode';
import type { Instrument } from '@/devices/meter/instrument';
import { followInstrument } from './follow';

const volts = (value: number): MeterSample => ({ mode: { measures: 'volts', coupling: 'dc' }, value });

/** An instrument that shows what it is given, then is lost. */
function showing(samples: (MeterSample | null)[]): Instrument {
  const left = [...samples];
  return {
    identify: () => Promise.resolve('Bench'),
    mode: () => Promise.resolve(null),
    read: () =>
      left.length > 0 ? Promise.resolve(left.shift()!) : Promise.reject(new Error('the plug was pulled')),
    close: jest.fn(),
  };
}

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

describe('an instrument that is followed', () => {
  it('gives its values as they come, those of another dial apart, and says when it is lost', async () => {
    const told: MeterReport[] = [];
    const first = showing([volts(1), volts(2), null, volts(3), { mode: { measures: 'ohms' }, value: 'OL' }]);
    const opened = jest.fn(() => Promise.resolve(first));
    const stop = followInstrument(
      opened,
      () => Promise.resolve({ simulated: false }),
      (one) => told.push(one),
    );
    await jest.advanceTimersByTimeAsync(1000);
    expect(told[0]).toMatchObject({ name: 'Bench', turns: false, lost: null, samples: [] });
    expect(told.slice(1).map(({ samples, count }) => [samples.map(({ value }) => value), count])).toEqual([
      [[1], 1],
      [[1, 2], 2],
      [[], 2],
      [[3], 3],
      [['OL'], 4],
    ]);
    await jest.advanceTimersByTimeAsync(300);
    expect(told.at(-1)).toMatchObject({ lost: 'the plug was pulled', samples: [] });
    expect(first.close).toHaveBeenCalled();
    stop();
  });
  it('that is lost is called again, and no value of before stays', async () => {
    const told: MeterReport[] = [];
    const ways = [
      () => Promise.reject(new Error('nobody is there')),
      () => Promise.resolve(showing([volts(5)])),
    ];
    const opened = jest.fn(() => (ways.shift() ?? (() => Promise.resolve(showing([volts(7)]))))());
    const stop = followInstrument(
      opened,
      () => Promise.resolve({ simulated: true }),
      (one) => told.push(one),
    );
    await jest.advanceTimersByTimeAsync(100);
    expect(told.at(-1)).toMatchObject({ lost: 'nobody is there', samples: [] });
    await jest.advanceTimersByTimeAsync(600);
    expect(told.at(-1)).toMatchObject({ lost: null, samples: [volts(5)] });
    await jest.advanceTimersByTimeAsync(1500);
    expect(told.at(-1)!.samples).not.toContainEqual(volts(5));
    expect(opened.mock.calls.length).toBeGreaterThanOrEqual(3);
    stop();
    const calls = opened.mock.calls.length;
    const said = told.length;
    await jest.advanceTimersByTimeAsync(60_000);
    expect(opened.mock.calls).toHaveLength(calls);
    expect(told).toHaveLength(said);
  });
});
