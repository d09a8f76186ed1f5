import { z } from 'zod';
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
  /** Seconds from end to end. */
  outSeconds: maybe(positive),
  inSeconds: maybe(positive),
});
export type StrokeSheet = z.infer<typeof strokeSheet>;

export type StrokeFinding = Finding<
  'frictionUsual' | 'exhaustUsual' | 'tooHeavyOut' | 'tooHeavyIn' | 'speedAlone' | 'fasterThanComputed'
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
}

/** Share of its force that a cylinder's own friction leaves (reference `fluid-power.md` section 3: 80 to 90 %). */
const FORCE_LEFT = 0.85;
/** Critical pressure ratio of throttles and small lines where nobody says it (ISO 6358, usual 0.2 to 0.5). */
const CRITICAL = 0.35;
/** Reference atmosphere of a conductance, bar. */
const ANR_BAR = 1;
const ATMOSPHERE_BAR = 1.013;
/** So many times the computed time is slow: what a stroke begins and ends with is not computed. */
const SLOW = 1.6;
/** Both ways slow, and alike within this: what both have in common. */
const ALIKE = 1.5;
const FAST = 0.5;
const STEPS = 60;

/**
 * A pneumatic cylinder's stroke against what its bore, load and throttles make of it: the chamber that is let go sets the speed (meter-out),
 * what feeds the other one bounds it. Flow by ISO 6358, a steady stroke; start and cushion are not in it.
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
  const moved = { ...nothing, ...forces };
  if (findings.some(({ code }) => code === 'tooHeavyOut' || code === 'tooHeavyIn'))
    return { ...moved, verdict: 'tooHeavy', next: null };
  const { feedConductance: feed, exhaustOutConductance: out, exhaustInConductance: back } = sheet;
  for (const [field, value] of Object.entries({ strokeMm, feedConductance: feed }))
    if (value === undefined) return { ...moved, next: { ask: field } };
  if (out === undefined || back === undefined) findings.push({ code: 'exhaustUsual' });
  const seconds = (way: { driven: number; let: number; load: number }, exhaust: number | undefined) => {
    const speed = speedOf(way, supplyKpa! / 100, feed!, exhaust ?? feed!);
    return speed > 0 ? strokeMm! / 1000 / speed : null;
  };
  const computed = {
    outComputed: seconds({ driven: cap, let: ring, load: loadN }, out),
    inComputed: seconds({ driven: ring, let: cap, load: -loadN }, back),
  };
  const ratios = [
    ratioOf(outSeconds, computed.outComputed),
    ratioOf(inSeconds, computed.inComputed),
  ] as const;
  if (ratios.some((one) => one !== null && one < FAST)) findings.push({ code: 'fasterThanComputed' });
  const next =
    outSeconds === undefined ? { ask: 'outSeconds' } : inSeconds === undefined ? { ask: 'inSeconds' } : null;
  return { ...moved, ...computed, verdict: next === null ? verdictOf(ratios) : null, next };
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

/** Share of a choked flow that passes at a ratio of pressures (ISO 6358). */
function flowShare(ratio: number): number {
  if (ratio >= 1) return 0;
  if (ratio <= CRITICAL) return 1;
  return Math.sqrt(1 - ((ratio - CRITICAL) / (1 - CRITICAL)) ** 2);
}

/** Speed at which forces and both flows agree, m/s; 0 where nothing moves. `bar` is the supply's gauge pressure. */
function speedOf(
  { driven, let: released, load }: { driven: number; let: number; load: number },
  bar: number,
  feed: number,
  exhaust: number,
): number {
  const supply = bar + ATMOSPHERE_BAR;
  const pushed = load / FORCE_LEFT / 1e5;
  /** Pressure that the released chamber keeps at a speed, absolute. */
  const kept = (speed: number): number => {
    // dm³/s of the chamber, over what a choked throttle lets go at the same pressure.
    const share = (speed * released * 1000) / (exhaust * ANR_BAR);
    if (share >= 1) return Infinity;
    let [low, high] = [ATMOSPHERE_BAR, 1000];
    for (let step = 0; step < STEPS; step++) {
      const middle = Math.sqrt(low * high);
      if (flowShare(ATMOSPHERE_BAR / middle) < share) low = middle;
      else high = middle;
    }
    return high;
  };
  /** Whether the feed keeps up with a speed against what stands in its way. */
  const goes = (speed: number): boolean => {
    const back = kept(speed);
    if (back === Infinity) return false;
    const needed = ((back - ATMOSPHERE_BAR) * released + pushed) / driven + ATMOSPHERE_BAR;
    if (needed >= supply) return false;
    const gives = feed * supply * flowShare(Math.max(needed, 0.01) / supply);
    return gives >= (speed * driven * 1000 * Math.max(needed, ATMOSPHERE_BAR)) / ANR_BAR;
  };
  let [low, high] = [0, 20];
  if (!goes(1e-6)) return 0;
  for (let step = 0; step < STEPS; step++) {
    const middle = (low + high) / 2;
    if (goes(middle)) low = middle;
    else high = middle;
  }
  return low;
}
