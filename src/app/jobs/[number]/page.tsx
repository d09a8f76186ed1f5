import { notFound } from 'next/navigation';
import { page, titled } from '@/features/gate/page';
import { JobDesk } from '@/features/desk/JobDesk';
import { jobFacts, openJob } from '@/features/desk/server';

interface Props {
  params: Promise<{ number: string }>;
}

export const generateMetadata = titled<Props>(async ({ params }) => {
  const job = await openJob((await params).number);
  return { title: job ? `${job.machineCode} ${job.title}` : 'No such job' };
});

export default page<Props>('look', async function JobPage({ params }, who) {
  const job = await jobFacts((await params).number, who);
  if (!job) notFound();
  return <JobDesk job={job} />;
});
