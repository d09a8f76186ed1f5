import type {
  AcSolenoid,
  Contact,
  Diode,
  Element,
  Filament,
  Fuse,
  Limiter,
  Motor,
  Solenoid,
  Transformer,
} from './elements';
import { heldBack, shockley, THERMAL_VOLTS, type PlungerLaw } from './laws';
import { volt, type Slots } from './slots';

/** What an element stands in, at one state: its place in the list, its first own unknown, and what is kept of it from pass to pass. */
export interface Standing {
  at: number;
  own: number;
  y: Float64Array;
  t: number;
  elements: readonly Element[];
  /** First own unknown of each element. */
  owns: Int32Array;
  /** Of each plunger, by element. */
  laws: readonly (PlungerLaw | null)[];
  /** Junction volts of the last pass, which bound how far the next one goes. */
  junction: Float64Array;
}

/** Puts what an element does at a state into its rows. */
export function stamp(slots: Slots, element: Element, standing: Standing): void {
  const { own, y, t } = standing;
  switch (element.kind) {
    case 'resistor':
      return slots.conducts(element.a, element.b, 1 / element.ohms, y);
    case 'switch': {
      const ohms = element.schedule.closed(t) ? element.onOhms : element.offOhms;
      return slots.conducts(element.a, element.b, 1 / ohms, y);
    }
    case 'contact':
      return makes(slots, element, standing);
    case 'limiter':
      return limits(slots, element, standing);
    case 'capacitor':
      return charges(slots, element.a, element.b, element.farads, y);
    case 'inductor':
      return winds(slots, element, own, y, element.henries, element.ohms ?? 0);
    case 'source': {
      slots.flows(element.a, element.b, own, y, -1);
      slots.flow(own, -(element.ohms ?? 0) * y[own]!);
      slots.slope(own, own, -(element.ohms ?? 0));
      slots.across(element.a, element.b, own, y, -1);
      return;
    }
    case 'transformer':
      return transforms(slots, element, own, y);
    case 'diode':
      return joins(slots, element, standing);
    case 'solenoid':
      pulls(slots, element, standing, y[own]! ** 2);
      return;
    case 'acSolenoid':
      return pullsEvenly(slots, element, standing);
    case 'motor':
      return turns(slots, element, own, y);
    case 'filament':
      return glows(slots, element, own, y);
    case 'fuse':
      return melts(slots, element, own, y);
    default:
      return element satisfies never;
  }
}

function makes(slots: Slots, contact: Contact, { y, owns, elements }: Standing): void {
  const { a, b, onOhms, offOhms } = contact;
  const own = owns[contact.of]! + 1;
  const coil = elements[contact.of] as Solenoid | AcSolenoid;
  const hair = CONTACT_HAIR * coil.strokeMetres;
  const way = Math.min(Math.max((y[own]! - contact.at * coil.strokeMetres) / hair + 0.5, 0), 1);
  const smooth = way * way * (3 - 2 * way);
  const made = contact.restsClosed ? 1 - smooth : smooth;
  const tenfolds = Math.log(offOhms / onOhms);
  const siemens = Math.exp(made * tenfolds) / offOhms;
  slots.conducts(a, b, siemens, y);
  const steep = ((contact.restsClosed ? -1 : 1) * 6 * way * (1 - way)) / hair;
  slots.passesBy(a, b, own, siemens * tenfolds * steep * (volt(y, a) - volt(y, b)));
}

/** A resistance that gives no more than its limit, either way, with a knee that bends smoothly. */
function limits(slots: Slots, { a, b, ohms, limitAmps }: Limiter, { y }: Standing): void {
  const free = (volt(y, a) - volt(y, b)) / ohms;
  const over = (Math.abs(free) / limitAmps) ** KNEE;
  const held = (1 + over) ** (-1 / KNEE);
  slots.passes(a, b, free * held, held / (1 + over) / ohms + LIMIT_LEAK);
}

function charges(slots: Slots, a: number, b: number, farads: number, y: Float64Array): void {
  const charge = farads * (volt(y, a) - volt(y, b));
  for (const [node, sign] of [
    [a, 1],
    [b, -1],
  ] as const) {
    if (node === 0) continue;
    slots.store(node - 1, sign * charge);
    for (const [other, way] of [
      [a, 1],
      [b, -1],
    ] as const)
      if (other > 0) slots.stored(node - 1, other - 1, sign * way * farads);
  }
}

