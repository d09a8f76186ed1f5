import type { Branch, CompiledPart } from '../circuit/compile';
import { ohmsAt20 } from '../circuit/copper';
import type { CircuitModel } from '../circuit/model';
import type { Reading, Test } from '../circuit/schema';
import { kindOf } from '../kinds/part/index';
import type { PartKind } from '../kinds/part/module';
import { partsAcross } from './partsAcross';

/** A reading shows one winding alone where the sound circuit shows its own ohms there, within this share. */
export const ALONE_SHARE = 0.03;
/** Kinds whose first piece is wound of copper and draws what its resistance says. */
const WOUND: readonly PartKind[] = ['coil', 'relay', 'proportionalValve'];

interface PieceRead {
  part: CompiledPart;
  branch: Branch;
}

/** Whether a part's first piece is wound of copper: its ohms go with its warmth. */
export function isWound({ part }: CompiledPart): boolean {
  return WOUND.includes(part.kind);
}

/** The winding that a reading of ohms is of, and of nothing beside it; null where it is of something else. */
export function windingRead(model: CircuitModel, test: Test): PieceRead | null {
  const read = ohmicRead(model, test);
  return read && isWound(read.part) ? read : null;
}

/** The winding, element or resistor that a reading of ohms is of, and of nothing beside it; null where it is of something else. */
export function ohmicRead(model: CircuitModel, test: Test): PieceRead | null {
  if (test.kind !== 'ohms') return null;
  for (const { part, branch } of partsAcross(model, test)) {
    if (!branch || branch !== part.branches[0] || !kindOf(part.part).traits.ohmic) continue;
    const there = model.situation(test.setup).solve({ mode: 'ohms' }).changed.pairOhms(branch.a, branch.b);
    if (Math.abs(there / branch.ohms - 1) <= ALONE_SHARE) return { part, branch };
  }
  return null;
}

/** A reading of a winding whose temperature was taken, as it would have been at 20 °C; any other as it is. */
export function atReference(model: CircuitModel, reading: Reading): Reading {
  if (reading.kind !== 'ohms' || reading.celsius === undefined) return reading;
  const { celsius, value, ...rest } = reading;
  if (typeof value !== 'number' || !windingRead(model, reading)) return { ...rest, value };
  return { ...rest, value: ohmsAt20(value, celsius) };
}
