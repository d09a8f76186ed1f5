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

export type Energy = (typeof ENERGIES)[number];
