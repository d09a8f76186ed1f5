'use client';

import { Link } from '@/ui/Link';
import { unpackRuns } from '@/core/job/jobDigest';
import type { MinutesLeft } from '@/core/shed/minutesLeft';
import { MiniPath } from '@/ui/path/MiniPath';
import { leftWords } from '@/words/en/history';

/** As little of a job as its row shows: a page has many of these, and each is sent twice, drawn and to be drawn. */
export interface JobRowFacts {
  number: number;
  title: string;
  person: string | null;
  machineCode: string;
  machineName: string;
  /** What is next, and the path in letters; nothing while it is worked out. */
  digest: { next: string; defects: string[]; path: string; left: MinutesLeft | null } | null;
}

/** A job in hand: machine, complaint, the next action, and its own path in small. */
export function JobRow({ job }: { job: JobRowFacts }) {
  const { digest } = job;
  return (
    <li className="relative grid min-h-[86px] grid-cols-[190px_minmax(0,400px)_minmax(0,1fr)] items-center gap-x-4 border-b-[1.5px] border-rule px-6 py-2 max-desk:grid-cols-[84px_minmax(0,1fr)] max-tablet:px-3">
      <div className="min-w-0">
        <p className="fig-bold text-[27px] leading-[30px]">{job.machineCode}</p>
        <p
          className="truncate text-[15.5px] text-ink2 max-tablet:line-clamp-2 max-tablet:leading-5 max-tablet:whitespace-normal"
          title={job.machineName}
        >
          {job.machineName}
        </p>
      </div>
      <div className="min-w-0">
        <Link
          href={`/jobs/${job.number}`}
          className="block truncate text-[19px] leading-6 font-[750] before:absolute before:inset-0 max-tablet:line-clamp-2 max-tablet:whitespace-normal"
          title={job.title}
        >
          {job.title}
        </Link>
        <p className={digest ? 'line-clamp-2' : 'text-ink2'}>{digest?.next ?? 'Working out the next test'}</p>
        {digest && digest.defects.length > 0 ? (
          <p className="font-[700] text-stamp">✕ Safety defect: {digest.defects.join('; ')}</p>
        ) : null}
        <p className="text-[15.5px] text-ink2">
          Job {job.number}, {job.person ?? 'nobody yet'}
          {digest?.left ? `, ${leftWords(digest.left)} of work` : ''}
        </p>
      </div>
      <div className="max-desk:col-span-2 max-tablet:overflow-hidden">
        {digest?.path ? <MiniPath runs={unpackRuns(digest.path)} /> : <div className="h-[62px]" />}
      </div>
    </li>
  );
}
