import { significant } from '@/core/units/significant';
import type { Outcome } from '@/core/diagnosis/outcomes';
import type { Reading } from '@/core/circuit/schema';

const STEPS_EACH = 4;

/** Values worth supposing for a test, ascending, over-range last: a few in every outcome and the expected one. */
export function supposedValues(outcomes: readonly Outcome[], expected: Reading['value']): (number | 'OL')[] {
  const values = new Set<number>();
  let over = expected === 'OL';
  if (typeof expected === 'number') values.add(round(expected));
  for (const { reading, low, high } of outcomes) {
    if (reading === 'OL' || high === Infinity) over = true;
    if (typeof reading === 'number') values.add(round(reading));
    if (low === undefined || high === undefined || !Number.isFinite(low) || high === Infinity) continue;
    // Bands of ohms run over decades: their steps are even on a logarithmic scale.
    const wide = low > 0 && high / low > 10;
    for (let k = 0; k <= STEPS_EACH; k++) {
      const share = k / STEPS_EACH;
      values.add(round(wide ? low * (high / low) ** share : low + (high - low) * share));
    }
  }
  const sorted = [...values].sort((a, b) => a - b);
  return over ? [...sorted, 'OL'] : sorted;
}

const round = (value: number) => significant(value, 3);
