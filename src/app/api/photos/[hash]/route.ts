import { NextResponse, type NextRequest } from 'next/server';
import { openPhoto } from '@/features/photos/server';

/** A kept picture. Its name is its content, so it may be cached for ever. */
export async function GET(_request: NextRequest, { params }: { params: Promise<{ hash: string }> }) {
  const photo = await openPhoto((await params).hash);
  if (!photo) return NextResponse.json({ message: 'There is no such picture.' }, { status: 404 });
  return new NextResponse(new Uint8Array(photo.bytes), {
    headers: { 'content-type': photo.kind, 'cache-control': 'private, max-age=31536000, immutable' },
  });
}
