import type { PastWinding } from '@/core/job/provedMeasures';
import type { JobFacts } from './desk';
import { MOST_IN_PAGE, type SentEntry } from './log/protocol';

/** A winding of an earlier job without the words that many of them share: places in the lists of types and machines instead. */
type SentWinding = [
  part: string,
  type: number,
  ohms: number,
  atReference: 0 | 1,
  own: 0 | 1,
  machine: number,
  job: number,
  at: string,
];

/** A job's facts as they go into its page, where each word counts twice: hundreds of past windings share a few types and machines. */
export interface SentJob extends Omit<JobFacts, 'past' | 'stored'> {
  /** Its log; null where that is too long for a page, and is read in pieces. */
  stored: readonly SentEntry[] | null;
  /** Entries in its log as the page was made. */
  logged: number;
  past: Omit<JobFacts['past'], 'windings'> & {
    windings: { types: string[]; machines: string[]; rows: SentWinding[] };
  };
}

export function sentJob({ past: { windings, ...past }, stored, ...job }: JobFacts): SentJob {
  const types = [...new Set(windings.map(({ type }) => type))];
  const machines = [...new Set(windings.map(({ machine }) => machine))];
  return {
    ...job,
    stored: stored.length > MOST_IN_PAGE ? null : stored,
    logged: stored.length,
    past: {
      ...past,
      windings: {
        types,
        machines,
        rows: windings.map(({ part, type, ohms, atReference, own, machine, jobNumber, at }) => [
          part,
          types.indexOf(type),
          ohms,
          atReference ? 1 : 0,
          own ? 1 : 0,
          machines.indexOf(machine),
          jobNumber,
          at,
        ]),
      },
    },
  };
}

/** @param stored its log, as it came with the page or after it */
export function receivedJob(
  { past: { windings, ...past }, stored: _sent, logged: _logged, ...job }: SentJob,
  stored: readonly SentEntry[],
): JobFacts {
  const { types, machines, rows } = windings;
  return {
    ...job,
    stored,
    past: {
      ...past,
      windings: rows.map(([part, type, ohms, atReference, own, machine, jobNumber, at]): PastWinding => ({
        part,
        type: types[type]!,
        ohms,
        atReference: atReference === 1,
        own: own === 1,
        machine: machines[machine]!,
        jobNumber,
        at,
      })),
    },
  };
}
