import { NextResponse } from 'next/server';
import { openRoute } from '@/features/gate/route';

/** 200 while the process answers at all, whatever its database does; `/api/health` says whether work can be done. */
export const GET = openRoute(() =>
  Promise.resolve(NextResponse.json({ status: 'live' }, { headers: { 'cache-control': 'no-store' } })),
);
