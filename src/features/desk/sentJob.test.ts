import type { PastWinding } from '@/core/job/provedMeasures';
import type { JobFacts } from './desk';
import { receivedJob, sentJob } from './sentJob';

describe('a job as it goes into its page', () => {
  const winding = (at: number): PastWinding => ({
    part: at % 2 ? 'Y7' : 'Y8',
    type: `["coil",${at % 3}]`,
    ohms: 31.3 + at / 10,
    atReference: at % 2 === 0,
    own: at < 2,
    machine: `G-${at % 4}`,
    jobNumber: 400 + at,
    at: '2026-03-06T17:16:22.293Z',
  });
  const job = {
    number: 417,
    past: {
      baselines: [{ key: 'k', value: 'dead', jobNumber: 3, at: '' }],
      windings: Array.from({ length: 40 }, (_, at) => winding(at)),
    },
  } as unknown as JobFacts;

  it('comes out as it was put in', () => {
    expect(receivedJob(JSON.parse(JSON.stringify(sentJob(job))))).toEqual(job);
  });

  it('takes less than half the room', () => {
    const room = (value: unknown) => JSON.stringify(value).length;
    expect(room(sentJob(job).past.windings)).toBeLessThan(room(job.past.windings) / 2);
  });
});
