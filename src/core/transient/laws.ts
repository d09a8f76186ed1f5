import type { Diode, Solenoid } from './elements';

/** What a plunger's laws need of its coil, on direct or alternating volts. */
export type Plunger = Omit<Solenoid, 'kind'>;

/** Conductance from every node to the frame, siemens: a thousand megohms, so that what floats stands somewhere in spite of rounding. */
export const LEAK = 1e-9;
/** kT/q at 27 °C, where simulators are compared. */
export const THERMAL_VOLTS = 0.025864979;
/** Stops of a plunger: so stiff, N/m, damped by this share of what would just not swing, and in full from about this depth on, metres. */
const STOP_STIFF = 5e6;
const STOP_DAMPED = 0.7;
const STOP_TAKES_HOLD = 1e-6;

/** What an unknown may be off by and nothing shows it; where a plunger stands by less, for a stop is stiff. */
export const LEAST_SHOWN = 1e-7;
export const LEAST_METRES = 1e-11;
/** A winding that has never had more than this, of which a share may be off, has as good as none. */
export const LEAST_AMPS = 1e-3;

/**
 * What the rows of a solenoid store at the least, of which a share may be off: its flux, its way, and the speed of going it in a hundredth of
 * a second; what it settles into a stop by is nothing beside them.
 */
export function solenoidSizes({ openHenries, strokeMetres, kilograms }: Plunger): [number, number, number] {
  return [LEAST_AMPS * openHenries, strokeMetres, kilograms * strokeMetres * 100];
}

/** What a winding with a plunger comes to at a state, worked out by {@link at}; kept in fields, for it is asked at every pass. */
export class PlungerLaw {
  /** Inductance, and how it grows with the plunger's way: H and H/m. */
  henries = 0;
  slope = 0;
  /** What holds the plunger back, newtons, and how that changes with the square of the amperes, place and speed. */
  back = 0;
  backBySquare = 0;
  backByPlace = 0;
  backBySpeed = 0;
  private readonly gap: number;
  private readonly stopDamping: number;
  private curvature = 0;
  private stop = 0;
  private stopByPlace = 0;
  private stopBySpeed = 0;

  constructor(private readonly coil: Plunger) {
    this.gap = coil.strokeMetres / (coil.closedHenries / coil.openHenries - 1);
    this.stopDamping = 2 * STOP_DAMPED * Math.sqrt(STOP_STIFF * coil.kilograms);
  }

  /** @param squareAmps square of the amperes that pull, A² */
  at(squareAmps: number, place: number, speed: number): void {
    const { jammed, preloadNewtons, springNewtonsPerMetre, damping } = this.coil;
    this.stores(jammed ? 0 : place);
    if (jammed) return;
    this.stops(place, speed);
    const half = 0.5 * squareAmps;
    this.back =
      preloadNewtons + springNewtonsPerMetre * place + damping * speed - half * this.slope - this.stop;
    this.backBySquare = -0.5 * this.slope;
    this.backByPlace = springNewtonsPerMetre - half * this.curvature - this.stopByPlace;
    this.backBySpeed = damping - this.stopBySpeed;
  }

  private stores(place: number): void {
    const { closedHenries, strokeMetres } = this.coil;
    const { gap } = this;
    // A hair into a stop it goes on straight: the iron is closed, and pulls no harder.
    const within = Math.min(Math.max(place, 0), strokeMetres);
    const reach = 1 + (strokeMetres - within) / gap;
    const henries = closedHenries / reach;
    const past = place - within;
    this.slope = henries / (reach * gap);
    this.henries = henries + this.slope * past;
    this.curvature = past === 0 ? (2 * henries) / (reach * gap) ** 2 : 0;
  }

  /**
   * What a stop gives where the plunger runs into it. It damps by how deep it is in, so that nothing jumps where they touch, and pushes
   * only: what leaves it is not held.
   */
  private stops(place: number, speed: number): void {
    const { strokeMetres } = this.coil;
    this.stop = this.stopByPlace = this.stopBySpeed = 0;
    const over = place < 0 ? place : place > strokeMetres ? place - strokeMetres : 0;
    if (over === 0) return;
    const way = Math.sign(over);
    const depth = Math.abs(over);
    const damped = this.stopDamping * way * speed;
    const held = depth / (depth + STOP_TAKES_HOLD);
    const push = STOP_STIFF * depth + held * damped;
    if (push <= 0) return;
    this.stop = -way * push;
    this.stopByPlace = -STOP_STIFF - (damped * STOP_TAKES_HOLD) / (depth + STOP_TAKES_HOLD) ** 2;
    this.stopBySpeed = -this.stopDamping * held;
  }
}

/** Where a plunger stands that nothing pulls: as deep in its stop as its spring holds it. */
export function restOf({ preloadNewtons, springNewtonsPerMetre }: Plunger): number {
  return -preloadNewtons / (STOP_STIFF + springNewtonsPerMetre);
}

/** Current of a junction and its slope; backwards past its breakdown it conducts. */
export function shockley(
  { saturationAmps, breakdownVolts }: Pick<Diode, 'saturationAmps' | 'breakdownVolts'>,
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
  { saturationAmps, breakdownVolts }: Pick<Diode, 'saturationAmps' | 'breakdownVolts'>,
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
