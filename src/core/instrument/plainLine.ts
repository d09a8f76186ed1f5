import { parseReading, shownValue } from '../units/parseReading';
import type { Measures, MeterMode, MeterSample } from './meterMode';

const BY_UNIT: Readonly<Record<string, Measures>> = { V: 'volts', ohm: 'ohms', A: 'amps', Hz: 'hertz' };
const COUPLING = /(?:^|[\s\d.a-z])(ac|dc)\b/i;

/**
 * A line "value unit" as meters with a serial plug print it: `27.41 VDC`, `OL kohm`, `0.62 A AC`. Null for a line that is no reading, or
 * that does not say what of: a bare figure may be anything.
 */
export function readPlainLine(line: string): MeterSample | null {
  const text = line.trim();
  const coupling = COUPLING.exec(text)?.[1]?.toLowerCase() as 'ac' | 'dc' | undefined;
  const bare = text
    .replace(/\s+(ac|dc)\b/gi, '')
    .replace(/(\d\s*[munkM]?[VA])(ac|dc)\b/gi, '$1')
    .trim();
  const over = /^[+-]?(?:o\.?l|0l|overload)\b\.?\s*[munkMG]?(V|A|Hz|ohms?|Ω)?(?:ac|dc)?$/i.exec(bare);
  if (over) {
    const measures = over[1] && BY_UNIT[unitOf(over[1])];
    return measures ? { mode: withCoupling(measures, coupling), value: 'OL' } : null;
  }
  const typed = parseReading(bare);
  const measures = typed?.unit === undefined ? undefined : BY_UNIT[typed.unit];
  if (!typed || !measures) return null;
  return { mode: withCoupling(measures, coupling), value: shownValue(typed) };
}

function unitOf(word: string): string {
  const lower = word.toLowerCase();
  if (lower === 'hz') return 'Hz';
  return lower === 'v' || lower === 'a' ? word.toUpperCase() : 'ohm';
}

function withCoupling(measures: Measures, coupling: 'ac' | 'dc' | undefined): MeterMode {
  const coupled = measures === 'volts' || measures === 'amps';
  return coupled && coupling ? { measures, coupling } : { measures };
}
