import { significant } from '../units/significant';

/** Nominal volts that supplies are named by; a battery that reads 13.1 V is a 12 V one. */
const NOMINAL_VOLTS = [5, 6, 12, 24, 36, 48, 80, 110, 120, 208, 220, 230, 240, 277, 400, 480];
const NEAR_NOMINAL = 0.08;
/** A battery on charge stands up to a fifth over its name. */
const CHARGED = 0.2;

/** What volts are called on a label. */
export function nominalVolts(volts: number, alternating: boolean): number {
  const over = alternating ? NEAR_NOMINAL : CHARGED;
  const near = NOMINAL_VOLTS.filter((one) => volts / one - 1 >= -NEAR_NOMINAL && volts / one - 1 <= over);
  const best = near.sort((a, b) => Math.abs(volts - a) - Math.abs(volts - b))[0];
  return best ?? significant(volts, 2);
}
