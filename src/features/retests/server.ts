import 'server-only';
import { ICalCalendarMethod, default as ical } from 'ical-generator';
import { siteTime } from '@/core/units/siteTime';
import { countRetestsUntil, listRetests, type RetestCursor, type RetestRow } from '@/db/retests';
import { openPolicy } from '../policy/server';
import { endOfWeek } from '@/core/units/weeks';

const ROWS_A_PAGE = 60;
/** More than that far ahead is in nobody's calendar. */
const MOST_EVENTS = 500;
/** A calendar looks again after so long, seconds. */
const LOOK_AGAIN_S = 3600;

/** A page of what is to be looked at again, and the day it is where the shed stands. */
export async function openRetests(after: RetestCursor | undefined) {
  const [rows, { policy }] = await Promise.all([listRetests(ROWS_A_PAGE + 1, after), openPolicy()]);
  const page = rows.slice(0, ROWS_A_PAGE);
  const last = page.at(-1);
  return {
    rows: page,
    today: today(policy.timeZone),
    more: rows.length > ROWS_A_PAGE && last ? { due: last.due, id: last.id } : null,
  };
}

/** How many are due until the end of this week. */
export async function retestsThisWeek(): Promise<number> {
  const { policy } = await openPolicy();
  return countRetestsUntil(endOfWeek(today(policy.timeZone)));
}

/** The same as an iCalendar feed (RFC 5545): one whole day each. `origin` is where the shed is reached. */
export async function retestCalendar(origin: string): Promise<string> {
  const [rows, { policy }] = await Promise.all([listRetests(MOST_EVENTS), openPolicy()]);
  const calendar = ical({
    name: `${policy.shedName}: re-tests`,
    method: ICalCalendarMethod.PUBLISH,
    prodId: { company: 'Spiraxis', product: 'Re-tests', language: 'EN' },
    ttl: LOOK_AGAIN_S,
  });
  for (const row of rows) calendar.createEvent(eventOf(row, origin));
  return calendar.toString();
}

function eventOf(
  { id, number, due, title, function_name, machine_code, machine_name }: RetestRow,
  origin: string,
) {
  return {
    id: `retest-${id}@spiraxis`,
    // Noon, so that no zone makes another day of it; a whole day has no hour.
    start: new Date(`${due}T12:00:00Z`),
    allDay: true,
    summary: `Re-test ${machine_code}: ${function_name}`,
    description: `${machine_name}. Job ${number}: ${title}`,
    url: `${origin}/jobs/${number}`,
  };
}

function today(timeZone: string): string {
  return siteTime(new Date().toISOString(), timeZone).date;
}
