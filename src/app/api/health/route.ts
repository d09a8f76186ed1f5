import { NextResponse } from 'next/server';
import { checkHealth } from '@/features/health';

/** 200 while the application and its database answer, else 503. */
export async function GET() {
  const health = await checkHealth();
  return NextResponse.json(health, {
    status: health.status === 'ok' ? 200 : 503,
    headers: { 'cache-control': 'no-store' },
  });
}
