/** OWASP ASVS 3.3.2, level 2: who was signed in for twelve hours, or did nothing for thirty minutes, proves it again. */
export const SESSION_HOURS = 12;
export const IDLE_MINUTES = 30;
/** A second person's PIN is good for the one entry that is written now. */
export const WITNESS_MINUTES = 10;
/** A word that somebody else gave is for the first sign-in, soon. */
export const ONE_TIME_HOURS = 72;

const MINUTE_MS = 60_000;

export interface SessionTimes {
  begunAt: Date;
  seenAt: Date;
  endedAt: Date | null;
}

/** Whether a session still stands for somebody. Written so that a time that is none ends it. */
export function sessionStands({ begunAt, seenAt, endedAt }: SessionTimes, now: Date): boolean {
  if (endedAt !== null) return false;
  const within = (since: Date, minutes: number) => now.getTime() - since.getTime() <= minutes * MINUTE_MS;
  return within(begunAt, SESSION_HOURS * 60) && within(seenAt, IDLE_MINUTES);
}

/** Whether something given at a time is still good after so many minutes. */
export function isStillGood(givenAt: Date, minutes: number, now: Date): boolean {
  return now.getTime() - givenAt.getTime() <= minutes * MINUTE_MS;
}
