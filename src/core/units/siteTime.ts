/** A moment on the clock of a place. */
export interface SiteTime {
  /** 2026-02-03 */
  date: string;
  /** 14:05 */
  time: string;
  /** 3 Feb 2026 */
  day: string;
}

interface Clock {
  parts: Intl.DateTimeFormat;
  day: Intl.DateTimeFormat;
}
const clocks = new Map<string, Clock>();

/** Whether a name is a time zone of the IANA database that this program knows. */
export function isTimeZone(zone: string): boolean {
  try {
    clockOf(zone);
    return true;
  } catch {
    return false;
  }
}

/** A stored moment (ISO 8601) on the clock of a time zone, by its IANA name. Throws `RangeError` for an unknown one. */
export function siteTime(iso: string, zone: string): SiteTime {
  const moment = new Date(iso);
  const { parts, day } = clockOf(zone);
  const part = Object.fromEntries(parts.formatToParts(moment).map(({ type, value }) => [type, value]));
  return {
    date: `${part.year}-${part.month}-${part.day}`,
    time: `${part.hour}:${part.minute}`,
    day: day.format(moment),
  };
}

/** A day as a heading says it: "Thursday 26 November". */
export function siteDay(iso: string, zone: string): string {
  const words = { weekday: 'long', day: 'numeric', month: 'long', timeZone: zone } as const;
  return new Intl.DateTimeFormat('en-GB', words).format(new Date(iso));
}

/** A calendar day, 2026-02-03, as a list says it: "3 Feb 2026". */
export function calendarDay(day: string): string {
  return siteTime(`${day}T12:00:00Z`, 'UTC').day;
}

/** Date and time in one: "2026-02-03 14:05". */
export function siteMoment(iso: string, zone: string): string {
  const { date, time } = siteTime(iso, zone);
  return `${date} ${time}`;
}

/** Making a formatter costs more than using it a thousand times. */
function clockOf(zone: string): Clock {
  let clock = clocks.get(zone);
  if (!clock) {
    const common = { timeZone: zone, year: 'numeric' } as const;
    clock = {
      parts: new Intl.DateTimeFormat('en-GB', {
        ...common,
        month: '2-digit',
        day: '2-digit',
        hour: '2-digit',
        minute: '2-digit',
        hourCycle: 'h23',
      }),
      day: new Intl.DateTimeFormat('en-GB', { ...common, month: 'short', day: 'numeric' }),
    };
    clocks.set(zone, clock);
  }
  return clock;
}