/** Row of a winding: d/dt (L i) = v − R i. */
function winds(
  slots: Slots,
  { a, b }: { a: number; b: number },
  own: number,
  y: Float64Array,
  henries: number,
  ohms: number,
): void {
  const amps = y[own]!;
  slots.flows(a, b, own, y, 1);
  slots.store(own, henries * amps);
  slots.stored(own, own, henries);
  slots.flow(own, ohms * amps);
  slots.slope(own, own, ohms);
  slots.across(a, b, own, y, -1);
}

/** Row of a transformer's secondary: its volts are the primary's over the ratio, less what its copper takes; the primary draws its share. */
function transforms(slots: Slots, one: Transformer, own: number, y: Float64Array): void {
  const { primary, secondary, ratio, ohms } = one;
  slots.flows(primary[0], primary[1], own, y, 1 / ratio);
  slots.flows(secondary[0], secondary[1], own, y, -1);
  slots.flow(own, -ohms * y[own]!);
  slots.slope(own, own, -ohms);
  slots.across(primary[0], primary[1], own, y, 1 / ratio);
  slots.across(secondary[0], secondary[1], own, y, -1);
}

function joins(slots: Slots, diode: Diode, { at, own, y, junction }: Standing): void {
  const { anode, cathode, ohms } = diode;
  const thermal = THERMAL_VOLTS * diode.emission;
  const wanted = y[own]!;
  const v = heldBack(diode, wanted, junction[at]!, thermal);
  junction[at] = v;
  const [amps, siemens] = shockley(diode, v, thermal);
  // Linear beyond where the junction was held back, so that the pass goes on from there.
  const through = amps + siemens * (wanted - v);
  // The junction's own row: what flows through it flows through its resistance.
  const g = 1 / ohms;
  const outer = g * (volt(y, anode) - volt(y, cathode) - wanted);
  slots.passes(anode, cathode, outer, g);
  slots.passesBy(anode, cathode, own, -g);
  slots.flow(own, through - outer);
  slots.slope(own, own, siemens + g);
  slots.followsAcross(anode, cathode, own, -g);
}

/** Rows of a solenoid: its flux, its plunger's place and its speed. What pulls goes with the square of its amperes. */
function pulls(
  slots: Slots,
  coil: Omit<Solenoid, 'kind'>,
  { at, own, y, laws }: Standing,
  squareAmps: number,
): PlungerLaw {
  const [amps, place, speed] = [y[own]!, y[own + 1]!, y[own + 2]!];
  const law = laws[at]!;
  law.at(squareAmps, place, speed);
  winds(slots, coil, own, y, law.henries, coil.ohms);
  if (!coil.jammed) slots.stored(own, own + 1, law.slope * amps);
  slots.store(own + 1, place);
  slots.stored(own + 1, own + 1, 1);
  slots.store(own + 2, coil.kilograms * speed);
  slots.stored(own + 2, own + 2, coil.kilograms);
  if (coil.jammed) return law;
  slots.flow(own + 1, -speed);
  slots.slope(own + 1, own + 2, -1);
  slots.flow(own + 2, law.back);
  slots.slope(own + 2, own, 2 * amps * law.backBySquare);
  slots.slope(own + 2, own + 1, law.backByPlace);
  slots.slope(own + 2, own + 2, law.backBySpeed);
  return law;
}

/** A winding on alternating volts: the ring in its pole face lags, so that what pulls never falls to nothing between two crests. */
function pullsEvenly(slots: Slots, coil: AcSolenoid, standing: Standing): void {
  const { own, y } = standing;
  const square = own + 3;
  const law = pulls(slots, coil, standing, y[square]!);
  slots.store(square, coil.ringSeconds * y[square]!);
  slots.stored(square, square, coil.ringSeconds);
  slots.flow(square, y[square]! - y[own]! ** 2);
  slots.slope(square, square, 1);
  slots.slope(square, own, -2 * y[own]!);
  if (coil.jammed) return;
  slots.slope(own + 2, square, law.backBySquare);
  // What the amperes themselves would pull by is the ring's business here.
  slots.slope(own + 2, own, -2 * y[own]! * law.backBySquare);
}

