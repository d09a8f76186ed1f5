import type { WindingFigures } from '../kinds/part/branch';
import type { Branch, LearntOhm } from './compile';

/** Watts of a solenoid whose value nobody has said: most lie within a few times of this, so its volts say roughly what it reads. */
const USUAL_WATTS = 15;
/** Spread of a value that is not known, relative: a reading three times higher or lower accuses nobody. */
export const NOT_KNOWN = 3;
/** Whether a spread is that of a figure which nobody has said. */
export function isNotKnown(tolerance: number): boolean {
  return tolerance >= NOT_KNOWN;
}

/** Whether somebody has said what a winding draws at work. */
export function isDrawKnown({ impedanceKnown, liveTolerance }: Branch): boolean {
  return impedanceKnown && !isNotKnown(liveTolerance);
}

/** Sealed, an alternating coil limits its current mostly by its iron: reactance over resistance where only ohms are known. */
const USUAL_REACTANCE = 2.5;
/** Resistance of an alternating coil as a share of its impedance, where only its label is known. */
const USUAL_RESISTANCE = 0.3;
/** Label figures of apparent power and sealed current are good to about this. */
const LABEL_SPREAD = 0.15;
/** Two windings of one type, from one or two batches, lie this near to each other. */
export const TWIN_SPREAD = 0.12;

/** A usual figure stands in the place of its ohms: they stay broad, and nothing is held against them. */
export function notSaid(branch: Branch): void {
  branch.ohmsKnown = false;
  branch.tolerance = NOT_KNOWN;
  branch.liveTolerance = NOT_KNOWN;
}

/**
 * Gives a coil's branch its resistance and reactance from what is known of it: ohms, henries, or the label's VA and sealed amperes.
 * What nobody has said stays broad: the branch says so, and no figure is held against it.
 *
 * @param learnt ohms that it, or its like, was read to have: nearer than the drawing's, or than nothing
 * @param volts of the circuit it belongs to
 * @param hertz of that circuit; 0 on direct current
 */
export function settleWinding(
  branch: Branch,
  figures: WindingFigures,
  volts: number,
  hertz: number,
  learnt?: LearntOhm,
): void {
  const { ohms, henries, va, sealedAmps } = figures;
  const alternating = hertz > 0;
  const size = Math.max(volts, 1);
  const labelled = sealedAmps ? size / sealedAmps : va ? (size * size) / va : null;
  const impedance = alternating ? labelled : null;
  const guess = (size * size) / USUAL_WATTS;
  branch.ohmsKnown = ohms !== undefined;
  branch.ohms =
    learnt?.ohms ??
    ohms ??
    (impedance ? USUAL_RESISTANCE * impedance : alternating ? USUAL_RESISTANCE * guess : guess);
  if (learnt) branch.tolerance = learnt.tolerance;
  else if (!branch.ohmsKnown) branch.tolerance = NOT_KNOWN;
  branch.liveTolerance = branch.tolerance;
  if (!alternating) return;
  if (henries) {
    branch.reactance = 2 * Math.PI * hertz * henries;
  } else if (impedance) {
    branch.reactance = Math.sqrt(Math.max(impedance ** 2 - branch.ohms ** 2, 0));
    branch.liveTolerance = LABEL_SPREAD;
  } else {
    branch.reactance = branch.ohmsKnown
      ? USUAL_REACTANCE * branch.ohms
      : Math.sqrt(Math.max(guess ** 2 - branch.ohms ** 2, 0));
    branch.liveTolerance = NOT_KNOWN;
    branch.impedanceKnown = false;
  }
}
