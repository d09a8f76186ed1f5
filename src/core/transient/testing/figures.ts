/** A valve's coil of 24 V, of which the iron and the plunger are known. */
export const VALVE = {
  kind: 'solenoid',
  ohms: 20,
  openHenries: 0.06,
  closedHenries: 0.16,
  strokeMetres: 3e-3,
  kilograms: 0.03,
  preloadNewtons: 2,
  springNewtonsPerMetre: 600,
  damping: 0.6,
} as const;

/** A junction as an outside simulator is told of it. */
export const DIODE = { kind: 'diode', saturationAmps: 1e-9, emission: 1.7, ohms: 0.1 } as const;

/** A motor of 12 V. */
export const MOTOR = {
  kind: 'motor',
  ohms: 0.2,
  henries: 2e-4,
  constant: 0.05,
  inertia: 5e-4,
  loadNewtonMetres: 0.5,
  friction: 1e-4,
} as const;
