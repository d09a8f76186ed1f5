import { Link } from '@/ui/Link';
import { notFound } from 'next/navigation';
import { page, titled } from '@/features/gate/page';
import { ReportSheet } from '@/features/handover/ReportSheet';
import { reportOf } from '@/features/handover/server';
import { PageHead } from '@/ui/PageHead';
import { PrintKey } from '@/ui/PrintKey';

interface Props {
  params: Promise<{ number: string }>;
}

export const generateMetadata = titled<Props>(async ({ params }) => {
  return { title: `Report of job ${(await params).number}` };
});

export default page<Props>('look', async function ReportPage({ params }) {
  const report = await reportOf((await params).number);
  if (!report) notFound();
  const keep = 'flex items-center px-4 text-[16px] underline underline-offset-4 max-tablet:px-2';
  return (
    <div className="min-h-dvh bg-sheet">
      <div className="print:hidden">
        <PageHead title={`Report, job ${report.number}`} under={report.machine}>
          <Link className={keep} href={`/jobs/${report.number}?step=hand-over`}>
            Back
          </Link>
          <a className={keep} href={`/api/jobs/${report.number}/report.pdf`}>
            PDF
          </a>
          <PrintKey />
        </PageHead>
      </div>
      <main>
        <ReportSheet report={report} />
      </main>
    </div>
  );
});
