'use client';

import { useMemo } from 'react';
import { JobDesk } from './JobDesk';
import { receivedJob, type SentJob } from './sentJob';

/** The desk of a job that came with its page. */
export function SentDesk({ job }: { job: SentJob }) {
  return <JobDesk job={useMemo(() => receivedJob(job), [job])} />;
}
