import { z } from 'zod';
import { minutesHere, type DayJob, type DayPerson, type DayRow, type Here } from '@/core/shed/dayPlan';

/** More jobs in hand than this nobody lays out by hand. */
export const MOST_DAY_JOBS = 60;

export const dayRows = z
  .array(z.object({ person: z.string().max(60), jobs: z.array(z.number().int().min(1)).max(MOST_DAY_JOBS) }))
  .max(60);

/** When somebody goes home today, "22:00", or that they are not here; who is not named stays as long as it takes. */
export const dayHours = z.record(
  z.string().max(60),
  z.union([z.literal('away'), z.string().regex(/^([01]\d|2[0-3]):[0-5]\d$/)]),
);
export type DayHours = z.infer<typeof dayHours>;

/** The same in minutes from now. */
export function hereOf(hours: DayHours, now: string): Here {
  return new Map(
    Object.entries(hours).map(([name, until]) => [name, until === 'away' ? 0 : minutesHere(until, now)]),
  );
}

/** A job as the day shows it. */
export interface DayCard extends DayJob {
  title: string;
  machineCode: string;
  machineName: string;
  next: string;
}

/** All that the page of the day stands on. */
export interface Day {
  cards: DayCard[];
  people: DayPerson[];
  /** What somebody kept; null where nobody did for this day. */
  kept: { rows: DayRow[]; hours: DayHours; person: string; at: string } | null;
  /** When the setting was kept that was seen, whatever day it was for. */
  since: string | null;
  /** On the site's clock, and until the machines go out; null where no hour is set. */
  now: string;
  out: { time: string; minutes: number } | null;
  /** Jobs in hand that are not on it, beyond what it shows. */
  more: number;
}
