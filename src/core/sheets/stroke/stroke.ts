import { z } from 'zod';
import { ATMOSPHERE_BAR, strokeInTime } from './strokeInTime';
import { oilStroke } from './oilStroke';
import { maybe, positive, sheetHead, type Finding, type SheetAnswer } from '../sheet';

const conductance = maybe(z.number().gt(0).max(1000));

export const strokeSheet = z.object({
  ...sheetHead('stroke'),
  boreMm: maybe(z.number().gt(0).max(1000)),
  rodMm: maybe(z.number().min(0).max(1000)),
  strokeMm: maybe(z.number().gt(0).max(20_000)),
  /** At the valve, gauge, while it moves. */
  supplyKpa: maybe(positive),
  /** Against it on its way out, N; a load that helps is below nothing. On its way in it is turned round. */
  loadN: maybe(z.number()),
  /** Of what feeds a chamber and of what lets the other one go, throttle and lines together, dm³/(s·bar) (ISO 6358). */
  feedConductance: conductance,
  exhaustOutConductance: conductance,
  exhaustInConductance: conductance,
  /** Of each chamber's dead space and line, cm³. */
  deadCm3: maybe(z.number().gt(0).max(100_000)),
  /** On oil: what the pump delivers, L/min; conductances and dead space are of air. */
  oilLpm: maybe(z.number().gt(0).max(5000)),
  /** Seconds from the valve's shifting to the end. */
  outSeconds: maybe(positive),
  inSeconds: maybe(positive),
  /** And until it begins to move. */
  outStartSeconds: maybe(z.number().min(0).max(600)),
  inStartSeconds: maybe(z.number().min(0).max(600)),
});
export type StrokeSheet = z.infer<typeof strokeSheet>;

export type StrokeFinding = Finding<
  | 'frictionUsual'
  | 'exhaustUsual'
  | 'deadUsual'
  | 'tooHeavyOut'
  | 'tooHeavyIn'
  | 'speedAlone'
  | 'fasterThanComputed'
  | 'trappedAir'
>;

/** Way that is slow, or both. */
export type StrokeVerdict = 'asComputed' | 'slowOut' | 'slowIn' | 'slowBoth' | 'tooHeavy';

export interface StrokeAnswer extends SheetAnswer {
  verdict: StrokeVerdict | null;
  /** What it can push and pull, friction off, N. */
  outNewton: number | null;
  inNewton: number | null;
  /** Computed, s; null where it does not move at all, or too little is known. */
  outComputed: number | null;
  inComputed: number | null;
  /** What moves it. */
  medium: 'air' | 'oil';
  /** Of that, until the piston begins to move. */
  outBegins: number | null;
  inBegins: number | null;
}

/** Share of its force that a cylinder's own friction leaves (reference `fluid-power.md` section 3: 80 to 90 %). */
const FORCE_LEFT = 0.85;
/** What stands in a chamber and its line beside the stroke's own volume, as a share of that, where nobody says it. */
const DEAD_SHARE = 0.1;
/** So many times the computed time is slow: cushions are not computed, and nobody knows conductances well. */
const SLOW = 1.6;
/** Both ways slow, and alike within this: what both have in common. */
const ALIKE = 1.5;
const FAST = 0.5;

/**
 * A cylinder's stroke against what its bore, load and throttles make of it: the chamber that is let go sets the speed (meter-out),
 * what feeds the other one bounds it. Solved in time from the valve's shifting on, flows by ISO 6358; its cushions are not in it. On oil the
 * pump's flow sets the speed.
 */
