import { z } from 'zod';
import { figure, maybe, positive, sheetHead, thing, type Finding, type SheetAnswer } from '../sheet';
import {
  runCutIn,
  shortCyclesOf,
  type CutInAnswer,
  type CutInSheet,
  type CutInTrouble,
} from '../cutIn/cutIn';
import { saturate } from '../saturation/saturation';

export const plannerSheet = z.object({
  ...sheetHead('planner'),
  sensor: maybe(z.enum(['outside', 'line', 'pressure'])),
  acts: maybe(z.enum(['below', 'above'])),
  /** Thresholds as the controller takes them: °C, or kPa where the sensor is one of pressure. */
  cutIn: maybe(figure),
  cutOut: maybe(figure),
  /** Or the pressures that are wanted, turned into temperatures by saturation. */
  refrigerant: maybe(thing),
  cutInKpaGauge: maybe(figure),
  cutOutKpaGauge: maybe(figure),
  altitudeMetres: maybe(z.number().min(-500).max(9000)),
  side: maybe(z.enum(['bubble', 'dew'])),
  minimumOnSeconds: maybe(z.number().min(0).max(86_400)),
  minimumOffSeconds: maybe(z.number().min(0).max(86_400)),
  /** A day that is coldest at an hour and warmest twelve later, so many times; or a curve. */
  lowC: maybe(figure),
  highC: maybe(figure),
  coldestHour: maybe(z.number().min(0).max(24)),
  days: maybe(z.number().int().min(1).max(14)),
  curve: maybe(z.array(z.object({ seconds: figure, value: figure })).max(200_000)),
  /** What the sensor reads more, or less, once the output has been on for long, and the time constant of that. */
  shift: maybe(figure),
  settleSeconds: maybe(positive),
});
export type PlannerSheet = z.infer<typeof plannerSheet>;

export type PlannerFinding = Finding<
  | 'licensed'
  | 'altitudeNotKnown'
  | 'sideNotKnown'
  | 'refrigerantNotKnown'
  | 'outsideFit'
  | 'notYetChecked'
  | CutInTrouble
  | 'startNotKnown'
  | 'coldestHourUsual'
  | 'responseNotKnown'
>;

type Curve = NonNullable<CutInSheet['curve']>;
type Run = Pick<CutInAnswer, 'starts' | 'hoursOn' | 'shortCycles' | 'trouble'> & {
  intervals: { on: number; off: number | null }[];
  /** Most starts within one hour. */
  mostAnHour: number;
};

export interface PlannerAnswer extends SheetAnswer {
  cutIn: number | null;
  cutOut: number | null;
  /** As the sensor's own school has it: with the plant's response where the sensor feels it. */
  run: Run | null;
  /** The schools beside each other: a sensor outside feels nothing of the output, one in the line does. */
  schools: { outside: Run | null; line: Run | null };
  /** What the sensor sees over the time, for the picture. */
  seen: Curve;
  /** What is set at the controller. */
  settings: {
    name: 'sensor' | 'acts' | 'cutIn' | 'cutOut' | 'minimumOn' | 'minimumOff';
    value: string | number;
  }[];
}

const HOUR = 3600;
const DAY_STEP = 600;
const COLDEST_HOUR = 5;
/** Step of the plant's response, seconds. */
const STEP = 10;
/** Bubble and dew point further apart than this are not one temperature, K. */
const GLIDE = 1;

/**
 * Plans an output that a sensor switches: thresholds out of the pressures that are wanted, then a day or a week with a plain response of the
 * plant (first order). Says what a control would do, not what a machine will.
 */
