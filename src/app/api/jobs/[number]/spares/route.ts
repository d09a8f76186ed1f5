import { NextResponse } from 'next/server';
import { found, route } from '@/features/gate/route';
import { sparesFor } from '@/features/spares/server';

const MOST = 60;

/** Spares of the shelf that do for a part of the job, for `?part=`. */
export const GET = route<{ number: string }>('look', async (request, { number }) => {
  const part = (request.nextUrl.searchParams.get('part') ?? '').slice(0, MOST).toWellFormed();
  const offered = found(
    await sparesFor(number, part),
    `Job ${number} has no part ${part || 'without a name'}.`,
  );
  return NextResponse.json(offered, { headers: { 'cache-control': 'no-store' } });
});
