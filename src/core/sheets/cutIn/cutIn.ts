import { z } from 'zod';
import { InputError } from '../../circuit/inputError';
import { figure, maybe, sheetHead, type Finding, type SheetAnswer } from '../sheet';

export const cutInSheet = z.object({
  ...sheetHead('cutIn'),
  sensor: maybe(z.enum(['outside', 'line', 'pressure'])),
  cutIn: maybe(figure),
  cutOut: maybe(figure),
  acts: maybe(z.enum(['below', 'above'])),
  minimumOnSeconds: maybe(z.number().min(0)),
  minimumOffSeconds: maybe(z.number().min(0)),
  curve: maybe(z.array(z.object({ seconds: figure, value: figure })).max(200_000)),
  initially: maybe(z.enum(['on', 'off'])),
});
export type CutInSheet = z.infer<typeof cutInSheet>;

export type CutInTrouble = 'swapped' | 'deadBandTooNarrow' | 'neverOn' | 'neverOff';
export type CutInFinding = Finding<CutInTrouble | 'startNotKnown'>;

export interface CutInAnswer extends SheetAnswer {
  /** `off` is null where it is still on at the end of the curve. */
  intervals: { on: number; off: number | null }[] | null;
  starts: number | null;
  hoursOn: number | null;
  shortCycles: number | null;
  trouble: CutInTrouble[];
}

/** On or off for less than this is a short cycle, whatever minimum was asked for, seconds. */
const SHORT_SECONDS = 120;
const SECONDS_IN_HOUR = 3600;

/** Runs a cut-in and cut-out control over a curve of straight lines; minimum times hold a change back until they are over. */
export function runCutIn(sheet: CutInSheet): CutInAnswer {
  const { cutIn, cutOut, acts, curve, initially, minimumOnSeconds = 0, minimumOffSeconds = 0 } = sheet;
  curve?.forEach(({ seconds }, at) => {
    if (at > 0 && seconds <= curve[at - 1]!.seconds)
      throw new InputError(
        `curve[${at}].seconds`,
        `${seconds} does not come after ${curve[at - 1]!.seconds}; put the points in order`,
      );
  });
  const nothing = {
    intervals: null,
    starts: null,
    hoursOn: null,
    shortCycles: null,
    trouble: [],
    findings: [],
  };
  for (const [field, value] of Object.entries({ acts, cutIn, cutOut, curve }))
    if (value === undefined) return { ...nothing, next: { ask: field } };
  // What lies under a cut-in of "below" is the other way round under "above".
  const sign = acts === 'below' ? 1 : -1;
  const [on, off] = [sign * cutIn!, sign * cutOut!];
  if (on >= off)
    return { ...nothing, trouble: ['swapped'], findings: [{ code: 'swapped', cutIn, cutOut }], next: null };
  const points = curve!.map(({ seconds, value }) => ({ seconds, value: sign * value }));
  if (points.length < 2) return { ...nothing, next: { ask: 'curve' } };
  const first = points[0]!;
  const begins = initially ?? (first.value <= on ? 'on' : first.value >= off ? 'off' : null);
  if (begins === null)
    return { ...nothing, findings: [{ code: 'startNotKnown' }], next: { ask: 'initially' } };
  const changes = changesOf(points, begins === 'on', { on, off, minimumOnSeconds, minimumOffSeconds });
  const intervals: { on: number; off: number | null }[] =
    begins === 'on' ? [{ on: first.seconds, off: null }] : [];
  for (const { seconds, to } of changes) {
    if (to) intervals.push({ on: seconds, off: null });
    else intervals.at(-1)!.off = seconds;
  }
  const end = points.at(-1)!.seconds;
  const onSeconds = intervals.reduce((sum, one) => sum + (one.off ?? end) - one.on, 0);
  const shortCycles = shortCyclesOf(changes, { minimumOnSeconds, minimumOffSeconds });
  const trouble: CutInTrouble[] = [];
  if (shortCycles > 0) trouble.push('deadBandTooNarrow');
  if (intervals.length === 0) trouble.push('neverOn');
  if (begins === 'on' && changes.length === 0) trouble.push('neverOff');
  return {
    intervals,
    starts: changes.filter(({ to }) => to).length,
    hoursOn: onSeconds / SECONDS_IN_HOUR,
    shortCycles,
    trouble,
    findings: trouble.map((code) => ({ code })),
    next: null,
  };
}

/** Times on or off that were shorter than they should be, between the moments at which it changed. */
export function shortCyclesOf(
  changes: readonly { seconds: number; to: boolean }[],
  { minimumOnSeconds, minimumOffSeconds }: Pick<Limits, 'minimumOnSeconds' | 'minimumOffSeconds'>,
): number {
  return changes.slice(1).filter(({ seconds, to }, k) => {
    const lasted = seconds - changes[k]!.seconds;
    return lasted < Math.max(SHORT_SECONDS, to ? minimumOffSeconds : minimumOnSeconds);
  }).length;
}

interface Limits {
  on: number;
  off: number;
  minimumOnSeconds: number;
  minimumOffSeconds: number;
}

/** Moments at which it goes on or off; what it began as is held to have stood long enough. */
function changesOf(
  points: readonly { seconds: number; value: number }[],
  begins: boolean,
  { on, off, minimumOnSeconds, minimumOffSeconds }: Limits,
): { seconds: number; to: boolean }[] {
  const changes: { seconds: number; to: boolean }[] = [];
  let running = begins;
  let free = -Infinity;
  const turn = (seconds: number) => {
    running = !running;
    free = seconds + (running ? minimumOnSeconds : minimumOffSeconds);
    changes.push({ seconds, to: running });
  };
  const [begin] = points;
  if (begins ? begin!.value >= off : begin!.value <= on) turn(begin!.seconds);
  for (let at = 1; at < points.length; at++) {
    const [a, b] = [points[at - 1]!, points[at]!];
    let now = a.seconds;
    for (;;) {
      const when = nextTurn(a, b, Math.max(now, free), running ? off : on, running);
      if (when === null) break;
      turn(when);
      now = when;
    }
  }
  return changes;
}

/** First moment from `from` on within one straight piece at which the value stands beyond a limit; null where it never does. */
function nextTurn(
  a: { seconds: number; value: number },
  b: { seconds: number; value: number },
  from: number,
  limit: number,
  above: boolean,
): number | null {
  if (from > b.seconds) return null;
  const slope = (b.value - a.value) / (b.seconds - a.seconds);
  const valueAt = (seconds: number) => a.value + slope * (seconds - a.seconds);
  const start = Math.max(from, a.seconds);
  const beyond = (value: number) => (above ? value >= limit : value <= limit);
  if (beyond(valueAt(start))) return start;
  if (!beyond(b.value)) return null;
  return Math.min(Math.max(a.seconds + (limit - a.value) / slope, start), b.seconds);
}
