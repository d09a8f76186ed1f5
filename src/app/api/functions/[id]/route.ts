import { NextResponse } from 'next/server';
import { trialsOf } from '@/features/desk/functionChoices';

/** What can be tried on a function. */
export async function GET(_request: Request, { params }: { params: Promise<{ id: string }> }) {
  const trials = await trialsOf((await params).id);
  return trials
    ? NextResponse.json({ trials }, { headers: { 'cache-control': 'no-store' } })
    : NextResponse.json({ message: 'There is no such function.' }, { status: 404 });
}
