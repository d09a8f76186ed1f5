import { NextResponse, type NextRequest } from 'next/server';
import { jobDocument } from '@/features/handover/server';

/** Everything of a job in one open document. */
export async function GET(_request: NextRequest, { params }: { params: Promise<{ number: string }> }) {
  const { number } = await params;
  const document = await jobDocument(number);
  if (!document) return NextResponse.json({ message: `There is no job ${number}.` }, { status: 404 });
  return new NextResponse(`${JSON.stringify(document, null, 2)}\n`, {
    headers: {
      'content-type': 'application/json; charset=utf-8',
      'content-disposition': `attachment; filename="job-${Number(number)}.json"`,
    },
  });
}
