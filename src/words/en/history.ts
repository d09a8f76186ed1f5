import { FAULT_NAMES, type FaultName } from '@/core/diagnosis/faultTypes';
import type { MinutesLeft } from '@/core/shed/minutesLeft';
import type { Month } from '@/core/shed/month';
import { plainFaultWords } from './findings';

const HOUR_MINUTES = 60;

/** A span of work: "45 min", "3.5 h". */
export function workWords(minutes: number): string {
  if (minutes < 2 * HOUR_MINUTES) return `${Math.round(minutes)} min`;
  return `${Number((minutes / HOUR_MINUTES).toPrecision(2))} h`;
}

/** What a job still needs: "about 45 min", "40 min to 2.5 h". */
export function leftWords({ least, most }: MinutesLeft): string {
  const round = (minutes: number) =>
    Math.max(ROUND_MINUTES, ROUND_MINUTES * Math.round(minutes / ROUND_MINUTES));
  const [from, to] = [workWords(round(least)), workWords(round(most))];
  if (from === to) return `about ${from}`;
  // Both in minutes: the unit once.
  return from.endsWith(' min') && to.endsWith(' min')
    ? `${from.slice(0, -' min'.length)} to ${to}`
    : `${from} to ${to}`;
}
const ROUND_MINUTES = 5;

/** What is known of how a job ended. */
export interface Ended {
  closed: boolean;
  isRetest: boolean;
  part: string | null;
  fault: string | null;
  named: string | null;
  minutes: number | null;
  cameBack: boolean;
}

/** How a job ended, in a line: "X31.2 bad joint, 85 min; came back". */
export function endedWords({ closed, isRetest, part, fault, minutes, named, cameBack }: Ended): string {
  if (!closed) return 'in hand';
  if (isRetest) return 're-test, read';
  if (part === null) return 'handed over, no fault shown';
  const known = FAULT_NAMES.find((one): one is FaultName => one === fault);
  return [
    `${part}${known ? ` ${plainFaultWords(known)}` : ''}${minutes === null ? '' : `, ${workWords(minutes)}`}`,
    ...(named !== null && named !== part ? [`${named} was named`] : []),
    ...(cameBack ? ['came back within thirty days'] : []),
  ].join('; ');
}

/** The figures of a month, a line each. */
export function monthLines({ repairs, retests, minutes, spared, named, wrong, cameBack }: Month): string[] {
  const of = (count: number, one: string, more: string) =>
    `${count === 0 ? 'No' : count} ${count === 1 ? one : more}`;
  return [
    `${of(repairs, 'job', 'jobs')} handed over${minutes ? `, ${workWords(minutes.all)} in all, half of them within ${workWords(minutes.middle)}` : ''}`,
    `${of(retests, 're-test', 're-tests')} read`,
    `${of(spared, 'part was', 'parts were')} in doubt and stayed in: spared`,
    named === 0
      ? 'No part was named'
      : `${of(named, 'part', 'parts')} named, ${wrong === 0 ? 'none' : wrong} of them wrongly`,
    `${of(cameBack, 'job', 'jobs')} came back within thirty days`,
  ];
}

/** "1 job", "14 jobs", "over 500 jobs". */
export function jobsCount(count: number, mostCounted: number): string {
  if (count > mostCounted) return `over ${mostCounted} jobs`;
  return count === 1 ? '1 job' : `${count} jobs`;
}
