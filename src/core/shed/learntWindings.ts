import type { CircuitModel } from '../circuit/model';
import type { LearntWinding } from '../diagnosis/experience';
import { TOLERANCE_SIGMA } from '../diagnosis/scatter';
import { windingType, type PastWinding } from '../job/provedMeasures';
import { isWound } from '../diagnosis/windingRead';
import { median, robustSpread } from '../statistics';

/** A winding of unknown temperature, read again, stands off by about this, one standard deviation. */
const WEATHER_SIGMA = 0.04;
/** The same where it was not known either time: its past scatters by it as well. */
const BOTH_SIGMA = 0.06;
/** An element or a resistor, that no weather moves, read with another meter. */
const READ_SIGMA = 0.01;
/** Fewer of others say nothing of their type; one of its own is its own. */
const LEAST_OF_FLEET = 4;

/**
 * Ohms of windings, elements and resistors by what was read of them, sound, in earlier jobs: of this very one first; where nobody has said its ohms, of its type
 * in the shed. One that lies outside what its maker allows is not taken for sound.
 *
 * @param past windings of the circuit's types, with those of this function marked as its own
 */
export function learntWindings(
  model: CircuitModel,
  past: readonly PastWinding[],
): Record<string, LearntWinding> {
  const learnt: Record<string, LearntWinding> = {};
  for (const part of model.compiled.parts) {
    const type = windingType(part);
    const [branch] = part.branches;
    if (type === null || !branch) continue;
    // What reads nothing is shorted, and has no ohms of its own.
    const alike = past.filter((one) => one.type === type && one.ohms > 0);
    const own = alike.filter((one) => one.own && one.part === part.part.ref);
    const from = own.length > 0 ? 'own' : 'fleet';
    if (from === 'fleet' && (branch.ohmsKnown || alike.length < LEAST_OF_FLEET)) continue;
    const seen = cleanest(from === 'own' ? own : alike);
    const values = seen.map(({ ohms }) => ohms);
    const ohms = median(values);
    const spread = values.length < LEAST_OF_FLEET ? 0 : robustSpread(values) / ohms;
    const weather = !isWound(part)
      ? READ_SIGMA
      : seen.every(({ atReference }) => atReference)
        ? WEATHER_SIGMA
        : BOTH_SIGMA;
    const tolerance = Math.hypot(spread, weather) / TOLERANCE_SIGMA;
    if (branch.ohmsKnown && branch.tolerance > 0) {
      const isSound = Math.abs(ohms / branch.ohms - 1) <= branch.tolerance;
      if (!isSound || tolerance >= branch.tolerance) continue;
    }
    learnt[part.part.ref] = { ohms, tolerance, from, count: values.length };
  }
  return learnt;
}

/** Those whose temperature was taken, where there are any. */
function cleanest(past: readonly PastWinding[]): readonly PastWinding[] {
  const clean = past.filter(({ atReference }) => atReference);
  return clean.length > 0 ? clean : past;
}
