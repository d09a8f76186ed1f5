/** Energies that a machine holds, in the order they are asked for. */
export const ENERGIES = [
  'line',
  'control',
  'battery',
  'capacitor',
  'air',
  'oil',
  'vacuum',
  'heldLoad',
  'spring',
  'heat',
  'refrigerant',
  'moving',
] as const;

/** Those that come from a supply which can be locked. */
export const SUPPLY_ENERGIES = ['line', 'control', 'battery', 'air', 'oil', 'vacuum'] as const;
export type SupplyEnergy = (typeof SUPPLY_ENERGIES)[number];

export type Energy = (typeof ENERGIES)[number];
