/** Of what a live output stands at: from here it counts as live, and from here as part volts. */
const LIVE_SHARE = 0.85;
const PART_SHARE = 0.12;

/** What the figure of an output lies on, as classes: live, part volts or nothing. The pattern is seen before a figure is read. */
export function outputGround(volts: number, fullVolts: number): string {
  if (volts >= LIVE_SHARE * fullVolts) return 'bg-verdi-t!';
  return volts >= PART_SHARE * fullVolts ? 'bg-copper-t!' : '';
}
