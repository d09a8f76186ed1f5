/** A writer's clock that stands this far off is said beside what it wrote, milliseconds. */
export const CLOCK_OFF_MS = 2 * 60_000;
/** A time further off than this is no time of this job: the clock was never set. */
const REASON_MS = 366 * 24 * 3_600_000;

/** Whether a written time lies outside reason beside the time it reached the server. Both in milliseconds. */
export function outsideReason(writtenMs: number, receivedMs: number): boolean {
  return !(Math.abs(writtenMs - receivedMs) <= REASON_MS);
}

/** How far a writer's clock is off, in milliseconds, where it is worth saying; null where it is right or not known. */
export function clockOff(skewMs: number | null): number | null {
  return skewMs !== null && Math.abs(skewMs) > CLOCK_OFF_MS ? skewMs : null;
}
