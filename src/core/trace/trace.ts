import { valueAt } from '../transient/run';

/** A quantity over time: seconds that rise, and a value at each. */
export interface Trace {
  seconds: readonly number[];
  values: readonly number[];
}

/** A trace's value at a moment. */
export function traceAt({ seconds, values }: Trace, at: number): number {
  return valueAt(seconds, values, at);
}

/** The trace at even steps, as an instrument takes it. */
export function sampled(trace: Trace, stepSeconds: number): Trace {
  const [begin, end] = [trace.seconds[0]!, trace.seconds.at(-1)!];
  const count = Math.floor((end - begin) / stepSeconds + 1e-9) + 1;
  const seconds = Array.from({ length: count }, (_one, k) => begin + k * stepSeconds);
  return { seconds, values: seconds.map((at) => traceAt(trace, at)) };
}
