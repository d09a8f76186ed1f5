import { z } from 'zod';
import { InputError } from '../../circuit/inputError';
import { dipIn, noiseOf, NOTHING_FLOWS, settledOf, withoutSpikes } from '../../trace/steady';
import type { Trace } from '../../trace/trace';
import { figure, maybe, sheetHead, type Finding, type SheetAnswer } from '../sheet';
import { median } from '../../statistics';

export const traceSheet = z.object({
  ...sheetHead('trace'),
  seconds: maybe(z.array(figure).max(500_000)),
  values: maybe(z.array(figure).max(500_000)),
  quantity: maybe(z.enum(['amps', 'volts'])),
  kind: maybe(z.enum(['inrush', 'dip', 'pwm'])),
});
export type TraceSheet = z.infer<typeof traceSheet>;

export type TraceFinding = Finding<'tooCoarse' | 'notSettled' | 'tooShort' | 'noPulses'>;

export interface TraceAnswer extends SheetAnswer {
  peak: number | null;
  settled: number | null;
  settleSeconds: number | null;
  verdict: 'ran' | 'locked' | 'nothing' | null;
  moved: boolean | null;
  dipSeconds: number | null;
  hz: number | null;
  duty: number | null;
  mean: number | null;
  ripple: number | null;
}

const NOTHING: Omit<TraceAnswer, 'findings' | 'next'> = {
  peak: null,
  settled: null,
  settleSeconds: null,
  verdict: null,
  moved: null,
  dipSeconds: null,
  hz: null,
  duty: null,
  mean: null,
  ripple: null,
};

/** Reads a trace that begins when it is switched on: how it starts and settles, whether a plunger moved, or how it is pulsed. */
export function readTrace({ seconds = [], values = [], kind }: TraceSheet): TraceAnswer {
  if (seconds.length !== values.length)
    throw new InputError(
      'values',
      `has ${values.length} points, seconds has ${seconds.length}; give one of each`,
    );
  seconds.forEach((at, k) => {
    if (k > 0 && at <= seconds[k - 1]!)
      throw new InputError(
        `seconds[${k}]`,
        `${at} does not come after ${seconds[k - 1]}; put the points in order`,
      );
  });
  if (kind === undefined) return { ...NOTHING, findings: [], next: { ask: 'kind' } };
  if (seconds.length < 4) return { ...NOTHING, findings: [{ code: 'tooShort' }], next: { ask: 'values' } };
  const trace = { seconds, values };
  switch (kind) {
    case 'inrush':
      return inrush(trace);
    case 'dip':
      return dip(trace);
    case 'pwm':
      return pwm(trace);
  }
}

/** It has settled once it stays this near. */
const NEAR_SHARE = 0.1;
/** Of the peak: it ran below, it stood still above; between nobody can say. */
const RAN = 0.6;
const LOCKED = 0.8;
/** Noise alone peaks at so many of its standard deviations, and its middle size lies under so many. */
const NOISE_PEAK = 5;
const NOISE_MIDDLE = 2;

function inrush(trace: Trace): TraceAnswer {
  const { seconds, values } = trace;
  const findings: TraceFinding[] = [];
  const sizes = values.map(Math.abs);
  const peak = Math.max(...sizes);
  // A clamp near nothing shows its own noise.
  const noise = noiseOf(values);
  if (peak <= NOTHING_FLOWS || (peak <= NOISE_PEAK * noise && median(sizes) <= NOISE_MIDDLE * noise))
    return { ...NOTHING, peak, settled: 0, settleSeconds: 0, verdict: 'nothing', findings, next: null };
  const end = settledOf({ seconds, values: sizes });
  if (!end) {
    findings.push({ code: 'notSettled' });
    return { ...NOTHING, peak, findings, next: { ask: 'values' } };
  }
  const settled = end.value;
  const room = Math.max(NEAR_SHARE * settled, 3 * end.noise, NOTHING_FLOWS);
  const lastOff = sizes.findLastIndex((value) => Math.abs(value - settled) > room);
  const settleSeconds = seconds[Math.min(lastOff + 1, seconds.length - 1)]! - seconds[0]!;
  const share = settled / peak;
  return {
    ...NOTHING,
    peak,
    settled,
    settleSeconds,
    verdict: share <= RAN ? 'ran' : share >= LOCKED ? 'locked' : null,
    findings,
    next: null,
  };
}

/** A rise of a coil's current in fewer points than this shows no dip. */
const RISE_POINTS = 12;
/** A dip is deeper than this share of where the current ends, and than the noise three times over. */
const DIP_SHARE = 0.02;

