import { parseReading, type TypedReading } from './parseReading';
import { toBase, type Quantity } from './quantities';

/** What was typed for a quantity, in the unit that is kept; or why it is none. */
export type ReadAs =
  | { ok: true; value: number; typed: TypedReading }
  | { ok: false; why: 'empty' | 'noValue' | 'overRange' }
  /** A unit of another quantity. */
  | { ok: false; why: 'unit'; unit: string };

/**
 * Reads what a technician typed for a quantity. A unit that was typed counts; where none was, it is in `usual`. "75 psi"
 * typed where bar is usual is 75 psi, and volts typed for a pressure are refused.
 */
export function readAs(quantity: Quantity, text: string, usual: string): ReadAs {
  if (text.trim() === '') return { ok: false, why: 'empty' };
  const typed = parseReading(text);
  if (!typed) return { ok: false, why: 'noValue' };
  if (typed.overRange || typed.value === 'OL') return { ok: false, why: 'overRange' };
  const value = toBase(quantity, typed.unit ?? usual, typed.value);
  if (value === null) return { ok: false, why: 'unit', unit: typed.unit ?? usual };
  return { ok: true, value, typed };
}
