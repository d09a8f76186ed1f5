import type { JobFacts } from '../desk/desk';

/** What a job needs to know beside what is its own: the same for every job that is opened on a function today. */
export type BegunFacts = Omit<JobFacts, 'id' | 'number' | 'title' | 'person' | 'openedAt' | 'stored'>;

/** A job that was opened without the server, as the browser keeps it. */
export interface BegunJob {
  /** What it goes by here, from 1 on; on its desk it stands as the negative of it. */
  local: number;
  /** The id that it has at the server too. */
  id: string;
  title: string;
  person: string;
  openedAt: string;
  facts: BegunFacts;
  /** Its number at the server, once it is there. */
  number: number | null;
}

/** The desk takes it as any other job. */
export function factsOfBegun({ local, id, title, person, openedAt, facts }: BegunJob): JobFacts {
  return { ...facts, id, number: -local, title, person, openedAt, stored: [] };
}
