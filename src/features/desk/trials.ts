import type { Circuit } from '@/core/circuit/schema';
import type { CircuitModel } from '@/core/circuit/model';
import { trialKey } from '@/core/job/firstEntries';
import { seenWork } from '@/core/job/seenWork';
import { standWords } from '@/words/en/readings';

/** What can be tried on a function, in which position. */
export interface Trial {
  key: string;
  label: string;
  position: string;
}

export function trialsOf(circuit: Circuit, model: CircuitModel): Trial[] {
  return seenWork(model).map((seen) => ({
    key: trialKey(seen),
    label: circuit.parts.find(({ ref }) => ref === seen.ref)!.label ?? seen.ref,
    position: standWords(circuit.controls, seen.setup),
  }));
}
