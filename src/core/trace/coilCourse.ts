import { closedBetween, constant, type Element } from '../transient/elements';
import { plungerCoil, type Iron } from '../transient/ofCircuit';
import { runInTime } from '../transient/run';
import type { CoilFeed } from './coilFeed';
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
const OFF_OHMS = 1e8;
const SILICON = { saturationAmps: 1.5e-7, emission: 1.8 };

/** A coil's current over time behind its feed alone: what takes a thousandth of the whole circuit's time. */
export function coilCourse(feed: CoilFeed, state: CoilState, { on, off, end }: Switching): Trace {
  const { sheet, volts, sourceOhms, suppression } = feed;
  const { iron, ohms = sheet.ohms, lost = 0, bare = false } = state;
  const [supply, switched] = [1, 2];
  const elements: Element[] = [
    { kind: 'source', a: supply, b: 0, volts: constant(volts), ohms: Math.max(sourceOhms + lost, 1e-3) },
    {
      kind: 'switch',
      a: supply,
      b: switched,
      schedule: off === undefined ? closedBetween(on) : closedBetween(on, off),
      onOhms: SWITCH_OHMS,
      offOhms: OFF_OHMS,
    },
    plungerCoil(switched, 0, sheet, iron, ohms),
  ];
  if (!bare && suppression.by === 'diode')
    elements.push({
      kind: 'diode',
      anode: 0,
      cathode: switched,
      ...SILICON,
      ohms: Math.max(suppression.ohms, 1e-3),
    });
  if (!bare && suppression.by === 'resistor')
    elements.push({ kind: 'resistor', a: switched, b: 0, ohms: suppression.ohms });
  if (bare || suppression.by === 'nothing')
    elements.push({
      kind: 'diode',
      anode: switched,
      cathode: supply,
      ...SILICON,
      ohms: 0.1,
      breakdownVolts: ARC_VOLTS + volts,
    });
  const course = runInTime(switched + 1, elements, end, { tolerance: TOLERANCE, mostStep: end / STEPS });
  return { seconds: [...course.seconds], values: [...course.own[2]![0]!] };
}
