import { NextResponse } from 'next/server';
import { bodyOf, route } from '@/features/gate/route';
import { LARGEST_BYTES } from '@/features/keepPhoto';
import { keepPhoto } from '@/features/photos/server';

/** Keeps a picture; answers with its content hash. */
export const POST = route('work', async (request) => {
  const kept = await keepPhoto(
    await bodyOf(request, LARGEST_BYTES, 'The picture'),
    request.nextUrl.searchParams.get('use') === 'drawing' ? 'drawing' : 'photo',
  );
  if ('trouble' in kept) return NextResponse.json({ message: kept.trouble }, { status: 400 });
  return NextResponse.json(kept);
});
