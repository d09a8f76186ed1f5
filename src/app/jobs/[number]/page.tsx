import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { JobDesk } from '@/features/desk/JobDesk';
import { jobFacts, openJob } from '@/features/desk/server';

interface Props {
  params: Promise<{ number: string }>;
}

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  const job = await openJob((await params).number);
  return { title: job ? `${job.machineCode} ${job.title}` : 'No such job' };
}

export default async function JobPage({ params }: Props) {
  const job = await jobFacts((await params).number);
  if (!job) notFound();
  return <JobDesk job={job} />;
}