/** Rows of a motor: its winding with its own volts against it, and its speed. */
function turns(slots: Slots, motor: Motor, own: number, y: Float64Array): void {
  const [amps, speed] = [y[own]!, y[own + 1]!];
  winds(slots, motor, own, y, motor.henries, motor.ohms);
  slots.store(own + 1, motor.inertia * speed);
  slots.stored(own + 1, own + 1, motor.inertia);
  if (motor.locked) return;
  slots.flow(own, motor.constant * speed);
  slots.slope(own, own + 1, motor.constant);
  // A load holds back while it turns; standing it is only what it must be turned against.
  const held = motor.loadNewtonMetres * Math.tanh(speed / STANDS);
  const heldSlope = (motor.loadNewtonMetres / STANDS) * (1 - Math.tanh(speed / STANDS) ** 2);
  slots.flow(own + 1, -(motor.constant * amps - held - motor.friction * speed));
  slots.slope(own + 1, own, -motor.constant);
  slots.slope(own + 1, own + 1, heldSlope + motor.friction);
}

/** Row of a filament: its share of the way from cold to hot. It radiates with the fourth power of what it has of its heat. */
function glows(slots: Slots, lamp: Filament, own: number, y: Float64Array): void {
  const share = Math.min(Math.max(y[own]!, -0.2), 3);
  const span = lamp.hotOhms - lamp.coldOhms;
  const ohms = lamp.coldOhms + span * share;
  const siemens = 1 / ohms;
  const v = volt(y, lamp.a) - volt(y, lamp.b);
  slots.conducts(lamp.a, lamp.b, siemens, y);
  slots.passesBy(lamp.a, lamp.b, own, (-span / (ohms * ohms)) * v);
  const rated = (lamp.ratedVolts * lamp.ratedVolts) / lamp.hotOhms;
  const gain = (v * v * siemens) / rated;
  slots.store(own, share * lamp.seconds);
  slots.stored(own, own, lamp.seconds);
  const lost = share * Math.abs(share) ** 3;
  slots.flow(own, -(gain - lost));
  slots.slope(own, own, (v * v * span) / (ohms * ohms * rated) + 4 * Math.abs(share) ** 3);
  slots.followsAcross(lamp.a, lamp.b, own, (-2 * v * siemens) / rated);
}

/** Row of a fuse: its share of the way to melting. Once it has melted it goes on by itself, and never comes back. */
function melts(slots: Slots, fuse: Fuse, own: number, y: Float64Array): void {
  const { a, b, ohms, ratedAmps, seconds } = fuse;
  const share = y[own]!;
  const way = Math.min(Math.max((share - 1) / MELT_HAIR, 0), 1);
  const open = way * way * (3 - 2 * way);
  const openSlope = (6 * way * (1 - way)) / MELT_HAIR;
  const tenfolds = Math.log(MELTED_OHMS / ohms);
  const siemens = Math.exp(-open * tenfolds) / ohms;
  const v = volt(y, a) - volt(y, b);
  slots.conducts(a, b, siemens, y);
  const byShare = -siemens * tenfolds * openSlope * v;
  slots.passesBy(a, b, own, byShare);
  const amps = siemens * v;
  const per = (MELTS_FROM * ratedAmps) ** 2;
  const warming = ((amps * amps) / per - share) / seconds;
  const parting = (MELTED - share) / PARTS_SECONDS;
  slots.store(own, share);
  slots.stored(own, own, 1);
  slots.flow(own, -((1 - open) * warming + open * parting));
  const warmSlope = ((2 * amps * byShare) / per - 1) / seconds;
  slots.slope(own, own, -((1 - open) * warmSlope - open / PARTS_SECONDS + openSlope * (parting - warming)));
  slots.followsAcross(a, b, own, -((1 - open) * 2 * amps * siemens) / (per * seconds));
}

/** Of its rating: from there on a fuse melts in the end. */
const MELTS_FROM = 1.2;
/** Share of the way over which it parts, where it stands then, and how quickly it goes there, seconds. */
const MELT_HAIR = 0.02;
const MELTED = 2;
const PARTS_SECONDS = 1e-3;
const MELTED_OHMS = 1e8;
/** Below this a motor counts as standing, radians a second. */
const STANDS = 0.5;
/** Share of the stroke over which a contact goes from off to on. */
const CONTACT_HAIR = 0.02;
/** How sharply an output bends into its limit; and what keeps its node tied there, siemens. */
const KNEE = 8;
const LIMIT_LEAK = 1e-9;
