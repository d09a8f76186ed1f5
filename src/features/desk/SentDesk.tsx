'use client';

import { useEffect, useMemo, useState } from 'react';
import { MainKey } from '@/ui/sheet';
import { JobDesk } from './JobDesk';
import { readLongLog } from './log/longLog';
import type { SentEntry } from './log/protocol';
import { receivedJob, type SentJob } from './sentJob';

/** The desk of a job that came with its page. */
export function SentDesk({ job }: { job: SentJob }) {
  return job.stored === null ? <LongDesk job={job} /> : <ShortDesk job={job} stored={job.stored} />;
}

function ShortDesk({ job, stored }: { job: SentJob; stored: readonly SentEntry[] }) {
  return <JobDesk job={useMemo(() => receivedJob(job, stored), [job, stored])} />;
}

/** The desk of a job whose log is too long for a page: nothing is shown as known before all of it is here. */
function LongDesk({ job }: { job: SentJob }) {
  const [whole, setWhole] = useState<{ job: SentJob; stored: readonly SentEntry[] } | null>(null);
  const [here, setHere] = useState(0);
  const [trouble, setTrouble] = useState<string | null>(null);
  const [tries, setTries] = useState(0);
  useEffect(() => {
    const leave = new AbortController();
    setTrouble(null);
    readLongLog(job, setHere, leave.signal).then(
      (stored) => {
        if (!leave.signal.aborted) setWhole({ job, stored });
      },
      (error: unknown) => {
        if (!leave.signal.aborted) setTrouble(error instanceof Error ? error.message : String(error));
      },
    );
    return () => leave.abort();
  }, [job, tries]);
  if (whole) return <ShortDesk job={whole.job} stored={whole.stored} />;
  return (
    <main className="flex min-h-dvh flex-col bg-sheet" aria-busy={trouble === null}>
      <h1 className="flex min-h-14 flex-wrap items-center gap-x-3 border-b-2 border-ink px-6 text-[19px] font-[750] max-tablet:px-3">
        {job.machineCode} {job.title}
      </h1>
      <p role="status" className="px-6 pt-5 text-[19px] max-tablet:px-3">
        {trouble === null
          ? `Reading the log: ${here} of ${job.logged} entries are here.`
          : `${trouble} The log of this job is long and is read after its page; not all of it is here yet.`}
      </p>
      {trouble === null ? null : (
        <div className="px-6 pt-4 max-tablet:px-3">
          <MainKey onClick={() => setTries((one) => one + 1)}>Try again</MainKey>
        </div>
      )}
    </main>
  );
}
