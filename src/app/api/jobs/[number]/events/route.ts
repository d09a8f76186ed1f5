import { NextResponse, type NextRequest } from 'next/server';
import { entryEvents } from '@/features/desk/entriesServer';

/** Entries of a job that arrive after `?after=SEQ`, as server-sent events. */
export async function GET(request: NextRequest, { params }: { params: Promise<{ number: string }> }) {
  const { number } = await params;
  const stream = await entryEvents(number, request.nextUrl.searchParams.get('after') ?? '0', request.signal);
  if ('problem' in stream) {
    return NextResponse.json(stream.problem, { status: stream.problem.code === 'no-job' ? 404 : 400 });
  }
  return new NextResponse(stream, {
    headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store', 'x-accel-buffering': 'no' },
  });
}
