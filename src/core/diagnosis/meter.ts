import type { Reading } from '../circuit/schema';
import { figureOf } from '../kinds/reading/index';

/** Standard deviation that the meter itself adds to a value, in the reading's unit. */
export function meterSigma(kind: Reading['kind'], value: number, meter: Reading['meter']): number {
  return figureOf(kind).meterSigma(Math.abs(value), meter);
}
