import { z } from 'zod';
import { significant } from '../units/significant';
import { thinned } from './coilFeatures';
import { sampled, type Trace } from './trace';

/** Points that a kept trace has at the most. */
export const MOST_KEPT = 2400;
const DIGITS = 4;

/** A trace as it is kept: from a moment on, at even steps. */
export const keptTrace = z.object({
  beginSeconds: z.number().min(-1e5).max(1e5),
  stepSeconds: z.number().positive().max(1e4),
  values: z.array(z.number().min(-1e6).max(1e6)).min(8).max(MOST_KEPT),
});
export type KeptTrace = z.infer<typeof keptTrace>;

/** A trace at even steps and in few enough points to be kept; what is finer is taken together. */
export function keepTrace(trace: Trace): KeptTrace {
  const { seconds, values } = thinned(trace);
  const span = seconds.at(-1)! - seconds[0]!;
  const count = Math.min(MOST_KEPT, Math.max(seconds.length, 8));
  const even = sampled({ seconds, values }, (span / (count - 1)) * (1 - 1e-12));
  return {
    beginSeconds: significant(seconds[0]!, 9),
    stepSeconds: significant(span / (count - 1), 9),
    values: even.values.slice(0, MOST_KEPT).map((value) => significant(value, DIGITS)),
  };
}

export function traceOfKept({ beginSeconds, stepSeconds, values }: KeptTrace): Trace {
  return { seconds: values.map((_one, k) => beginSeconds + k * stepSeconds), values };
}
