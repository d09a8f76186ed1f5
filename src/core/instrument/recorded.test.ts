import { Recording, traceOfRecorded } from './recorded';
import type { MeterMode, TimedSample } from './meterMode';

const AMPS: MeterMode = { measures: 'amps', coupling: 'dc' };
const sample = (at: number, value: number | 'OL', mode = AMPS): TimedSample => ({ at, value, mode });
const run = Array.from({ length: 30 }, (_one, k) => sample(1000 + 20 * k, k < 10 ? 0 : 4));

describe('what is recorded from an instrument', () => {
  it('takes each value once, however its batches overlap, and goes on after it was lost', () => {
    const recording = new Recording();
    recording.take(run.slice(0, 5), 5);
    recording.take(run.slice(0, 12), 12);
    recording.take(run.slice(4, 12), 12);
    recording.take(run.slice(10, 20), 20);
    expect(recording.samples).toEqual(run.slice(0, 20));
    recording.take(run.slice(20, 23), 3);
    expect(recording.samples).toHaveLength(23);
    expect(recording.seconds).toBeCloseTo(0.44, 9);
  });

  it('begins anew where the dial was turned meanwhile', () => {
    const recording = new Recording();
    recording.take([sample(0, 12, { measures: 'volts', coupling: 'dc' }), ...run.slice(0, 4)], 5);
    expect(recording.samples).toEqual(run.slice(0, 4));
  });

  it('is a trace that begins with its first value', () => {
    const { seconds, values } = traceOfRecorded(run, AMPS);
    expect(seconds.slice(0, 3)).toEqual([0, 0.02, 0.04]);
    expect(values.at(-1)).toBe(4);
  });

  it.each([
    [
      run.map(({ at }) => sample(at, 12, { measures: 'volts', coupling: 'dc' })),
      /stood on volts.*turn it to amps/,
    ],
    [run.slice(0, 3), /gave 3 values; record until at least 8/],
    [[...run, sample(2000, 'OL')], /went over its range/],
  ])('is refused where it draws no line', (samples, why) => {
    expect(() => traceOfRecorded(samples, AMPS)).toThrow(why);
  });
});
