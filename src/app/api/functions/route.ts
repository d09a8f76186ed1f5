import { NextResponse } from 'next/server';
import { functionChoices } from '@/features/desk/functionChoices';
import { wordsAsked } from '@/features/gate/fields';
import { route } from '@/features/gate/route';

/** Functions that a job can be opened on, for `?q=`. */
export const GET = route('look', async (request) =>
  NextResponse.json(await functionChoices(wordsAsked(request.nextUrl)), {
    headers: { 'cache-control': 'no-store' },
  }),
);
