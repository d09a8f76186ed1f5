import { NextResponse } from 'next/server';
import { begunFacts } from '@/features/desk/server';
import { found, route } from '@/features/gate/route';

/** What a job on this function would begin with, for a browser that keeps it for a dead spot. */
export const GET = route<{ id: string }>('work', async (_request, { id }, who) =>
  NextResponse.json(found(await begunFacts(id, who), 'There is no such function.'), {
    headers: { 'cache-control': 'no-store' },
  }),
);