export function judgeStroke(sheet: StrokeSheet): StrokeAnswer {
  const { boreMm, rodMm, strokeMm, supplyKpa, loadN = 0, outSeconds, inSeconds } = sheet;
  const findings: StrokeFinding[] = [];
  const nothing = {
    verdict: null,
    outNewton: null,
    inNewton: null,
    outComputed: null,
    inComputed: null,
    outBegins: null,
    inBegins: null,
    medium: sheet.oilLpm === undefined ? ('air' as const) : ('oil' as const),
    findings,
  };
  for (const [field, value] of Object.entries({ boreMm, rodMm, supplyKpa }))
    if (value === undefined) return { ...nothing, next: { ask: field } };
  findings.push({ code: 'frictionUsual', share: 1 - FORCE_LEFT });
  const [cap, ring] = [area(boreMm!), area(boreMm!) - area(rodMm!)];
  const newton = (size: number) => FORCE_LEFT * supplyKpa! * 1000 * size;
  const forces = { outNewton: newton(cap), inNewton: newton(ring) };
  if (loadN > forces.outNewton) findings.push({ code: 'tooHeavyOut' });
  if (-loadN > forces.inNewton) findings.push({ code: 'tooHeavyIn' });
  const moved: StrokeAnswer = { ...nothing, ...forces, next: null };
  if (findings.some(({ code }) => code === 'tooHeavyOut' || code === 'tooHeavyIn'))
    return { ...moved, verdict: 'tooHeavy', next: null };
  if (sheet.oilLpm !== undefined) return onOil(sheet, sheet.oilLpm, moved, { cap, ring });
  const { feedConductance: feed, exhaustOutConductance: out, exhaustInConductance: back } = sheet;
  for (const [field, value] of Object.entries({ strokeMm, feedConductance: feed }))
    if (value === undefined) return { ...moved, next: { ask: field } };
  if (out === undefined || back === undefined) findings.push({ code: 'exhaustUsual' });
  if (sheet.deadCm3 === undefined) findings.push({ code: 'deadUsual', share: DEAD_SHARE });
  const inTime = (way: { driven: number; let: number; load: number }, exhaust = feed!) =>
    strokeInTime({
      drivenDm2: 100 * way.driven,
      releasedDm2: 100 * way.let,
      strokeDm: strokeMm! / 100,
      deadDm3: sheet.deadCm3 === undefined ? DEAD_SHARE * cap * strokeMm! : sheet.deadCm3 / 1000,
      supplyBar: supplyKpa! / 100 + ATMOSPHERE_BAR,
      feed: feed!,
      exhaust,
      // Friction takes its share of what the driven face could push.
      againstNewton: way.load + (1 - FORCE_LEFT) * supplyKpa! * 1000 * way.driven,
    });
  const [outward, inward] = [
    inTime({ driven: cap, let: ring, load: loadN }, out),
    inTime({ driven: ring, let: cap, load: -loadN }, back),
  ];
  const computed = {
    outComputed: outward?.ends ?? null,
    inComputed: inward?.ends ?? null,
    outBegins: outward?.begins ?? null,
    inBegins: inward?.begins ?? null,
  };
  return timed(sheet, { ...moved, ...computed }, [
    ratioOf(outSeconds, computed.outComputed),
    ratioOf(inSeconds, computed.inComputed),
  ]);
}

/** On oil the pump's flow sets the speed, and the start tells how much air is in it. */
function onOil(
  sheet: StrokeSheet,
  flowLpm: number,
  moved: StrokeAnswer,
  { cap, ring }: { cap: number; ring: number },
): StrokeAnswer {
  const { strokeMm, supplyKpa, loadN = 0 } = sheet;
  if (strokeMm === undefined) return { ...moved, next: { ask: 'strokeMm' } };
  const way = (drivenM2: number, load: number, startSeconds: number | undefined) =>
    oilStroke({
      drivenM2,
      strokeM: strokeMm / 1000,
      flowLpm,
      againstNewton: load + (1 - FORCE_LEFT) * supplyKpa! * 1000 * drivenM2,
      startSeconds,
    });
  const [outward, inward] = [way(cap, loadN, sheet.outStartSeconds), way(ring, -loadN, sheet.inStartSeconds)];
  for (const [name, { airCm3 }] of [
    ['out', outward],
    ['in', inward],
  ] as const)
    if (airCm3 !== null) moved.findings.push({ code: 'trappedAir', way: name, cm3: airCm3 });
  const moving = (whole: number | undefined, start = 0) => (whole === undefined ? undefined : whole - start);
  return timed(sheet, { ...moved, outComputed: outward.seconds, inComputed: inward.seconds }, [
    ratioOf(moving(sheet.outSeconds, sheet.outStartSeconds), outward.seconds),
    ratioOf(moving(sheet.inSeconds, sheet.inStartSeconds), inward.seconds),
  ]);
}

/** What was timed, against what was computed. */
function timed(
  { outSeconds, inSeconds }: StrokeSheet,
  answer: StrokeAnswer,
  ratios: readonly [number | null, number | null],
): StrokeAnswer {
  if (ratios.some((one) => one !== null && one < FAST)) answer.findings.push({ code: 'fasterThanComputed' });
  const next =
    outSeconds === undefined ? { ask: 'outSeconds' } : inSeconds === undefined ? { ask: 'inSeconds' } : null;
  return { ...answer, verdict: next === null ? verdictOf(ratios) : null, next };
}

/** m² of a circle so wide, mm. */
function area(millimetres: number): number {
  return (Math.PI / 4) * (millimetres / 1000) ** 2;
}

function ratioOf(read: number | undefined, computed: number | null): number | null {
  return read === undefined || computed === null ? null : read / computed;
}

function verdictOf([out, back]: readonly [number | null, number | null]): StrokeVerdict | null {
  if (out === null || back === null) return null;
  const [slowOut, slowIn] = [out > SLOW, back > SLOW];
  if (!slowOut && !slowIn) return 'asComputed';
  if (slowOut && slowIn) return 'slowBoth';
  // Just under the mark on the other side: not told apart.
  if (Math.max(out, back) / Math.min(out, back) < ALIKE) return null;
  return slowOut ? 'slowOut' : 'slowIn';
}
