import { figureOf } from '../kinds/reading/index';
import { baseUnit } from '../units/quantities';
import type { MeterSample } from './meterMode';

/** Digits that a display of some tens of thousands of counts shows. */
const DIGITS = 5;
const PREFIXES = [
  [1e6, 'M'],
  [1e3, 'k'],
] as const;

/** A sample as a person would type it from the display: `27.412 V`, `6.832 kΩ`, `OL`. */
export function meterText({ mode, value }: MeterSample): string {
  if (value === 'OL') return 'OL';
  const unit = baseUnit(figureOf(mode.measures).quantity);
  const [scale, prefix] =
    mode.measures === 'ohms' ? (PREFIXES.find(([from]) => Math.abs(value) >= from) ?? [1, '']) : [1, ''];
  const shown = Number((value / scale).toPrecision(DIGITS));
  return `${shown} ${prefix}${unit === 'ohm' ? 'Ω' : unit}`;
}
