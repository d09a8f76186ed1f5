import type { CircuitModel } from '../circuit/model';
import type { Part, Reading } from '../circuit/schema';
import type { Verdict } from '../diagnosis/verdict';

/** Fuses last seen to blow, in circuit order: whatever took them, each wants a new one. */
export function blownFuses({ compiled }: CircuitModel, readings: readonly Reading[]): Part[] {
  const last = new Map<string, boolean>();
  for (const reading of readings) {
    if (reading.kind === 'fuse') last.set(reading.part, reading.value === 'blows');
  }
  return compiled.circuit.parts.filter(({ ref }) => last.get(ref) === true);
}

/** Fuses that the part that was decided on took unseen, in circuit order; none where another part is named, or none yet. */
export function spentFuses({ compiled }: CircuitModel, verdict: Verdict | null, decided: string): Part[] {
  if (verdict?.state !== 'name' || verdict.part !== decided) return [];
  return compiled.circuit.parts.filter(({ ref }) => ref !== decided && verdict.spent.includes(ref));
}

/** Fuses that somebody saw go, or that the named part took: none of them was shown good, whatever the doubt says of it. */
export function goneFuses(
  model: CircuitModel,
  verdict: Verdict,
  readings: readonly Reading[],
): ReadonlySet<string> {
  const spent = verdict.state === 'name' ? spentFuses(model, verdict, verdict.part) : [];
  return new Set([...blownFuses(model, readings), ...spent].map(({ ref }) => ref));
}
