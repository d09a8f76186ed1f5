import { NextResponse } from 'next/server';
import { wordsAsked } from '@/features/gate/fields';
import { route } from '@/features/gate/route';
import { findAnything } from '@/features/palette/server';

/** Jobs and machines for `?q=`. */
export const GET = route('look', async (request) =>
  NextResponse.json(await findAnything(wordsAsked(request.nextUrl)), {
    headers: { 'cache-control': 'no-store' },
  }),
);
