import { z } from 'zod';
import { COPPER_PER_K, REFERENCE_C } from '../../circuit/copper';
import { conductorOhms, gaugeArea } from '../../circuit/wireGauge';
import { shopMarks, type ShopMarks } from '../../tables/marks';
import { gauge, maybe, positive, sheetHead, thing, type Finding, type SheetAnswer } from '../sheet';

const segment = z.object({
  name: thing,
  /** Of one conductor, once. */
  lengthMetres: maybe(positive),
  mm2: maybe(positive),
  awg: maybe(gauge),
  measuredVolts: maybe(z.number()),
});

export const dropSheet = z.object({
  ...sheetHead('drop'),
  segments: z
    .array(segment)
    .min(1)
    .max(200)
    .refine((list) => new Set(list.map(({ name }) => name)).size === list.length, 'names one of them twice'),
  amps: maybe(z.number().min(0)),
  temperatureC: maybe(z.number().min(-60).max(250)),
  budgetVolts: maybe(positive),
});
export type DropSheet = z.infer<typeof dropSheet>;
type Segment = z.infer<typeof segment>;

export type DropFinding = Finding<
  'temperatureNotKnown' | 'noCurrent' | 'lessThanCopper' | 'overBudget' | 'copperOverBudget'
>;

export interface SegmentAnswer {
  name: string;
  copperVolts: number | null;
  extraOhms: number | null;
  watts: number | null;
  verdict: 'good' | 'high' | null;
}

export interface DropAnswer extends SheetAnswer {
  segments: SegmentAnswer[];
  worst: string | null;
  total: number | null;
}

/** Stranded copper of a gauge runs up to this much over solid (IEC 60228, class 5, and its length is never exact). */
const STRANDED_SHARE = 0.2;
/** Copper whose temperature nobody took stands in this range, °C. */
const UNKNOWN_C = [-10, 60] as const;
/** Less than this share of its copper is no drop of that conductor at that current. */
const LEAST_SHARE = 0.6;

/** Volts lost in each segment under load beside what its copper must lose (reference sections 3, 4, 6). */
export function judgeDrop(
  { segments, amps, temperatureC, budgetVolts }: DropSheet,
  marks: ShopMarks = shopMarks({}),
): DropAnswer {
  const findings: DropFinding[] = [];
  if (temperatureC === undefined)
    findings.push({ code: 'temperatureNotKnown', from: UNKNOWN_C[0], to: UNKNOWN_C[1] });
  if (amps === 0) findings.push({ code: 'noCurrent' });
  const current = amps === undefined || amps === 0 ? null : amps;
  const judged = segments.map((one) =>
    judgeSegment(one, current, temperatureC, marks.drops.joint.good, findings),
  );
  const measured = segments.map(({ measuredVolts }) => measuredVolts);
  const total = measured.every((volts) => volts !== undefined)
    ? measured.reduce((sum, volts) => sum + Math.abs(volts), 0)
    : null;
  const sofar = measured.reduce<number>((sum, volts) => sum + Math.abs(volts ?? 0), 0);
  if (budgetVolts !== undefined && sofar > budgetVolts)
    findings.push({ code: 'overBudget', volts: sofar, budget: budgetVolts });
  const copper = judged.reduce((sum, { copperVolts }) => sum + (copperVolts ?? 0), 0);
  // No mend of a joint brings it under its budget: the conductor is too thin.
  if (budgetVolts !== undefined && copper > budgetVolts)
    findings.push({ code: 'copperOverBudget', volts: copper, budget: budgetVolts });
  return {
    segments: judged,
    worst: worstOf(judged),
    total,
    findings,
    next: nextOf(segments, judged, amps, temperatureC),
  };
}

function judgeSegment(
  { name, lengthMetres, mm2, awg, measuredVolts }: Segment,
  amps: number | null,
  temperatureC: number | undefined,
  /** What a sound joint at each end may lose besides, volts. */
  jointVolts: number,
  findings: DropFinding[],
): SegmentAnswer {
  const area = mm2 ?? (awg === undefined ? undefined : gaugeArea(awg));
  const ohms20 = lengthMetres === undefined || area === undefined ? null : conductorOhms(lengthMetres, area);
  const ohmsAt = (celsius: number) => ohms20! * (1 + COPPER_PER_K * (celsius - REFERENCE_C));
  const volts = measuredVolts === undefined ? null : Math.abs(measuredVolts);
  const watts = volts === null || amps === null ? null : volts * amps;
  if (ohms20 === null || amps === null)
    return { name, copperVolts: null, extraOhms: null, watts, verdict: null };
  const copperVolts = amps * ohmsAt(temperatureC ?? REFERENCE_C);
  if (volts === null) return { name, copperVolts, extraOhms: null, watts, verdict: null };
  const [cold, hot] = [temperatureC ?? UNKNOWN_C[0], temperatureC ?? UNKNOWN_C[1]];
  const most = (celsius: number) => amps * ohmsAt(celsius) * (1 + STRANDED_SHARE) + jointVolts;
  const extraOhms = volts / amps - ohmsAt(temperatureC ?? REFERENCE_C);
  const answer = { name, copperVolts, extraOhms, watts };
  if (volts < LEAST_SHARE * amps * ohmsAt(cold) - jointVolts / 5) {
    findings.push({ code: 'lessThanCopper', name, volts, copper: copperVolts });
    return { ...answer, verdict: null };
  }
  if (volts <= most(cold)) return { ...answer, verdict: 'good' };
  return { ...answer, verdict: volts > most(hot) ? 'high' : null };
}

/** Of what was measured, the segment that loses most over its copper. */
function worstOf(judged: readonly SegmentAnswer[]): string | null {
  let worst: { name: string; extraOhms: number } | null = null;
  for (const { name, extraOhms } of judged)
    if (extraOhms !== null && extraOhms > (worst?.extraOhms ?? 0)) worst = { name, extraOhms };
  return worst?.name ?? null;
}

function nextOf(
  segments: readonly Segment[],
  judged: readonly SegmentAnswer[],
  amps: number | undefined,
  temperatureC: number | undefined,
): DropAnswer['next'] {
  if (amps === undefined || amps === 0) return { ask: 'amps' };
  const unmeasured = segments
    .filter(({ measuredVolts }) => measuredVolts === undefined)
    .sort((a, b) => (b.lengthMetres ?? 0) - (a.lengthMetres ?? 0))[0];
  if (unmeasured) return { ask: `${unmeasured.name}.measuredVolts` };
  const thin = segments.find(({ mm2, awg }) => mm2 === undefined && awg === undefined);
  if (thin) return { ask: `${thin.name}.mm2` };
  const short = segments.find(({ lengthMetres }) => lengthMetres === undefined);
  if (short) return { ask: `${short.name}.lengthMetres` };
  const open = judged.find(({ verdict }) => verdict === null);
  if (!open) return null;
  return temperatureC === undefined ? { ask: 'temperatureC' } : { ask: `${open.name}.measuredVolts` };
}
