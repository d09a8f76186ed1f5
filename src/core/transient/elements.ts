/** Parts of a circuit in time. Nodes are numbers; 0 is the frame. Units: volts, amperes, ohms, henries, farads, seconds, metres, newtons. */

/** A value over time, with the moments at which it, or its slope, breaks. */
export interface Waveform {
  at: (seconds: number) => number;
  /** The next moment after this one at which it breaks; infinite where it runs on. */
  nextBreak: (seconds: number) => number;
}

/** When a switch is closed, by the moments at which it changes; open before the first. */
export interface Schedule {
  closed: (seconds: number) => boolean;
  nextBreak: (seconds: number) => number;
}

export type Element =
  | { kind: 'resistor'; a: number; b: number; ohms: number }
  | { kind: 'capacitor'; a: number; b: number; farads: number; startVolts?: number }
  | { kind: 'inductor'; a: number; b: number; henries: number; ohms?: number; startAmps?: number }
  /** From `b` up to `a`. */
  | { kind: 'source'; a: number; b: number; volts: Waveform; ohms?: number }
  | { kind: 'switch'; a: number; b: number; schedule: Schedule; onOhms: number; offOhms: number }
  | Diode
  | Solenoid
  | AcSolenoid
  | Transformer
  | Limiter
  | Contact
  | Motor
  | Filament
  | Fuse;

/** Shockley's diode from anode to cathode, with its own resistance; above `breakdownVolts` backwards it conducts as a Zener does. */
export interface Diode {
  kind: 'diode';
  anode: number;
  cathode: number;
  saturationAmps: number;
  /** Emission coefficient. */
  emission: number;
  ohms: number;
  breakdownVolts?: number;
}

/**
 * A winding with a plunger: its inductance grows as the gap closes, L(x) = L₁ / (1 + (stroke − x) / g) with g so that it begins at L₀. The
 * plunger runs between two stops against a spring, a load and friction.
 */
export interface Solenoid {
  kind: 'solenoid';
  a: number;
  b: number;
  ohms: number;
  /** With the gap open, and closed. */
  openHenries: number;
  closedHenries: number;
  strokeMetres: number;
  kilograms: number;
  /** Of its spring at rest, and what each metre adds; a load adds to the first. */
  preloadNewtons: number;
  springNewtonsPerMetre: number;
  /** Newtons for each metre a second. */
  damping: number;
  /** It does not move, whatever pulls it. */
  jammed?: boolean;
}

/** A winding with a plunger on alternating volts. A shading ring in its pole face lags by `ringSeconds`; a broken one by next to nothing. */
export interface AcSolenoid extends Omit<Solenoid, 'kind'> {
  kind: 'acSolenoid';
  ringSeconds: number;
}

/** Two windings on one iron that nothing saturates; `ohms` is their copper, at the secondary. */
export interface Transformer {
  kind: 'transformer';
  primary: readonly [number, number];
  secondary: readonly [number, number];
  /** Primary volts over secondary volts. */
  ratio: number;
  ohms: number;
}

/** An output that gives no more than its limit: it conducts like its ohms up to there, and holds its amperes beyond. */
export interface Limiter {
  kind: 'limiter';
  a: number;
  b: number;
  ohms: number;
  limitAmps: number;
}

/** A contact that a plunger moves. */
export interface Contact {
  kind: 'contact';
  a: number;
  b: number;
  /** Position among the elements of the solenoid that moves it. */
  of: number;
  /** Share of the stroke at which it makes, or breaks where it rests closed. */
  at: number;
  restsClosed: boolean;
  onOhms: number;
  offOhms: number;
}

/** A permanent-magnet motor: locked while it stands, its own volts against the feed once it runs. */
export interface Motor {
  kind: 'motor';
  a: number;
  b: number;
  ohms: number;
  henries: number;
  /** Volts for each radian a second, and newton metres for each ampere. */
  constant: number;
  inertia: number;
  loadNewtonMetres: number;
  friction: number;
  locked?: boolean;
}

/** A lamp's wire: cold it has a fraction of its resistance hot. */
export interface Filament {
  kind: 'filament';
  a: number;
  b: number;
  coldOhms: number;
  /** At its rated volts, and what it draws of them there. */
  hotOhms: number;
  ratedVolts: number;
  /** Seconds to go half the way at its rated volts: how much heat it takes. */
  seconds: number;
}

/**
 * A blade fuse: its wire warms by the square of its current, loses its warmth with one time of its own, and is open for good once it has
 * melted. At 1.2 of its rating it would melt in the end.
 */
export interface Fuse {
  kind: 'fuse';
  a: number;
  b: number;
  ohms: number;
  ratedAmps: number;
  /** Time of its warmth. */
  seconds: number;
}

/** What the own unknowns of an element are, in their order. */
export const OWN_UNKNOWNS: Readonly<Record<Element['kind'], readonly string[]>> = {
  resistor: [],
  capacitor: [],
  inductor: ['amps'],
  /** What it gives out of its plus. */
  source: ['amps'],
  switch: [],
  diode: ['junctionVolts'],
  solenoid: ['amps', 'metres', 'metresPerSecond'],
  /** What pulls its plunger, A². */
  acSolenoid: ['amps', 'metres', 'metresPerSecond', 'squareAmps'],
  /** Of its secondary. */
  transformer: ['amps'],
  limiter: [],
  contact: [],
  motor: ['amps', 'radiansPerSecond'],
  /** Its share of the way from cold to hot. */
  filament: ['heat'],
  /** Its share of the way to melting; beyond 1 it is open. */
  fuse: ['melted'],
};

const NEVER = Infinity;

export function constant(volts: number): Waveform {
  return { at: () => volts, nextBreak: () => NEVER };
}

/** Nothing before a moment, this from then on. */
export function step(volts: number, from = 0): Waveform {
  return { at: (t) => (t >= from ? volts : 0), nextBreak: (t) => (t < from ? from : NEVER) };
}

/** On for a share of each period, from the beginning of it. */
export function pulses(volts: number, hz: number, duty: number): Waveform {
  const period = 1 / hz;
  const on = (t: number) => phaseOf(t, period) < duty * period;
  return { at: (t) => (on(t) ? volts : 0), nextBreak: (t) => nextEdge(t, period, duty) };
}

export function sine(volts: number, hz: number): Waveform {
  return { at: (t) => volts * Math.sin(2 * Math.PI * hz * t), nextBreak: () => NEVER };
}

/** Closed and open by turns from these moments on. */
export function closedBetween(...moments: readonly number[]): Schedule {
  const passed = (t: number) => moments.filter((one) => one <= t).length;
  return {
    closed: (t) => passed(t) % 2 === 1,
    nextBreak: (t) => moments.find((one) => one > t) ?? NEVER,
  };
}

/** Rounding that must not move an edge, of a period. */
const EDGE = 1e-9;

function phaseOf(t: number, period: number): number {
  const phase = t - Math.floor(t / period + EDGE) * period;
  return Math.max(phase, 0);
}

function nextEdge(t: number, period: number, duty: number): number {
  const start = Math.floor(t / period + EDGE) * period;
  for (const edge of [start + duty * period, start + period, start + period + duty * period])
    if (edge > t + EDGE * period) return edge;
  return NEVER;
}
