import type { Known } from '@/core/draw/layChain';
import type { Circuit, Part } from '@/core/circuit/schema';

/** Parts and controls that other functions of a machine have: a chain may name them. The first function to have one says what it is. */
export function knownOf(circuits: readonly Circuit[]): Known {
  const parts = new Map<string, Part>();
  const controls: Circuit['controls'] = {};
  for (const circuit of circuits) {
    for (const one of circuit.parts) if (!parts.has(one.ref)) parts.set(one.ref, one);
    for (const [control, positions] of Object.entries(circuit.controls)) {
      const own = controls[control] ?? [];
      controls[control] = [...own, ...positions.filter((position) => !own.includes(position))];
    }
  }
  return { parts: [...parts.values()], controls };
}
