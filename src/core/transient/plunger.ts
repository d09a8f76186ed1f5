import type { Solenoid } from './elements';

/** What a coil's sheet says of its plunger, at rest and closed. */
export interface PlungerFigures {
  ohms: number;
  openHenries: number;
  closedHenries: number;
  strokeMetres: number;
  kilograms: number;
  /** Amperes at which it begins to move from rest, and down to which it stays closed. */
  pullInAmps: number;
  holdAmps: number;
  /** Newtons for each metre a second; none where nothing is said. */
  damping?: number;
}

/**
 * The spring that makes a plunger pull in and let go at the amperes that are known of it: what pulls is ½ i² dL/dx, at the open end against
 * the spring's preload, at the closed end against preload and stroke. Throws a `RangeError` where no spring does: an iron that closes to
 * `closedHenries / openHenries` holds down to no more than that share's inverse of what pulled it in, unless the spring grew weaker on the way.
 */
export function springOf(
  figures: PlungerFigures,
): Pick<Solenoid, 'preloadNewtons' | 'springNewtonsPerMetre'> {
  const { openHenries, closedHenries, strokeMetres, pullInAmps, holdAmps } = figures;
  const ratio = closedHenries / openHenries;
  if (!(ratio > 1))
    throw new RangeError(`a plunger that closes has more henries closed than open, not ${ratio} times`);
  const gap = strokeMetres / (ratio - 1);
  const preloadNewtons = (0.5 * pullInAmps ** 2 * closedHenries) / (ratio * ratio * gap);
  const closed = (0.5 * holdAmps ** 2 * closedHenries) / gap;
  if (closed < preloadNewtons)
    throw new RangeError(
      `no spring pulls in at ${pullInAmps} A and holds down to ${holdAmps} A where the inductance grows ${ratio.toFixed(2)} times`,
    );
  return { preloadNewtons, springNewtonsPerMetre: (closed - preloadNewtons) / strokeMetres };
}

/** A coil with a plunger of which the amperes are known. */
export function solenoidOf(a: number, b: number, figures: PlungerFigures): Solenoid {
  const { ohms, openHenries, closedHenries, strokeMetres, kilograms, damping = 0 } = figures;
  return {
    kind: 'solenoid',
    a,
    b,
    ohms,
    openHenries,
    closedHenries,
    strokeMetres,
    kilograms,
    damping,
    ...springOf(figures),
  };
}
