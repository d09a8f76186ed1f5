import Link from 'next/link';
import { Suspense } from 'react';
import type { JobListRow } from '@/db/jobs';
import { MiniPath } from '@/ui/path/MiniPath';
import { digestOf } from './server';

/** A job in hand: machine, complaint, the next action, and its own path in small. */
export function JobRow({ job }: { job: JobListRow }) {
  return (
    <li className="relative grid min-h-[86px] grid-cols-[190px_minmax(0,400px)_minmax(0,1fr)] items-center gap-x-4 border-b-[1.5px] border-rule px-6 py-2 max-desk:grid-cols-[84px_minmax(0,1fr)] max-tablet:px-3">
      <div className="min-w-0">
        <p className="fig-bold text-[27px] leading-[30px]">{job.machine_code}</p>
        <p className="truncate text-[15.5px] text-ink2" title={job.machine_name}>
          {job.machine_name}
        </p>
      </div>
      <div className="min-w-0">
        <Link
          href={`/jobs/${job.number}`}
          className="block truncate text-[19px] leading-6 font-[750] before:absolute before:inset-0"
          title={job.title}
        >
          {job.title}
        </Link>
        <Suspense fallback={<p className="text-ink2">Working out the next test</p>}>
          <NextAction number={job.number} />
        </Suspense>
        <p className="text-[15.5px] text-ink2">
          Job {job.number}, {job.person ?? 'nobody yet'}
        </p>
      </div>
      <div className="max-desk:col-span-2 max-tablet:overflow-hidden">
        <Suspense fallback={<div className="h-[62px]" />}>
          <SmallPath number={job.number} />
        </Suspense>
      </div>
    </li>
  );
}

async function NextAction({ number }: { number: number }) {
  const digest = await digestOf(number);
  return <p className="truncate">{digest?.next ?? ''}</p>;
}

async function SmallPath({ number }: { number: number }) {
  const digest = await digestOf(number);
  return digest && digest.runs.length > 0 ? <MiniPath runs={digest.runs} /> : null;
}
