import { NextResponse, type NextRequest } from 'next/server';
import { findAnything } from '@/features/palette/server';

/** Jobs and machines for `?q=`. */
export async function GET(request: NextRequest) {
  const text = (request.nextUrl.searchParams.get('q') ?? '').slice(0, 100);
  return NextResponse.json(await findAnything(text), { headers: { 'cache-control': 'no-store' } });
}
