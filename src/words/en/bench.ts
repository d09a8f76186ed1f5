import type { BenchMeasure } from '@/core/job/benchMeasures';
import type { BenchCheck } from '@/core/job/rules/spareOnBench';
import { quantity } from './readings';

const MEASURE: Readonly<Record<BenchMeasure, string>> = {
  winding: 'ohms of the winding',
  through: 'ohms end to end',
  closed: 'ohms of the contact, closed',
  open: 'ohms of the contact, open',
  forward: 'diode test, red on the anode',
  reverse: 'diode test, leads swapped',
};

/** What is read on a spare. */
export function measureWords(measure: BenchMeasure): string {
  return MEASURE[measure];
}

/** What a sound spare shows. */
export function wantedOnBench({ about, least, most, quantity: what }: BenchCheck): string {
  if (about) return `${quantity(what, about.value)} ± ${Math.round(about.tolerance * 100)} %`;
  if (what === 'ohms' && least === -Infinity && most >= OPEN)
    return 'not open; no value is known, hold it against the old label or a twin';
  if (most === Infinity) return what === 'volts' ? 'OL' : `OL, or over ${quantity(what, least)}`;
  return least === -Infinity
    ? `under ${quantity(what, most)}`
    : `${quantity(what, least)} to ${quantity(what, most)}`;
}
/** A limit of so many ohms only tells open from not open. */
const OPEN = 1e6;
