import type { LearntOhm } from '../circuit/compile';
import type { CircuitModel } from '../circuit/model';
import { TWIN_SPREAD } from '../circuit/windings';
import type { Observation } from './observations';
import { areTwins } from './twins';
import { windingRead } from './windingRead';

/** No winding reads less, ohms: what does is shorted, and tells nothing of what a sound one has. */
const LEAST_WINDING_OHMS = 0.2;

/**
 * Ohms of windings that nobody has said, from what a twin of them was read to have: each from the others, none from itself, and the
 * middle one where several were read. A reading that something lies in parallel to teaches nothing.
 */
export function learnFromTwins(
  model: CircuitModel,
  observations: readonly Observation[],
): Map<string, LearntOhm> {
  const unknown = model.compiled.parts.filter(({ branches }) => branches[0]?.ohmsKnown === false);
  if (unknown.length < 2) return new Map();
  const read = new Map<number, number>();
  for (const { bound, readings } of observations) {
    const value = readings.at(-1)?.value;
    if (typeof value !== 'number' || value < LEAST_WINDING_OHMS) continue;
    const winding = windingRead(model, bound.test);
    if (winding) read.set(winding.part.index, value);
  }
  const learnt = new Map<string, LearntOhm>();
  for (const part of unknown) {
    const twins = [...read]
      .filter(([index]) => index !== part.index && areTwins(model.compiled.parts[index]!, part))
      .map(([, ohms]) => ohms)
      .sort((a, b) => a - b);
    if (twins.length > 0)
      learnt.set(part.part.ref, { ohms: twins[(twins.length - 1) >> 1]!, tolerance: TWIN_SPREAD });
  }
  return learnt;
}
