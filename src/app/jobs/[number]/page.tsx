import { notFound } from 'next/navigation';
import { page, titled } from '@/features/gate/page';
import { SentDesk } from '@/features/desk/SentDesk';
import { sentJob } from '@/features/desk/sentJob';
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
  return <SentDesk job={sentJob(job)} />;
});