/** A plunger that moves cuts the current for a moment: a dip on its rise (reference `electrical.md` section 20). */
function dip(trace: Trace): TraceAnswer {
  const { seconds, values } = trace;
  const findings: TraceFinding[] = [];
  const sizes = values.map(Math.abs);
  const peak = Math.max(...sizes);
  const end = settledOf({ seconds, values: sizes });
  const settled = end?.value ?? null;
  if (!end) findings.push({ code: 'notSettled' });
  const size = settled ?? peak;
  if (size <= NOTHING_FLOWS) return { ...NOTHING, peak, settled, findings, next: null };
  const noise = end?.noise ?? 0;
  const smooth = withoutSpikes(sizes);
  const found = dipIn(smooth, Math.max(DIP_SHARE * size, 4 * noise));
  if (found !== null)
    return {
      ...NOTHING,
      peak,
      settled,
      moved: true,
      dipSeconds: seconds[found.low]! - seconds[0]!,
      findings,
      next: null,
    };
  const rising = smooth.filter((value) => value > 0.05 * size && value < 0.95 * size).length;
  if (rising < RISE_POINTS) {
    findings.push({ code: 'tooCoarse', points: rising, wanted: RISE_POINTS });
    return { ...NOTHING, peak, settled, findings, next: { ask: 'values' } };
  }
  return { ...NOTHING, peak, settled, moved: settled === null ? null : false, findings, next: null };
}

/** Whole periods that a pulsed trace must hold, and points in each. */
const LEAST_PERIODS = 2;
const LEAST_POINTS = 5;
const HYSTERESIS = 0.2;

/** Frequency, duty, mean and ripple over whole periods. Of a current the duty is the share of time in which it rises. */
function pwm(trace: Trace): TraceAnswer {
  const { seconds, values } = trace;
  const findings: TraceFinding[] = [];
  const [low, high] = [Math.min(...values), Math.max(...values)];
  const ripple = high - low;
  const flat = ripple <= Math.max(0.02 * Math.max(Math.abs(high), Math.abs(low)), 1e-3);
  if (flat) {
    findings.push({ code: 'noPulses' });
    return { ...NOTHING, mean: meanOf(trace, 0, values.length - 1), ripple, findings, next: null };
  }
  const rises = risesOf(trace, low, high);
  if (rises.length < LEAST_PERIODS + 1) {
    findings.push({ code: 'tooShort' });
    return { ...NOTHING, findings, next: { ask: 'values' } };
  }
  const [first, last] = [rises[0]!, rises.at(-1)!];
  const periods = rises.length - 1;
  const inside = seconds.filter((at) => at >= first.seconds && at < last.seconds).length;
  if (inside < LEAST_POINTS * periods) {
    findings.push({ code: 'tooCoarse', points: inside / periods, wanted: LEAST_POINTS });
    return { ...NOTHING, findings, next: { ask: 'values' } };
  }
  const span = last.seconds - first.seconds;
  return {
    ...NOTHING,
    peak: high,
    hz: periods / span,
    duty: dutyOf(trace, first.at, last.at, low, high),
    mean: meanOf(trace, first.at, last.at),
    ripple,
    findings,
    next: null,
  };
}

/** Places where the trace comes up through its middle, having been well below. */
function risesOf({ seconds, values }: Trace, low: number, high: number): { at: number; seconds: number }[] {
  const middle = (low + high) / 2;
  const armed = middle - HYSTERESIS * (high - low);
  const found: { at: number; seconds: number }[] = [];
  let ready = false;
  for (let at = 1; at < values.length; at++) {
    if (values[at - 1]! <= armed) ready = true;
    if (!ready || values[at]! < middle) continue;
    const [a, b] = [values[at - 1]!, values[at]!];
    const share = b === a ? 1 : (middle - a) / (b - a);
    found.push({
      at,
      seconds: seconds[at - 1]! + Math.min(Math.max(share, 0), 1) * (seconds[at]! - seconds[at - 1]!),
    });
    ready = false;
  }
  return found;
}

/** Share of time on: high where the trace has two levels, rising where it climbs and falls (a coil's current). */
function dutyOf({ seconds, values }: Trace, from: number, to: number, low: number, high: number): number {
  const room = HYSTERESIS * (high - low);
  let [level, up, total] = [0, 0, 0];
  let between = 0;
  for (let at = from; at < to; at++) {
    const step = seconds[at + 1]! - seconds[at]!;
    const [a, b] = [values[at]!, values[at + 1]!];
    total += step;
    if ((a + b) / 2 >= (low + high) / 2) level += step;
    if (b > a) up += step;
    if (a > low + room && a < high - room) between += 1;
  }
  const sloping = between > 0.35 * (to - from);
  return (sloping ? up : level) / total;
}

/** Mean over time, by trapezoids. */
function meanOf({ seconds, values }: Trace, from: number, to: number): number {
  let area = 0;
  for (let at = from; at < to; at++)
    area += ((values[at]! + values[at + 1]!) / 2) * (seconds[at + 1]! - seconds[at]!);
  return area / (seconds[to]! - seconds[from]!);
}
