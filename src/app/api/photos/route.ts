import { NextResponse, type NextRequest } from 'next/server';
import { keepPhoto } from '@/features/photos/server';

/** Keeps a picture; answers with its content hash. */
export async function POST(request: NextRequest) {
  const kept = await keepPhoto(
    await request.arrayBuffer(),
    request.nextUrl.searchParams.get('use') === 'drawing' ? 'drawing' : 'photo',
  );
  if ('trouble' in kept) return NextResponse.json({ message: kept.trouble }, { status: 400 });
  return NextResponse.json(kept);
}
