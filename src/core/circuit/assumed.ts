import type { LabelFigure, Part } from './partSchema';

/** Whether nobody has said a figure of a part: a usual one stands in its place. */
export function isAssumed(part: Part, figure: LabelFigure): boolean {
  return part.assumed?.includes(figure) ?? false;
}

/** Whether one of the supplies that a circuit's volts follow from is not said. */
export function voltsAssumed(parts: readonly Part[]): boolean {
  return parts.some((part) => isAssumed(part, 'volts') || isAssumed(part, 'ratio'));
}

/** A figure of a part where somebody has said it; undefined where a usual one stands in its place, or none. */
export function saidOf<P extends Part, F extends keyof P & LabelFigure>(
  part: P,
  figure: F,
): P[F] | undefined {
  return isAssumed(part, figure) ? undefined : part[figure];
}
