import { z } from 'zod';
import { significant } from '../units/significant';
import { thinned } from './coilFeatures';
import { sampled, type Trace } from './trace';

/** Points that a kept trace has at the most. */
export const MOST_KEPT = 2400;
const LEAST_KEPT = 8;
const DIGITS = 4;

/** Steps that differ by more than this are uneven: one step for all would lose a peak, or draw what nobody saw. */
const EVEN = 1.2;

/** A trace as it is kept: from a moment on, at even steps; where they are uneven, with the time of each. */
export const keptTrace = z
  .object({
    beginSeconds: z.number().min(-1e5).max(1e5),
    stepSeconds: z.number().positive().max(1e4),
    values: z.array(z.number().min(-1e6).max(1e6)).min(LEAST_KEPT).max(MOST_KEPT),
    /** Since its beginning, one of each value. */
    seconds: z.array(z.number().min(0).max(1e5)).min(LEAST_KEPT).max(MOST_KEPT).optional(),
  })
  .refine(
    ({ values, seconds }) =>
      !seconds ||
      (seconds.length === values.length && seconds.every((at, k) => k === 0 || at > seconds[k - 1]!)),
    { message: 'has one time for each value, each after the one before', path: ['seconds'] },
  );
export type KeptTrace = z.infer<typeof keptTrace>;

/** A trace in few enough points to be kept; what is finer is taken together. */
export function keepTrace(trace: Trace): KeptTrace {
  const { seconds, values } = thinned(trace);
  const steps = seconds.slice(1).map((at, k) => at - seconds[k]!);
  if (Math.max(...steps) > EVEN * Math.min(...steps) && seconds.length >= LEAST_KEPT)
    return {
      beginSeconds: significant(seconds[0]!, 9),
      stepSeconds: significant((seconds.at(-1)! - seconds[0]!) / (seconds.length - 1), 9),
      values: values.map((value) => significant(value, DIGITS)),
      seconds: seconds.map((at) => significant(at - seconds[0]!, 9)),
    };
  const span = seconds.at(-1)! - seconds[0]!;
  const count = Math.min(MOST_KEPT, Math.max(seconds.length, LEAST_KEPT));
  const even = sampled({ seconds, values }, (span / (count - 1)) * (1 - 1e-12));
  return {
    beginSeconds: significant(seconds[0]!, 9),
    stepSeconds: significant(span / (count - 1), 9),
    values: even.values.slice(0, MOST_KEPT).map((value) => significant(value, DIGITS)),
  };
}

export function traceOfKept({ beginSeconds, stepSeconds, values, seconds }: KeptTrace): Trace {
  return { seconds: values.map((_one, k) => beginSeconds + (seconds?.[k] ?? k * stepSeconds)), values };
}
