import type { PastWinding } from '@/core/job/provedMeasures';
import type { JobFacts } from './desk';
import { MOST_IN_PAGE, type SentEntry } from './log/protocol';
import { receivedJob, sentJob, type SentJob } from './sentJob';

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
  const entry = (number: number): SentEntry => ({
    number,
    entry: { id: `e${number}`, type: 'reading' } as unknown as SentEntry['entry'],
    receivedAt: '2026-03-06T17:16:22.293Z',
    skewMs: null,
  });
  const log = (length: number) => Array.from({ length }, (_, at) => entry(at + 1));
  const job = {
    number: 417,
    stored: log(3),
    past: {
      baselines: [{ key: 'k', value: 'dead', jobNumber: 3, at: '' }],
      windings: Array.from({ length: 40 }, (_, at) => winding(at)),
    },
  } as unknown as JobFacts;

  it('comes out as it was put in', () => {
    const sent = JSON.parse(JSON.stringify(sentJob(job))) as SentJob;
    expect(receivedJob(sent, sent.stored!)).toEqual(job);
  });

  it('leaves a log that is too long for a page to be read after it', () => {
    expect(sentJob({ ...job, stored: log(MOST_IN_PAGE) }).stored).toHaveLength(MOST_IN_PAGE);
    const long = sentJob({ ...job, stored: log(MOST_IN_PAGE + 1) });
    expect(long).toMatchObject({ stored: null, logged: MOST_IN_PAGE + 1 });
    expect(receivedJob(long, log(MOST_IN_PAGE + 2)).stored).toHaveLength(MOST_IN_PAGE + 2);
  });

  it('takes less than half the room', () => {
    const room = (value: unknown) => JSON.stringify(value).length;
    expect(room(sentJob(job).past.windings)).toBeLessThan(room(job.past.windings) / 2);
  });
});
