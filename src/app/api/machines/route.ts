import { NextResponse } from 'next/server';
import { bodyOf, route } from '@/features/gate/route';
import { leaveTrail } from '@/features/people/trail';
import { LARGEST_ARCHIVE, unpackMachine } from '@/features/machines/archive';

/** Takes in a machine's archive; answers with the code it stands under. */
export const POST = route('draw', async (request, _params, who) => {
  const { searchParams } = request.nextUrl;
  const taken = await unpackMachine(
    await bodyOf(request, LARGEST_ARCHIVE, 'The archive'),
    who.name,
    searchParams.get('code') ?? undefined,
  );
  if ('trouble' in taken) return NextResponse.json({ message: taken.trouble }, { status: 400 });
  await leaveTrail('broughtIn', who, `machine ${taken.code}`);
  return NextResponse.json(taken);
});
