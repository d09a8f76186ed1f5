import type { Diode, Solenoid } from './elements';

/** Conductance from every node to the frame, siemens. */
export const LEAK = 1e-12;
/** kT/q at 27 °C, where simulators are compared. */
export const THERMAL_VOLTS = 0.025864979;
/** Stops of a plunger: so stiff, N/m, damped by this share of what would just not swing, and in full from about this depth on, metres. */
const STOP_STIFF = 5e6;
const STOP_DAMPED = 0.7;
const STOP_TAKES_HOLD = 1e-6;

/** Inductance of a solenoid at a place of its plunger, its slope and its curvature, H, H/m, H/m². */
export function inductanceAt(
  { openHenries, closedHenries, strokeMetres }: Solenoid,
  place: number,
): [henries: number, slope: number, curvature: number] {
  const ratio = closedHenries / openHenries;
  const gap = strokeMetres / (ratio - 1);
  // A hair into a stop it goes on straight: the iron is closed, and pulls no harder.
  const within = Math.min(Math.max(place, 0), strokeMetres);
  const reach = 1 + (strokeMetres - within) / gap;
  const henries = closedHenries / reach;
  const slope = henries / (reach * gap);
  const past = place - within;
  return [henries + slope * past, slope, past === 0 ? (2 * henries) / (reach * gap) ** 2 : 0];
}

/**
 * What a stop gives where the plunger runs into it: force, and how that changes with place and speed. It damps by how deep it is in, so
 * that nothing jumps where they touch, and pushes only: what leaves it is not held.
 */
export function stopOf(
  { strokeMetres, kilograms }: Solenoid,
  place: number,
  speed: number,
): [number, number, number] {
  const over = place < 0 ? place : place > strokeMetres ? place - strokeMetres : 0;
  if (over === 0) return [0, 0, 0];
  const way = Math.sign(over);
  const depth = Math.abs(over);
  const inwards = way * speed;
  const damping = 2 * STOP_DAMPED * Math.sqrt(STOP_STIFF * kilograms);
  const held = depth / (depth + STOP_TAKES_HOLD);
  const push = STOP_STIFF * depth + damping * held * inwards;
  if (push <= 0) return [0, 0, 0];
  const byDepth = STOP_STIFF + (damping * inwards * STOP_TAKES_HOLD) / (depth + STOP_TAKES_HOLD) ** 2;
  return [-way * push, -byDepth, -damping * held];
}

/** Current of a junction and its slope; backwards past its breakdown it conducts. */
export function shockley(
  { saturationAmps, breakdownVolts }: Diode,
  v: number,
  thermal: number,
): [amps: number, siemens: number] {
  const raised = Math.exp(Math.min(v / thermal, MOST_EXPONENT));
  let [amps, siemens] = [saturationAmps * (raised - 1), (saturationAmps / thermal) * raised];
  if (breakdownVolts !== undefined) {
    const back = Math.exp(Math.min(-(v + breakdownVolts) / thermal, MOST_EXPONENT));
    amps -= saturationAmps * back;
    siemens += (saturationAmps / thermal) * back;
  }
  return [amps, siemens + LEAK];
}

const MOST_EXPONENT = 200;

/** The volts that a pass may go to: forwards on its exponential, backwards on that of its breakdown. */
export function heldBack(
  { saturationAmps, breakdownVolts }: Diode,
  wanted: number,
  before: number,
  thermal: number,
): number {
  if (breakdownVolts === undefined || wanted > Math.min(0, -breakdownVolts + 10 * thermal))
    return limited(wanted, before, thermal, saturationAmps);
  const back = limited(-(wanted + breakdownVolts), -(before + breakdownVolts), thermal, saturationAmps);
  return -(back + breakdownVolts);
}

/** A junction does not go further in one pass than its exponential bears. */
function limited(wanted: number, before: number, thermal: number, saturationAmps: number): number {
  const critical = thermal * Math.log(thermal / (Math.SQRT2 * saturationAmps));
  if (wanted <= critical || Math.abs(wanted - before) <= 2 * thermal) return wanted;
  if (before <= 0) return thermal * Math.log(Math.max(wanted / thermal, 1 + 1e-9));
  const over = 1 + (wanted - before) / thermal;
  return over > 0 ? before + thermal * Math.log(over) : critical;
}
