import { NextResponse } from 'next/server';
import { checkHealth } from '@/features/health';
import { openRoute } from '@/features/gate/route';

/** 200 while the application and its database answer, else 503. */
export const GET = openRoute(async () => {
  const health = await checkHealth();
  return NextResponse.json(health, {
    status: health.status === 'ok' ? 200 : 503,
    headers: { 'cache-control': 'no-store' },
  });
});
