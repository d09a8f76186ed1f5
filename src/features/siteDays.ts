import { addDays, format, parseISO } from 'date-fns';
import { siteTime } from '@/core/units/siteTime';

/** The day it is on the site's clock, "2026-12-03": never on that of the server or of the tablet. */
export function siteToday(timeZone: string): string {
  return siteTime(new Date().toISOString(), timeZone).date;
}

/** The calendar day so many days after another. */
export function dayAfter(day: string, days: number): string {
  return format(addDays(parseISO(day), days), 'yyyy-MM-dd');
}
