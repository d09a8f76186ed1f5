import { NextResponse, type NextRequest } from 'next/server';
import { unpackMachine } from '@/features/machines/archive';

/** Takes in a machine's archive; answers with the code it stands under. */
export async function POST(request: NextRequest) {
  const { searchParams } = request.nextUrl;
  const taken = await unpackMachine(
    await request.arrayBuffer(),
    searchParams.get('person') ?? '',
    searchParams.get('code') ?? undefined,
  );
  if ('trouble' in taken) return NextResponse.json({ message: taken.trouble }, { status: 400 });
  return NextResponse.json(taken);
}
