import { kindOf } from '../kinds/part/index';
import type { Part } from './partSchema';

/** Whether a kind belongs to the air, oil or vacuum side. A pressure switch is both. */
export function isFluidKind(kind: Part['kind']): boolean {
  return kindOf({ kind }).traits.fluid;
}
