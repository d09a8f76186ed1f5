import type { Diode, Schedule, Solenoid } from '../transient/elements';
import {
  heldBack,
  LEAST_METRES,
  LEAST_SHOWN,
  PlungerLaw,
  restOf,
  shockley,
  solenoidSizes,
  THERMAL_VOLTS,
} from '../transient/laws';
import type { InTime } from '../transient/run';

/** A junction that takes a coil's current over when it is switched off. */
export interface Freewheel {
  diode: Pick<Diode, 'saturationAmps' | 'emission' | 'ohms' | 'breakdownVolts'>;
  /** From the frame up to the coil; or back over the switch, where the arc of its contact stands. */
  over: 'coil' | 'switch';
}

export interface CoilBehindFeed {
  coil: Solenoid;
  volts: number;
  /** Before the switch, of the switch by turns, and across the coil; infinite where nothing lies there. */
  sourceOhms: number;
  switched: Schedule;
  onOhms: number;
  offOhms: number;
  acrossOhms: number;
  freewheel: Freewheel | null;
}

const [AMPS, METRES, SPEED, JUNCTION] = [0, 1, 2, 3];

/**
 * A coil with its plunger behind its feed as one small system: the volts at its terminals follow from its amperes and what the junction
 * beside it has, so that three or four unknowns are left of the seven that the same circuit has by its nodes. The laws are the circuit's own.
 */
export class CoilSystem implements InTime {
  readonly size: number;
  readonly stores: Uint8Array;
  readonly sizes: Float64Array;
  readonly least: Float64Array;
  readonly pattern;
  readonly q: Float64Array;
  readonly f: Float64Array;
  /** All places of the square, row by row. */
  readonly jq: Float64Array;
  readonly jf: Float64Array;
  private readonly law: PlungerLaw;
  private junction = 0;

  constructor(private readonly of: CoilBehindFeed) {
    const { coil, freewheel } = of;
    const size = freewheel ? 4 : 3;
    this.size = size;
    this.stores = Uint8Array.from({ length: size }, (_one, row) => (row < JUNCTION ? 1 : 0));
    this.sizes = new Float64Array(size);
    this.sizes.set(solenoidSizes(coil), AMPS);
    this.least = new Float64Array(size).fill(LEAST_SHOWN);
    this.least[METRES] = LEAST_METRES;
    this.pattern = {
      size,
      starts: Int32Array.from({ length: size + 1 }, (_one, row) => row * size),
      columns: Int32Array.from({ length: size * size }, (_one, at) => at % size),
    };
    [this.q, this.f] = [new Float64Array(size), new Float64Array(size)];
    [this.jq, this.jf] = [new Float64Array(size * size), new Float64Array(size * size)];
    this.law = new PlungerLaw(coil);
    this.jq[METRES * size + METRES] = 1;
    this.jq[SPEED * size + SPEED] = coil.kilograms;
    if (!coil.jammed) this.jf[METRES * size + SPEED] = -1;
  }

  start(): Float64Array {
    const y = new Float64Array(this.size);
    if (!this.of.coil.jammed) y[METRES] = restOf(this.of.coil);
    return y;
  }

  rest(y: Float64Array): void {
    if (this.of.freewheel) this.junction = y[JUNCTION]!;
  }

  nextBreak(t: number): number {
    return this.of.switched.nextBreak(t);
  }

  evaluate(y: Float64Array, t: number): void {
    const { size, law, q, f, jq, jf } = this;
    const { coil, volts, sourceOhms, switched, onOhms, offOhms, acrossOhms, freewheel } = this.of;
    const [amps, place, speed] = [y[AMPS]!, y[METRES]!, y[SPEED]!];
    law.at(amps * amps, place, speed);
    const feeds = 1 / (sourceOhms + (switched.closed(t) ? onOhms : offOhms));
    // A diode beside the coil lets through what pulls its terminal under the frame; the arc what pulls it under the supply by its volts.
    const through = freewheel ? 1 / freewheel.diode.ohms : 0;
    const backing = freewheel?.over === 'switch' ? volts : 0;
    const way = freewheel?.over === 'switch' ? -1 : 1;
    const all = feeds + 1 / acrossOhms + through;
    const junction = freewheel ? y[JUNCTION]! : 0;
    const terminal = (feeds * volts - amps + through * (backing - way * junction)) / all;
    q[AMPS] = law.henries * amps;
    jq[AMPS] = law.henries;
    jq[METRES] = coil.jammed ? 0 : law.slope * amps;
    f[AMPS] = coil.ohms * amps - terminal;
    jf[AMPS] = coil.ohms + 1 / all;
    q[METRES] = place;
    q[SPEED] = coil.kilograms * speed;
    if (!coil.jammed) {
      f[METRES] = -speed;
      f[SPEED] = law.back;
      jf[SPEED * size + AMPS] = 2 * amps * law.backBySquare;
      jf[SPEED * size + METRES] = law.backByPlace;
      jf[SPEED * size + SPEED] = law.backBySpeed;
    }
    if (!freewheel) return;
    jf[JUNCTION] = (way * through) / all;
    const thermal = THERMAL_VOLTS * freewheel.diode.emission;
    const held = heldBack(freewheel.diode, junction, this.junction, thermal);
    this.junction = held;
    const [own, siemens] = shockley(freewheel.diode, held, thermal);
    const outer = through * (way * (backing - terminal) - junction);
    f[JUNCTION] = own + siemens * (junction - held) - outer;
    jf[JUNCTION * size + AMPS] = (-way * through) / all;
    jf[JUNCTION * size + JUNCTION] = siemens + through * (1 - through / all);
  }
}
