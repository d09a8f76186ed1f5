import type { Due } from '@/core/units/weeks';

export const DUE_WORDS: Readonly<Record<Due, string>> = {
  overdue: 'Overdue',
  thisWeek: 'This week',
  nextWeek: 'Next week',
  later: 'Later',
};

/** How many wait until the end of the week; nothing where none does. */
export function waitingWords(count: number): string {
  return count === 0 ? '' : count === 1 ? 'One re-test is due' : `${count} re-tests are due`;
}

/** A round by how far it looks ahead. */
export function dueWithin(days: number): string {
  if (days === 0) return 'Due by today';
  return days % 7 === 0 ? `Within ${days === 7 ? 'a week' : `${days / 7} weeks`}` : `Within ${days} days`;
}
