import type { JobState } from './reduceJob';

/** A part that was worked on or is about to be, and the fault that this is for, empty where nobody said. */
export interface Worked {
  part: string;
  fault: string;
}

/**
 * What the machine has to be shown sound after: every part that was worked on, those of works that did not mend it too, and the one that is
 * decided on now. A line that was opened for nothing has to be tight all the same.
 */
export function workedOn({ decisions, fixes }: Pick<JobState, 'decisions' | 'fixes'>): Worked[] {
  const worked = new Map<string, Worked>();
  for (const { body } of decisions)
    if (body.action !== 'nothing' && body.part !== '')
      worked.set(`${body.part} ${body.fault}`, { part: body.part, fault: body.fault });
  const known = new Set([...worked.values()].map(({ part }) => part));
  for (const { body } of fixes)
    if (body.part !== '' && !known.has(body.part)) worked.set(body.part, { part: body.part, fault: '' });
  return [...worked.values()];
}
