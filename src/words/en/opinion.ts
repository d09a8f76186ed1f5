import type { EntryOf } from '@/core/job/entries';

/** Whose opinion it is: one's own decision is no second opinion, and nobody reading it later should take it for one. */
export function opinionBy(opinion: EntryOf<'opinion'>, decision: EntryOf<'decision'>): string {
  return opinion.person === decision.person ? `${opinion.person}, who decided it as well` : opinion.person;
}
