import 'server-only';
import { LRUCache } from 'lru-cache';
import { CircuitModel } from '@/core/circuit/model';
import type { Circuit } from '@/core/circuit/schema';
import { findLanes } from '@/core/path/lanes';
import { ofProcess } from '@/db/shed';
import type { Speaker } from '@/words/en/readings';

const MOST_MODELS = 60;

/** A circuit compiled, with its lanes. */
type Drawn = Pick<Speaker, 'model' | 'lanes'>;

const models = ofProcess('models', () => new LRUCache<string, Drawn>({ max: MOST_MODELS }));

/** The very same object needs no comparing. */
const byCircuit = new WeakMap<Circuit, Drawn>();

/** A circuit compiled, with its lanes; the same circuit is compiled once. */
export function drawnOf(circuit: Circuit): Drawn {
  const same = byCircuit.get(circuit);
  if (same) return same;
  const key = JSON.stringify(circuit);
  const known = models.get(key);
  if (known) {
    byCircuit.set(circuit, known);
    return known;
  }
  const model = new CircuitModel(circuit);
  const drawn = { model, lanes: findLanes(model) };
  models.set(key, drawn);
  byCircuit.set(circuit, drawn);
  return drawn;
}
