/** A quantity over time: seconds that rise, and a value at each. */
export interface Trace {
  seconds: readonly number[];
  values: readonly number[];
}

/** A trace's value at a moment, straight between the points around it; its ends beyond them. */
export function traceAt({ seconds, values }: Trace, at: number): number {
  let [low, high] = [0, seconds.length - 1];
  if (at <= seconds[0]!) return values[0]!;
  if (at >= seconds[high]!) return values[high]!;
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (seconds[middle]! <= at) low = middle;
    else high = middle;
  }
  const share = (at - seconds[low]!) / (seconds[high]! - seconds[low]!);
  return values[low]! + share * (values[high]! - values[low]!);
}

/** The trace at even steps, as an instrument takes it. */
export function sampled(trace: Trace, stepSeconds: number): Trace {
  const [begin, end] = [trace.seconds[0]!, trace.seconds.at(-1)!];
  const count = Math.floor((end - begin) / stepSeconds + 1e-9) + 1;
  const seconds = Array.from({ length: count }, (_one, k) => begin + k * stepSeconds);
  return { seconds, values: seconds.map((at) => traceAt(trace, at)) };
}
