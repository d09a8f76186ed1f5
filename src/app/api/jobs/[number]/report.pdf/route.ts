import { NextResponse, type NextRequest } from 'next/server';
import { reportPdf } from '@/features/handover/ReportPdf';
import { reportOf } from '@/features/handover/server';

/** A job's report as a PDF. */
export async function GET(_request: NextRequest, { params }: { params: Promise<{ number: string }> }) {
  const { number } = await params;
  const report = await reportOf(number);
  if (!report) return NextResponse.json({ message: `There is no job ${number}.` }, { status: 404 });
  return new NextResponse(new Uint8Array(await reportPdf(report)), {
    headers: {
      'content-type': 'application/pdf',
      'content-disposition': `inline; filename="job-${report.number}.pdf"`,
      'cache-control': 'no-store',
    },
  });
}
