import type { CircuitModel } from '../circuit/model';
import type { Diagnosis } from '../diagnosis/diagnose';

/** Share of each part in circuit order, its faults added together. */
export function partShares(model: CircuitModel, { suspects }: Diagnosis): number[] {
  const shares = new Array<number>(model.compiled.parts.length).fill(0);
  for (const { part, share } of suspects) {
    const at = model.compiled.partIndex.get(part)!;
    shares[at] = shares[at]! + share;
  }
  return shares;
}
