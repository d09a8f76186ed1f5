import type { PressureUnit } from '../../units/quantities';
import { readAs } from '../../units/readAs';
import type { IsolationPoint, ProofPlace } from '../../safety/isolationPlan';
import type { EntryOf, Measured, ProvedDead } from '../entries';

/**
 * A place that shows more than this is not dead: something feeds it, or it is charged. Volts. A shop rule, far under the
 * 50 V AC and 60 V DC where a hazard is commonly held to begin (OSHA 1910.333, IEC 60204-1), since a low control supply
 * has to be found too.
 */
export const DEAD_VOLTS_MOST = 1;
/** What a known live source has to show before the meter's silence means anything, volts. A shop rule. */
export const KNOWN_VOLTS_LEAST = 5;
/** Gauge pressure that can still move something, Pa. A shop rule. */
export const DEAD_PASCALS_MOST = 5_000;
const PASCALS_IN_KPA = 1000;

/** Which of the three steps of live-dead-live a value belongs to. */
export type ProofStep =
  { at: 'knownBefore' } | { at: 'work'; from: string; to: string } | { at: 'knownAfter' } | { at: 'gauge' };

/** Why what was typed or sent proves nothing. The wording lives in the interface. */
export type ProofRefusal =
  | { code: 'missing'; step: ProofStep }
  | { code: 'noValue'; step: ProofStep; typed: string }
  | { code: 'overRange'; step: ProofStep; typed: string }
  | { code: 'wrongUnit'; step: ProofStep; typed: string; unit: string; wanted: 'V' | 'Pa' }
  | { code: 'knownSilent'; step: ProofStep; typed: string; leastVolts: number }
  | { code: 'alive'; step: ProofStep; typed: string; most: number; unit: 'V' | 'Pa' }
  /** Nobody said how it was shown where no meter shows it. */
  | { code: 'notTried' };

/**
 * What was typed at one step, in SI. Only volts are taken where a meter is asked for and only a pressure at a gauge;
 * over-range on volts is no reading of a dead place.
 */
export function readProofStep(
  typed: string,
  step: ProofStep,
  usualPressure: PressureUnit,
): Measured | ProofRefusal {
  const text = typed.trim();
  const gauge = step.at === 'gauge';
  const read = gauge ? readAs('pressure', text, usualPressure) : readAs('volts', text, 'V');
  if (read.ok)
    return gauge
      ? {
          value: PASCALS_IN_KPA * read.value,
          unit: 'Pa',
          // The record says which unit a bare figure was in: the shop's gauges may be changed.
          typed: read.typed.unit ? text : `${text} ${usualPressure}`,
        }
      : { value: read.value, unit: 'V', typed: text };
  switch (read.why) {
    case 'empty':
      return { code: 'missing', step };
    case 'unit':
      return { code: 'wrongUnit', step, typed: text, unit: read.unit, wanted: gauge ? 'Pa' : 'V' };
    default:
      return { code: read.why, step, typed: text };
  }
}

/** Whether three steps prove every place of a point dead; the first thing that speaks against it, or null. */
export function refuseProof(
  places: readonly ProofPlace[],
  proved: ProvedDead | undefined,
): ProofRefusal | null {
  if (places.length === 0) return null;
  if (!proved) return { code: 'missing', step: { at: 'knownBefore' } };
  for (const at of ['knownBefore', 'knownAfter'] as const) {
    const known = proved[at];
    const step: ProofStep = { at };
    if (known.unit !== 'V')
      return { code: 'wrongUnit', step, typed: known.typed, unit: known.unit, wanted: 'V' };
    // Written so that what is no number fails shut.
    if (!(Math.abs(known.value) >= KNOWN_VOLTS_LEAST))
      return { code: 'knownSilent', step, typed: known.typed, leastVolts: KNOWN_VOLTS_LEAST };
  }
  for (const { from, to } of places) {
    const step: ProofStep = { at: 'work', from, to };
    const found = proved.work.filter((one) => one.from === from && one.to === to);
    if (found.length === 0) return { code: 'missing', step };
    for (const { measured } of found) {
      if (measured.unit !== 'V')
        return { code: 'wrongUnit', step, typed: measured.typed, unit: measured.unit, wanted: 'V' };
      if (!(Math.abs(measured.value) <= DEAD_VOLTS_MOST))
        return { code: 'alive', step, typed: measured.typed, most: DEAD_VOLTS_MOST, unit: 'V' };
    }
  }
  // A place that nobody asked for and that is live is live all the same.
  const live = proved.work.find(({ measured }) => !(Math.abs(measured.value) <= DEAD_VOLTS_MOST));
  return live
    ? {
        code: 'alive',
        step: { at: 'work', from: live.from, to: live.to },
        typed: live.measured.typed,
        most: DEAD_VOLTS_MOST,
        unit: 'V',
      }
    : null;
}

/** Whether an isolation entry shows its point dead as the plan asks; the first thing that speaks against it, or null. */
export function provedDead(point: IsolationPoint, body: EntryOf<'isolation'>['body']): ProofRefusal | null {
  const refused = refuseProof(point.prove, body.proved);
  if (refused) return refused;
  if (body.gauge && !(Math.abs(body.gauge.value) <= DEAD_PASCALS_MOST)) {
    return {
      code: 'alive',
      step: { at: 'gauge' },
      typed: body.gauge.typed,
      most: DEAD_PASCALS_MOST,
      unit: 'Pa',
    };
  }
  return point.prove.length === 0 && !body.tried?.trim() ? { code: 'notTried' } : null;
}
