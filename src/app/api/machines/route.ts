import { NextResponse } from 'next/server';
import { bodyOf, route } from '@/features/gate/route';
import { LARGEST_ARCHIVE, unpackMachine } from '@/features/machines/archive';

/** Takes in a machine's archive; answers with the code it stands under. */
export const POST = route(async (request) => {
  const { searchParams } = request.nextUrl;
  const taken = await unpackMachine(
    await bodyOf(request, LARGEST_ARCHIVE, 'The archive'),
    searchParams.get('person') ?? '',
    searchParams.get('code') ?? undefined,
  );
  if ('trouble' in taken) return NextResponse.json({ message: taken.trouble }, { status: 400 });
  return NextResponse.json(taken);
});