export function planControl(sheet: PlannerSheet): PlannerAnswer {
  const findings: PlannerFinding[] = [];
  const nothing = {
    cutIn: null,
    cutOut: null,
    run: null,
    schools: { outside: null, line: null },
    seen: [],
    settings: [],
    findings,
  };
  for (const field of ['sensor', 'acts'] as const)
    if (sheet[field] === undefined) return { ...nothing, next: { ask: field } };
  const cutIn = sheet.cutIn ?? thresholdOf(sheet, sheet.cutInKpaGauge, findings);
  const cutOut = sheet.cutOut ?? thresholdOf(sheet, sheet.cutOutKpaGauge, findings);
  const settings = settingsOf(sheet, cutIn, cutOut);
  const asked = { ...nothing, cutIn, cutOut, settings };
  if (cutIn === null) return { ...asked, next: { ask: sheet.refrigerant ? 'cutInKpaGauge' : 'cutIn' } };
  if (cutOut === null) return { ...asked, next: { ask: sheet.refrigerant ? 'cutOutKpaGauge' : 'cutOut' } };
  const curve = curveOf(sheet, findings);
  if (!curve) return { ...asked, next: { ask: sheet.lowC === undefined ? 'lowC' : 'highC' } };
  const control = { ...sheet, cutIn, cutOut };
  const outside = plain(control, curve, findings);
  if (outside.trouble.includes('swapped') || outside.run === null)
    return { ...asked, seen: curve, next: outside.next };
  const line =
    sheet.shift === undefined || sheet.settleSeconds === undefined ? null : withResponse(control, curve);
  const feels = sheet.sensor !== 'outside';
  if (feels && !line) findings.push({ code: 'responseNotKnown' });
  const run = feels ? (line?.run ?? null) : outside.run;
  for (const code of run?.trouble ?? []) findings.push({ code });
  return {
    ...asked,
    run,
    schools: { outside: outside.run, line: line?.run ?? null },
    seen: feels && line ? line.seen : curve,
    next: feels && !line ? { ask: sheet.shift === undefined ? 'shift' : 'settleSeconds' } : null,
  };
}

/** A pressure that is wanted as the sensor sees it; null while it cannot be told. */
function thresholdOf(
  { sensor, refrigerant, altitudeMetres, side }: PlannerSheet,
  kPaGauge: number | undefined,
  findings: PlannerFinding[],
): number | null {
  if (kPaGauge === undefined) return null;
  if (sensor === 'pressure') return kPaGauge;
  if (refrigerant === undefined) return null;
  const point = saturate({
    format: 'spiraxis-sheet',
    version: 1,
    sheet: 'saturation',
    refrigerant,
    kPaGauge,
    kPaAbs: undefined,
    bubbleC: undefined,
    dewC: undefined,
    table: undefined,
    vapourLineC: undefined,
    liquidLineC: undefined,
    altitudeMetres,
  });
  for (const found of point.findings as PlannerFinding[])
    if (!findings.some(({ code }) => code === found.code)) findings.push(found);
  if (point.bubbleC === null || point.dewC === null) return null;
  if (side === undefined && Math.abs(point.dewC - point.bubbleC) > GLIDE) {
    if (!findings.some(({ code }) => code === 'sideNotKnown')) findings.push({ code: 'sideNotKnown' });
    return null;
  }
  return side === 'bubble' ? point.bubbleC : point.dewC;
}

/** The curve that was typed, or the day repeated; null while neither is known. */
function curveOf(
  { curve, lowC, highC, coldestHour, days = 1 }: PlannerSheet,
  findings: PlannerFinding[],
): Curve | null {
  if (curve && curve.length >= 2) return curve;
  if (lowC === undefined || highC === undefined) return null;
  if (coldestHour === undefined) findings.push({ code: 'coldestHourUsual', hour: COLDEST_HOUR });
  const [middle, swing] = [(lowC + highC) / 2, (highC - lowC) / 2];
  const at = (seconds: number) =>
    middle - swing * Math.cos((2 * Math.PI * (seconds / HOUR - (coldestHour ?? COLDEST_HOUR))) / 24);
  return Array.from({ length: (days * 24 * HOUR) / DAY_STEP + 1 }, (_one, k) => ({
    seconds: k * DAY_STEP,
    value: at(k * DAY_STEP),
  }));
}

type Control = PlannerSheet & { cutIn: number; cutOut: number };

