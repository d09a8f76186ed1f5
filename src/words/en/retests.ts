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
