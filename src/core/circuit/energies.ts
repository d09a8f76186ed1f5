/**
 * Energies that a machine holds, in the order they are closed: a load comes down on its stops while the machine can still lower it,
 * before the air or oil that holds it is vented; what moves is tried last, with all else off.
 */
export const ENERGIES = [
  'heldLoad',
  'line',
  'control',
  'battery',
  'capacitor',
  'air',
  'oil',
  'vacuum',
  'spring',
  'heat',
  'refrigerant',
  'moving',
] as const;

/** Those that come from a supply which can be locked. */
export const SUPPLY_ENERGIES = ['line', 'control', 'battery', 'air', 'oil', 'vacuum', 'refrigerant'] as const;
export type SupplyEnergy = (typeof SUPPLY_ENERGIES)[number];

export type Energy = (typeof ENERGIES)[number];
