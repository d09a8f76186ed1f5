import { NextResponse } from 'next/server';
import { trialsOfFunction } from '@/features/desk/functionChoices';
import { found, route } from '@/features/gate/route';

/** What can be tried on a function. */
export const GET = route<{ id: string }>('look', async (_request, { id }) =>
  NextResponse.json(
    { trials: found(await trialsOfFunction(id), 'There is no such function.') },
    { headers: { 'cache-control': 'no-store' } },
  ),
);
