import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { openJob } from '@/features/job/server';
import { JobHead } from '@/features/job/JobHead';
import { ComplaintStep } from '@/features/job/ComplaintStep';
import { NotBuilt } from '@/features/job/NotBuilt';
import { stepOf } from '@/features/job/steps';
import { TestScreen } from '@/features/test/TestScreen';

interface Props {
  params: Promise<{ number: string }>;
  searchParams: Promise<{ step?: string }>;
}

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  const job = await openJob((await params).number);
  return { title: job ? `${job.machineCode} ${job.title}` : 'No such job' };
}

export default async function JobPage({ params, searchParams }: Props) {
  const job = await openJob((await params).number);
  if (!job) notFound();
  const step = stepOf((await searchParams).step);
  return (
    <div className="flex h-dvh min-h-[600px] flex-col">
      <JobHead job={job} step={step} done={['complaint']} />
      {step === 'test' ? (
        <TestScreen
          jobNumber={job.number}
          person={job.person ?? 'Technician'}
          circuit={job.circuit}
          entries={job.entries}
          lastSeq={job.lastSeq}
        />
      ) : step === 'complaint' ? (
        <ComplaintStep job={job} />
      ) : (
        <NotBuilt step={step} number={job.number} />
      )}
    </div>
  );
}
