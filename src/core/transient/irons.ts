import type { AcSolenoid, Solenoid } from './elements';
import { solenoidOf } from './plunger';

/** What a coil's iron and plunger do in time, where the drawing does not say. */
export interface Iron {
  /** Time of the winding with its gap open, and how many times more it stores closed. */
  openSeconds: number;
  grows: number;
  strokeMetres: number;
  /** What moves, for each watt that the coil takes. */
  kilogramsByWatt: number;
  /** Newtons for each metre a second. */
  damping: number;
  /** Share of its spring that is left: 1 where it is as it was made. */
  spring: number;
  /** Its plunger does not move: it stays out, or it stays in. */
  jammed?: 'out' | 'in';
}

/** Coils of the usual kind. They give a trace its shape; its milliseconds are of the kind, not of the part. */
export const USUAL_IRON: Iron = {
  openSeconds: 8e-3,
  grows: 3,
  strokeMetres: 2e-3,
  kilogramsByWatt: 1.5e-3,
  damping: 0.5,
  spring: 1,
};
/** By how much a sound pole face's ring lags: what pulls falls to three quarters between two crests of 50 Hz. */
const RING_SECONDS = 5e-3;
/** Share by which an iron grows at the least, so that it has a gap. */
const LEAST_GROWTH = 1e-3;
/** Of its henries closed: an iron that has no gap left to open. */
const CLOSED_SHARE = 0.999;

/** A winding as its sheet has it. */
export interface CoilSheet {
  ohms: number;
  watts: number;
  /** Amperes at which it pulls in, and down to which it holds. */
  pull: number;
  hold: number;
  /** Closed, where the drawing says. */
  henries?: number | undefined;
}

/** A coil with an iron of some kind; `ohms` is what is left of its winding, with turns of it shorted. */
export function plungerCoil(
  a: number,
  b: number,
  { ohms: nominal, watts, pull, hold, henries }: CoilSheet,
  { openSeconds, grows: wanted, strokeMetres, kilogramsByWatt, damping, spring, jammed }: Iron,
  ohms = nominal,
): Solenoid {
  // A spring that grows with its stroke holds no deeper than the iron grows.
  const grows = Math.max(wanted, (1.02 * pull) / Math.max(hold, 1e-9));
  const closed = henries ?? openSeconds * nominal * grows;
  const coil = solenoidOf(a, b, {
    ohms: nominal,
    openHenries: closed / grows,
    closedHenries: closed,
    strokeMetres,
    kilograms: kilogramsByWatt * Math.max(watts, 1),
    pullInAmps: pull,
    holdAmps: hold,
    damping,
  });
  // Turns that are shorted take their share of what it stores with them.
  const left = Math.min((ohms / nominal) ** 2, 1);
  // A plunger that stays in leaves its iron closed for good.
  const open = jammed === 'in' ? CLOSED_SHARE * coil.closedHenries : coil.openHenries;
  return {
    ...coil,
    ohms,
    openHenries: left * open,
    closedHenries: left * coil.closedHenries,
    preloadNewtons: spring * coil.preloadNewtons,
    springNewtonsPerMetre: spring * coil.springNewtonsPerMetre,
    ...(jammed ? { jammed: true } : {}),
  };
}

/** A coil on alternating volts as its label has it: its inductance open and closed, and the amperes, effective, that pull and hold it. */
export interface AlternatingSheet {
  ohms: number;
  openHenries: number;
  closedHenries: number;
  pull: number;
  hold: number;
}

/**
 * A coil with its iron on alternating volts. At steady volts the flux hardly changes with the gap, so that an iron of a plain gap would let go
 * where it pulled in; a closed one pulls harder than that, and its spring is taken to give way by as much.
 */
export function alternatingCoil(
  a: number,
  b: number,
  { ohms: nominal, openHenries, closedHenries, pull, hold }: AlternatingSheet,
  { openSeconds, strokeMetres, kilogramsByWatt, damping, spring, jammed }: Iron,
  ohms = nominal,
): AcSolenoid {
  const gap = strokeMetres / Math.max(closedHenries / openHenries - 1, LEAST_GROWTH);
  const preload = (0.5 * pull ** 2 * openHenries ** 2) / (gap * closedHenries);
  const closed = (0.5 * hold ** 2 * closedHenries) / gap;
  // What it stores as it pulls in, as the watts of a coil on direct volts that stores as much.
  const watts = (openHenries * pull * pull) / openSeconds;
  const left = Math.min((ohms / nominal) ** 2, 1);
  const open = jammed === 'in' ? CLOSED_SHARE * closedHenries : openHenries;
  return {
    kind: 'acSolenoid',
    a,
    b,
    ohms,
    openHenries: left * open,
    closedHenries: left * closedHenries,
    strokeMetres,
    kilograms: kilogramsByWatt * Math.max(watts, 1),
    preloadNewtons: spring * preload,
    springNewtonsPerMetre: (spring * (closed - preload)) / strokeMetres,
    damping,
    ringSeconds: RING_SECONDS,
    ...(jammed ? { jammed: true } : {}),
  };
}
