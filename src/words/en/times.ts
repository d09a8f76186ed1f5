import { clockOff } from '@/core/job/rules/writersClock';
import { siteMoment } from '@/core/units/siteTime';

/** When the server got an entry, and how far its writer's clock was ahead then, milliseconds. */
export interface Arrival {
  receivedAt: string;
  skewMs: number | null;
}

/** When something was written by its writer's clock, and how far that clock was off where it matters. */
export function writtenWords(at: string, arrival: Arrival | undefined, timeZone: string): string {
  const off = clockOff(arrival?.skewMs ?? null);
  return `${siteMoment(at, timeZone)}${off === null ? '' : ` (${clockWords(off)})`}`;
}

const MINUTE_MS = 60_000;
const HOUR_MINUTES = 60;
const DAY_MINUTES = 24 * HOUR_MINUTES;

/** A clock that is off, in words: "clock 58 min fast". */
export function clockWords(skewMs: number): string {
  const minutes = Math.round(Math.abs(skewMs) / MINUTE_MS);
  const size =
    minutes < 2 * HOUR_MINUTES
      ? `${minutes} min`
      : minutes < 2 * DAY_MINUTES
        ? `${Math.round(minutes / HOUR_MINUTES)} h`
        : `${Math.round(minutes / DAY_MINUTES)} days`;
  return `clock ${size} ${skewMs > 0 ? 'fast' : 'slow'}`;
}

/** Seconds as a stopwatch shows them: "0:45", "10:00". */
export function stopwatchWords(seconds: number): string {
  const whole = Math.floor(seconds);
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, '0')}`;
}
