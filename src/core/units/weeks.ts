/** When something is due, seen from a day. */
export type Due = 'overdue' | 'thisWeek' | 'nextWeek' | 'later';
export const DUES = ['overdue', 'thisWeek', 'nextWeek', 'later'] as const satisfies readonly Due[];

const DAY_MS = 86_400_000;
const WEEK_DAYS = 7;

/** Weeks begin on Monday (ISO 8601). `day` and `today` are calendar days: 2026-12-03. */
export function dueOf(day: string, today: string): Due {
  if (dayNumber(day) < dayNumber(today)) return 'overdue';
  const weeks = (monday(day) - monday(today)) / WEEK_DAYS;
  return weeks === 0 ? 'thisWeek' : weeks === 1 ? 'nextWeek' : 'later';
}

/** The last day of the week that a day lies in. */
export function endOfWeek(day: string): string {
  return new Date((monday(day) + WEEK_DAYS - 1) * DAY_MS).toISOString().slice(0, 10);
}

/** Days since 1 January 1970, a Thursday. */
function dayNumber(day: string): number {
  return Math.round(Date.parse(`${day}T00:00:00Z`) / DAY_MS);
}

function monday(day: string): number {
  const number = dayNumber(day);
  return number - ((number + 3) % WEEK_DAYS);
}
