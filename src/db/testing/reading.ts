import { v7 as uuidv7 } from 'uuid';
import type { Entry } from '@/core/job/entries';

/** A reading of ohms at one place, as Tove writes it. */
export function reading(value: number | 'OL', more: Partial<Entry> = {}): Entry {
  const one = { kind: 'ohms' as const, from: 'X8:1', to: 'GND', setup: { pulled: ['F7'] }, value };
  return {
    id: uuidv7(),
    at: new Date().toISOString(),
    person: 'Tove',
    type: 'reading',
    body: { reading: one, typed: String(value) },
    ...more,
  } as Entry;
}
