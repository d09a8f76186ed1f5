import { closedBetween } from '../transient/elements';
import { plungerCoil, type Iron } from '../transient/irons';
import { runSystem } from '../transient/run';
import type { CoilFeed, Suppression } from './coilFeed';
import { CoilSystem, type CoilBehindFeed, type Freewheel } from './coilSystem';
import type { Trace } from './trace';

/** When a coil is switched on and off again, seconds; and how long it is watched. */
export interface Switching {
  on: number;
  off?: number;
  end: number;
}

/** What has become of a coil besides its iron. */
export interface CoilState {
  iron: Iron;
  /** Ohms that are left of its winding; its own where nothing is said. */
  ohms?: number;
  /** Ohms on the way besides those of the feed. */
  lost?: number;
  /** Its diode or resistor is gone. */
  bare?: boolean;
}

/** Volts that a contact's arc stands off where nothing takes a coil's current over. */
const ARC_VOLTS = 250;
/** As near as a clamp shows; a finer course takes twice the time. */
const TOLERANCE = 3e-3;
const STEPS = 60;
const SWITCH_OHMS = 1e-3;
const LEAST_OHMS = 1e-3;
const OFF_OHMS = 1e8;
const SILICON = { saturationAmps: 1.5e-7, emission: 1.8 };

/** A coil's current over time behind its feed alone: what takes a thousandth of the whole circuit's time. */
export function coilCourse(feed: CoilFeed, state: CoilState, { on, off, end }: Switching): Trace {
  const system = new CoilSystem(coilBehind(feed, state, off === undefined ? [on] : [on, off]));
  const { times, states } = runSystem(system, end, { tolerance: TOLERANCE, mostStep: end / STEPS });
  return { seconds: times, values: states.map(([amps]) => amps!) };
}

/** A coil in a state behind its feed, switched on and off by turns from these moments on. */
export function coilBehind(
  feed: CoilFeed,
  { iron, ohms = feed.sheet.ohms, lost = 0, bare = false }: CoilState,
  moments: readonly number[],
): CoilBehindFeed {
  const { sheet, volts } = feed;
  const suppression: Suppression = bare ? { by: 'nothing' } : feed.suppression;
  const sourceOhms = Math.max(feed.sourceOhms + lost, LEAST_OHMS);
  return {
    coil: plungerCoil(0, 0, sheet, iron, ohms),
    volts,
    sourceOhms,
    switched: closedBetween(...moments),
    onOhms: SWITCH_OHMS,
    offOhms: OFF_OHMS,
    acrossOhms: suppression.by === 'resistor' ? suppression.ohms : Infinity,
    freewheel: freewheelOf(suppression, volts),
  };
}

function freewheelOf(suppression: Suppression, volts: number): Freewheel | null {
  switch (suppression.by) {
    case 'diode':
      return { diode: { ...SILICON, ohms: Math.max(suppression.ohms, LEAST_OHMS) }, over: 'coil' };
    case 'nothing':
      return { diode: { ...SILICON, ohms: 0.1, breakdownVolts: ARC_VOLTS + volts }, over: 'switch' };
    case 'resistor':
      return null;
    default:
      return suppression satisfies never;
  }
}
