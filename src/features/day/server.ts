import 'server-only';
import { z } from 'zod';
import { minutesUntil, troubleOf, type DayRow } from '@/core/shed/dayPlan';
import { siteTime } from '@/core/units/siteTime';
import { countJobs, jobsWaitingForParts, listJobs } from '@/db/jobs';
import { listAccounts } from '@/db/people';
import { getSetting, putSettingSince } from '@/db/settings';
import { dayTroubleWords } from '@/words/en/day';
import { digestSoon } from '../desk/digests';
import { openPolicy } from '../policy/server';
import { siteToday } from '../siteDays';
import { dayHours, dayRows, hereOf, MOST_DAY_JOBS, type Day, type DayCard, type DayHours } from './day';

const NAME = 'dayPlan';
const keptSchema = z.object({ day: z.iso.date(), rows: dayRows, hours: dayHours.default({}) });

/** The day as it stands: jobs in hand, who is there, what somebody kept. */
export async function openDay(): Promise<Day> {
  const [jobs, total, waiting, accounts, { policy }, stored] = await Promise.all([
    listJobs({}, MOST_DAY_JOBS),
    countJobs({}),
    jobsWaitingForParts(),
    listAccounts(),
    openPolicy(),
    getSetting(NAME),
  ]);
  for (const { id, digest } of jobs) if (!digest) digestSoon(id);
  const { date, time } = siteTime(new Date().toISOString(), policy.timeZone);
  const kept = keptSchema.safeParse(stored?.value);
  const cards = jobs.map((job): DayCard => ({
    number: job.number,
    title: job.title,
    machineCode: job.machine_code,
    machineName: job.machine_name,
    person: job.person,
    next: job.digest?.next ?? '',
    left: job.digest?.left ?? null,
    licences: job.digest?.licences ?? [],
    waitsForPart: waiting.has(job.number),
  }));
  return {
    cards,
    people: accounts
      .filter(({ closed_at, role }) => closed_at === null && role !== 'reader')
      .map(({ name, role, licences }) => ({ name, role, licences })),
    kept:
      stored && kept.success && kept.data.day === date
        ? {
            rows: kept.data.rows,
            hours: kept.data.hours,
            person: stored.person,
            at: stored.keptAt.toISOString(),
          }
        : null,
    since: stored?.keptAt.toISOString() ?? null,
    now: time,
    out:
      policy.machinesOut === null
        ? null
        : { time: policy.machinesOut, minutes: minutesUntil(policy.machinesOut, time) },
    more: total - jobs.length,
  };
}

/** Keeps who does what today. A job whose digest is not there yet has said nothing of licences: it is given to nobody. */
export async function keepDay(
  rows: DayRow[],
  hours: DayHours,
  since: string | null,
  person: string,
): Promise<{ trouble: string | null }> {
  const { cards, people, now } = await openDay();
  const jobs = new Map(cards.map((card) => [card.number, card]));
  const trouble = troubleOf(rows, jobs, people, hereOf(hours, now));
  if (trouble) return { trouble: dayTroubleWords(trouble) };
  const unknown = rows.flatMap((row) => row.jobs).find((number) => jobs.get(number)!.next === '');
  if (unknown !== undefined)
    return { trouble: `What job ${unknown} needs is still being worked out: look again in a moment.` };
  const { policy } = await openPolicy();
  const kept = await putSettingSince(
    NAME,
    { day: siteToday(policy.timeZone), rows, hours },
    person,
    since === null ? null : new Date(since),
  );
  return {
    trouble: kept
      ? null
      : 'Somebody kept another plan meanwhile: “As it was kept” shows it. What you moved stands until then.',
  };
}
