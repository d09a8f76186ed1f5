import { NextResponse, type NextRequest } from 'next/server';
import { functionChoices } from '@/features/desk/functionChoices';

/** Functions that a job can be opened on, for `?q=`. */
export async function GET(request: NextRequest) {
  const text = (request.nextUrl.searchParams.get('q') ?? '').slice(0, 100);
  return NextResponse.json(await functionChoices(text), { headers: { 'cache-control': 'no-store' } });
}
