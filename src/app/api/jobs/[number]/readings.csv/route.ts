import { NextResponse, type NextRequest } from 'next/server';
import { readingTable } from '@/features/handover/server';

/** Every reading of a job as a table. */
export async function GET(_request: NextRequest, { params }: { params: Promise<{ number: string }> }) {
  const { number } = await params;
  const table = await readingTable(number);
  if (table === null) return NextResponse.json({ message: `There is no job ${number}.` }, { status: 404 });
  return new NextResponse(table, {
    headers: {
      'content-type': 'text/csv; charset=utf-8',
      'content-disposition': `attachment; filename="job-${Number(number)}-readings.csv"`,
    },
  });
}
