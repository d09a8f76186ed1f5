import { median } from '../statistics';
import type { Doubt } from './outcome';

/** A job that ended in the month. */
export interface MonthJob {
  isRetest: boolean;
  minutes: number | null;
  part: string | null;
  named: string | null;
  doubt: readonly Doubt[];
  cameBack: boolean;
}

export interface Month {
  repairs: number;
  retests: number;
  /** Of repairs, from their first entry to the hand-over; null where there was none. */
  minutes: { all: number; middle: number } | null;
  /** Parts that stood in doubt on the way and stayed in the machine. */
  spared: number;
  named: number;
  wrong: number;
  cameBack: number;
}

/** A doubt from which a part would have been changed on suspicion. */
const SUSPECTED = 0.25;

/** What a month of jobs comes to. */
export function monthOf(jobs: readonly MonthJob[]): Month {
  const repairs = jobs.filter(({ isRetest }) => !isRetest);
  const proved = repairs.filter(({ part }) => part !== null);
  const minutes = repairs.flatMap((job) => job.minutes ?? []);
  return {
    repairs: repairs.length,
    retests: jobs.length - repairs.length,
    minutes:
      minutes.length === 0
        ? null
        : { all: minutes.reduce((sum, one) => sum + one, 0), middle: median(minutes) },
    spared: proved.reduce((sum, job) => sum + sparedIn(job), 0),
    named: proved.filter(({ named }) => named !== null).length,
    wrong: proved.filter(({ named, part }) => named !== null && named !== part).length,
    cameBack: repairs.filter((job) => job.cameBack).length,
  };
}

function sparedIn({ doubt, part }: MonthJob): number {
  const suspected = new Set(
    doubt.flatMap((step) => step.flatMap(([ref, share]) => (share >= SUSPECTED ? [ref] : []))),
  );
  if (part !== null) suspected.delete(part);
  return suspected.size;
}
