/**
 * Volts from which a supply counts as line: above extra-low voltage, alternating (IEC 60364-4-41: not over 50 V). The
 * limit for direct current is higher; here the lower one holds for both, and what stands on it counts as line.
 */
const LINE_VOLTS = 50;

/** Whether volts, of either sign, can kill through dry skin. */
export function areLineVolts(volts: number): boolean {
  // Written so that what is no number counts as line.
  return !(Math.abs(volts) < LINE_VOLTS);
}
