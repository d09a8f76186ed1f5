import { NextResponse, type NextRequest } from 'next/server';
import { openBook } from '@/features/codes/server';
import { writeCodeBook } from '@/formats/codeTables';

/** The machine's code book as a table. */
export async function GET(_request: NextRequest, { params }: { params: Promise<{ code: string }> }) {
  const { code } = await params;
  const open = await openBook(code);
  if (!open) return NextResponse.json({ message: `There is no machine ${code}.` }, { status: 404 });
  return new NextResponse(writeCodeBook(open.book), {
    headers: {
      'content-type': 'text/csv; charset=utf-8',
      'content-disposition': `attachment; filename="${open.machine.code.replace(/[^\w-]/g, '_')}-codes.csv"`,
    },
  });
}
