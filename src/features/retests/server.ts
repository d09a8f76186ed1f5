import 'server-only';
import { ICalCalendarMethod, default as ical } from 'ical-generator';
import { redirect } from 'next/navigation';
import { v7 as uuidv7 } from 'uuid';
import type { Entry } from '@/core/job/entries';
import { inReadingOrder, inWalkingOrder } from '@/core/shed/walk';
import { appendEntries } from '@/db/entries';
import { insertJob } from '@/db/jobs';
import { findFunction } from '@/db/library';
import type { GaugeUnit } from '@/core/units/quantities';
import {
  countRetestsUntil,
  findRetest,
  listRetests,
  retestsUntil,
  type RetestCursor,
  type RetestRow,
} from '@/db/retests';
import { placesToRead, type TrendRow } from '@/db/trends';
import { measureFigure } from '@/words/en/trends';
import { digestSoon } from '../desk/digests';
import { provenanceOf, type Signed } from '../people/session';
import { log } from '../serverLog';
import { openPolicy } from '../policy/server';
import { dayAfter, siteToday } from '../siteDays';
import { endOfWeek } from '@/core/units/weeks';

const ROWS_A_PAGE = 30;
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
    today: siteToday(policy.timeZone),
    more: rows.length > ROWS_A_PAGE && last ? { due: last.due, id: last.id } : null,
  };
}

/** How many are due until the end of this week. */
export async function retestsThisWeek(): Promise<number> {
  const { policy } = await openPolicy();
  return countRetestsUntil(endOfWeek(siteToday(policy.timeZone)));
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

/** What a round reads of one function. */
export interface RoundStop extends Pick<
  RetestRow,
  'machine_code' | 'machine_name' | 'machine_place' | 'function_name' | 'function_id' | 'due' | 'open_job'
> {
  places: { key: string; title: string; was: string }[];
}

/** More stops are no round of one day. */
const MOST_STOPS = 15;
/** A re-test reads as many places; more are no look any more. */
const MOST_PLACES = 40;
export const ROUND_DAYS = [0, 7, 14, 30] as const;

/** The round of what is due within so many days, in the order of walking, with what each place read last. */
export async function openRound(
  days: number,
): Promise<{ stops: RoundStop[]; today: string; until: string; more: boolean }> {
  const { policy } = await openPolicy();
  const now = siteToday(policy.timeZone);
  const until = dayAfter(now, days);
  const due = await retestsUntil(until, MOST_STOPS + 1);
  const rows = inWalkingOrder(due.slice(0, MOST_STOPS));
  return {
    stops: await stopsOf(rows, policy.gaugeUnit),
    today: now,
    until,
    more: due.length > MOST_STOPS,
  };
}

/** The same for one function, whether or not it is due. */
export async function roundOf(
  functionId: string,
): Promise<{ stops: RoundStop[]; today: string; until: string; more: boolean }> {
  const [{ policy }, due] = await Promise.all([openPolicy(), findRetest(functionId)]);
  const now = siteToday(policy.timeZone);
  const rows = due ? [{ ...due, due: due.due ?? now }] : [];
  return { stops: await stopsOf(rows, policy.gaugeUnit), today: now, until: now, more: false };
}

async function stopsOf(
  rows: readonly Omit<RoundStop, 'places'>[],
  gaugeUnit: GaugeUnit,
): Promise<RoundStop[]> {
  const places = await placesToRead(rows.map(({ function_id }) => function_id));
  return rows.map(
    ({
      machine_code,
      machine_name,
      machine_place,
      function_name,
      function_id,
      due,
      open_job,
    }): RoundStop => ({
      machine_code,
      machine_name,
      machine_place,
      function_name,
      function_id,
      due,
      open_job,
      places: asked(places, function_id).map(({ place_key, body }) => {
        const last = body.dots.at(-1)!;
        return {
          key: place_key,
          title: body.title,
          was: measureFigure(body.kind, last.value, gaugeUnit, last.over),
        };
      }),
    }),
  );
}

function asked(places: readonly TrendRow[], functionId: string): TrendRow[] {
  const own = places.filter(({ function_id }) => function_id === functionId);
  return inReadingOrder(own.map((row) => ({ row, test: row.body.test })))
    .slice(0, MOST_PLACES)
    .map(({ row }) => row);
}

/** Opens a look at a machine that nothing is said to be wrong with: its places are read as they were read before. */
export async function openRetest(functionId: string, who: Signed): Promise<{ trouble: string | null }> {
  const known = await findFunction(functionId);
  if (!known) return { trouble: 'That function is not in the shed any more.' };
  const places = asked(await placesToRead([functionId]), functionId);
  const person = who.name;
  const openedAt = new Date();
  const jobId = uuidv7();
  const number = await insertJob({
    id: jobId,
    functionId,
    title: `Re-test: ${known.name}`.slice(0, 200),
    person,
    openedAt,
  });
  const entry: Entry = {
    id: uuidv7(),
    at: openedAt.toISOString(),
    person,
    type: 'retest',
    body: { tests: places.flatMap(({ body }) => (body.test ? [body.test] : [])) },
  };
  await appendEntries(jobId, [entry], { from: () => provenanceOf(who) });
  digestSoon(jobId);
  log.info({ job: number, function: known.name }, 're-test opened');
  redirect(`/jobs/${number}?step=prove`);
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
