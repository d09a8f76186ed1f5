import { NextResponse, type NextRequest } from 'next/server';
import { packMachine } from '@/features/machines/archive';

/** The whole machine as one file. */
export async function GET(_request: NextRequest, { params }: { params: Promise<{ code: string }> }) {
  const { code } = await params;
  const packed = await packMachine(code);
  if (!packed) return NextResponse.json({ message: `There is no machine ${code}.` }, { status: 404 });
  return new NextResponse(new Uint8Array(packed.bytes), {
    headers: {
      'content-type': 'application/zip',
      'content-disposition': `attachment; filename="${packed.code.replace(/[^\w-]/g, '_')}.spiraxis.zip"`,
    },
  });
}
