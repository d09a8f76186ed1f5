import { NextResponse, type NextRequest } from 'next/server';
import { entryEvents } from '@/features/desk/entriesServer';
import { answerEvents } from '@/features/eventStream';

/** Entries of a job that arrive after `?after=NUMBER`, as server-sent events. */
export async function GET(request: NextRequest, { params }: { params: Promise<{ number: string }> }) {
  const { number } = await params;
  const opened = await entryEvents(number, request.nextUrl.searchParams.get('after') ?? '0');
  if ('problem' in opened) {
    return NextResponse.json(opened.problem, { status: opened.problem.code === 'no-job' ? 404 : 400 });
  }
  return answerEvents(request, opened.stream);
}
