import type { Part } from './partSchema';

/**
 * Kinds of the air, oil or vacuum side, as plain text: what asks this runs in the browser, where the schemas need not go.
 * A test holds the list to the schemas.
 */
export const FLUID_KINDS = [
  'airSupply',
  'pump',
  'regulator',
  'filter',
  'check',
  'hose',
  'throttle',
  'silencer',
  'plug',
  'valve',
  'cylinder',
  'vacuumActuator',
  'pressureSwitch',
] as const satisfies readonly Part['kind'][];

const SET: ReadonlySet<Part['kind']> = new Set(FLUID_KINDS);

/** Whether a kind belongs to the air, oil or vacuum side. A pressure switch is both. */
export function isFluidKind(kind: Part['kind']): boolean {
  return SET.has(kind);
}
