import type { CircuitModel } from '../circuit/model';
import type { Part, Reading } from '../circuit/schema';

/** Fuses last seen to blow, in circuit order: whatever took them, each wants a new one. */
export function blownFuses({ compiled }: CircuitModel, readings: readonly Reading[]): Part[] {
  const last = new Map<string, boolean>();
  for (const reading of readings) {
    if (reading.kind === 'fuse') last.set(reading.part, reading.value === 'blows');
  }
  return compiled.circuit.parts.filter(({ ref }) => last.get(ref) === true);
}
