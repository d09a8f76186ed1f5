import { isInTime, isNotTonight } from '@/core/shed/dayPlan';
import type { DayTrouble, NotPlanned, PlannedFor, Standing } from '@/core/shed/dayPlan';
import type { Licence } from '@/core/people/roles';
import { LICENCE_WORDS } from './people';

/** Why a job stands in somebody's row. */
export const PLANNED_FOR: Readonly<Record<PlannedFor, string>> = {
  theirs: 'has it already',
  onlyLicensed: 'alone holds the licence',
  firstFree: 'is free first',
};

/** Why a job stands in nobody's row. */
export const NOT_PLANNED: Readonly<Record<NotPlanned, string>> = {
  part: 'waits for a part',
  notWeighed: 'how long it takes is not known yet',
  licence: 'nobody here holds the licence',
  notHere: 'who holds its licence is not here today',
};

/** What is wrong with a plan that somebody wants to keep, in a sentence. */
export function dayTroubleWords(trouble: DayTrouble): string {
  switch (trouble.code) {
    case 'noSuchPerson':
      return `${trouble.person} does not work here any more: give what they had to somebody else.`;
    case 'noSuchJob':
      return `Job ${trouble.number} is not in hand any more: look at the day again.`;
    case 'twice':
      return `Job ${trouble.number} stands with two people: leave it with one.`;
    case 'notHere':
      return `${trouble.person} is not here any more today: give what they had to somebody else.`;
    case 'mayNot':
      return `Job ${trouble.number} wants a licence that ${trouble.person} does not hold.`;
  }
}

/** Licences that a job wants: "licensed for line voltage". */
export function wantsWords(licences: readonly Licence[]): string {
  return licences.map((one) => LICENCE_WORDS[one]).join(' and ');
}

/** A moment so many minutes after another on the clock: "15:40". */
export function clockAfter(now: string, minutes: number): string {
  const [hours = 0, rest = 0] = now.split(':').map(Number);
  const at = (60 * hours + rest + Math.round(minutes)) % (24 * 60);
  return `${String(Math.floor(at / 60)).padStart(2, '0')}:${String(at % 60).padStart(2, '0')}`;
}

/** When a job is done, and whether that is in time. */
export function standingWords(standing: Standing, now: string): string {
  const { ends, inTime } = standing;
  const [first, last] = [clockAfter(now, ends.least), clockAfter(now, ends.most)];
  const when = first === last ? `done by ${last}` : `done ${first} to ${last}`;
  if (inTime === null) return when;
  if (isNotTonight(standing)) return `Not tonight: ${when}`;
  return isInTime(standing) ? when : `${when}, ${Math.round(20 * inTime)} in 20 to be in time`;
}

/** How the whole day comes out. */
export function dayWords(standings: readonly Standing[], hasHour: boolean): string {
  if (standings.length === 0) return 'Nothing is planned.';
  if (!hasHour) return `${standings.length} planned.`;
  const out = standings.filter(isInTime).length;
  const hardly = standings.filter(isNotTonight).length;
  const open = standings.length - out - hardly;
  return [
    `${out} of ${standings.length} in time`,
    ...(open > 0 ? [`${open} perhaps`] : []),
    ...(hardly > 0 ? [`${hardly} not tonight`] : []),
  ].join(', ');
}
