import type { PastWinding } from '@/core/job/provedMeasures';
import type { JobFacts } from './desk';

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
export interface SentJob extends Omit<JobFacts, 'past'> {
  past: Omit<JobFacts['past'], 'windings'> & {
    windings: { types: string[]; machines: string[]; rows: SentWinding[] };
  };
}

export function sentJob({ past: { windings, ...past }, ...job }: JobFacts): SentJob {
  const types = [...new Set(windings.map(({ type }) => type))];
  const machines = [...new Set(windings.map(({ machine }) => machine))];
  return {
    ...job,
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

export function receivedJob({ past: { windings, ...past }, ...job }: SentJob): JobFacts {
  const { types, machines, rows } = windings;
  return {
    ...job,
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