/** The control over the curve itself: nothing of what it does comes back to the sensor. */
function plain(
  control: Control,
  curve: Curve,
  findings: PlannerFinding[],
): { run: Run | null; trouble: CutInTrouble[]; next: CutInAnswer['next'] } {
  const answer = runCutIn({
    format: 'spiraxis-sheet',
    version: 1,
    sheet: 'cutIn',
    sensor: control.sensor,
    acts: control.acts,
    cutIn: control.cutIn,
    cutOut: control.cutOut,
    minimumOnSeconds: control.minimumOnSeconds,
    minimumOffSeconds: control.minimumOffSeconds,
    curve,
    // Between the two it stands as it was left: off, as after a start.
    initially: 'off',
  });
  const { intervals, starts, hoursOn, shortCycles, trouble, next } = answer;
  if (intervals === null) {
    findings.push(...(answer.findings as PlannerFinding[]));
    return { run: null, trouble, next };
  }
  return {
    run: { intervals, starts, hoursOn, shortCycles, trouble, mostAnHour: mostAnHour(intervals) },
    trouble,
    next,
  };
}

/** The same where the sensor feels what the output does. */
function withResponse(control: Control, curve: Curve): { run: Run; seen: Curve } {
  const { shift, settleSeconds, minimumOnSeconds = 0, minimumOffSeconds = 0 } = control;
  const sign = control.acts === 'below' ? 1 : -1;
  const [first, last] = [curve[0]!.seconds, curve.at(-1)!.seconds];
  const intervals: Run['intervals'] = [];
  const seen: { seconds: number; value: number }[] = [];
  let [on, felt, free, piece] = [false, 0, -Infinity, 1];
  for (let now = first; now <= last; now += STEP) {
    while (piece < curve.length - 1 && curve[piece]!.seconds < now) piece++;
    const [a, b] = [curve[piece - 1]!, curve[piece]!];
    const base = a.value + ((b.value - a.value) * (now - a.seconds)) / (b.seconds - a.seconds);
    felt += ((on ? shift! : 0) - felt) * (1 - Math.exp(-STEP / settleSeconds!));
    const value = base + felt;
    seen.push({ seconds: now, value });
    if (now < free) continue;
    if (on ? sign * value >= sign * control.cutOut : sign * value <= sign * control.cutIn) {
      on = !on;
      free = now + (on ? minimumOnSeconds : minimumOffSeconds);
      if (on) intervals.push({ on: now, off: null });
      else intervals.at(-1)!.off = now;
    }
  }
  const onSeconds = intervals.reduce((sum, one) => sum + (one.off ?? last) - one.on, 0);
  const shortCycles = shortCyclesOf(
    intervals.flatMap(({ on: at, off }) => [
      { seconds: at, to: true },
      ...(off === null ? [] : [{ seconds: off, to: false }]),
    ]),
    { minimumOnSeconds, minimumOffSeconds },
  );
  const trouble: CutInTrouble[] = [
    ...(shortCycles > 0 ? (['deadBandTooNarrow'] as const) : []),
    ...(intervals.length === 0 ? (['neverOn'] as const) : []),
  ];
  return {
    run: {
      intervals,
      starts: intervals.length,
      hoursOn: onSeconds / HOUR,
      shortCycles,
      trouble,
      mostAnHour: mostAnHour(intervals),
    },
    seen,
  };
}

function mostAnHour(intervals: Run['intervals']): number {
  let most = 0;
  let from = 0;
  intervals.forEach(({ on }, at) => {
    while (on - intervals[from]!.on > HOUR) from++;
    most = Math.max(most, at - from + 1);
  });
  return most;
}

function settingsOf(
  { sensor, acts, minimumOnSeconds, minimumOffSeconds }: PlannerSheet,
  cutIn: number | null,
  cutOut: number | null,
): PlannerAnswer['settings'] {
  return [
    ...(sensor === undefined ? [] : [{ name: 'sensor' as const, value: sensor }]),
    ...(acts === undefined ? [] : [{ name: 'acts' as const, value: acts }]),
    ...(cutIn === null ? [] : [{ name: 'cutIn' as const, value: cutIn }]),
    ...(cutOut === null ? [] : [{ name: 'cutOut' as const, value: cutOut }]),
    ...(minimumOnSeconds === undefined ? [] : [{ name: 'minimumOn' as const, value: minimumOnSeconds }]),
    ...(minimumOffSeconds === undefined ? [] : [{ name: 'minimumOff' as const, value: minimumOffSeconds }]),
  ];
}
