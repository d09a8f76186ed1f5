/** Minutes as said aloud. */
export function minutesWords(minutes: number): string {
  const whole = Math.max(1, Math.round(minutes));
  return whole === 1 ? '1 minute' : `${whole} minutes`;
}
