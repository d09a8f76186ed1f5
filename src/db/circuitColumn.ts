import { LRUCache } from 'lru-cache';
import { z } from 'zod';
import { circuitSchema, type Circuit } from '@/core/circuit/schema';
import { ofProcess } from './shed';

/** Circuits that stay at hand, read and checked. A shed of two hundred functions fits. */
const MOST = 400;

/** By their text: the same in whatever shed it is drawn. */
const circuits = ofProcess('circuits', () => new LRUCache<string, Circuit>({ max: MOST }));

/** Nobody changes what others read as well. */
function frozen<T>(value: T): T {
  if (typeof value === 'object' && value !== null && !Object.isFrozen(value)) {
    Object.freeze(value);
    Object.values(value).forEach(frozen);
  }
  return value;
}

/** A circuit as it stands in a column. The same text is the same circuit: it is read and checked once. */
export const circuitColumn = z.preprocess((value) => {
  const text = typeof value === 'string' ? value : JSON.stringify(value);
  const known = circuits.get(text);
  if (known) return known;
  const circuit = frozen(circuitSchema.parse(JSON.parse(text)));
  circuits.set(text, circuit);
  return circuit;
}, z.custom<Circuit>());
