import { NextResponse } from 'next/server';
import { entryEvents } from '@/features/desk/entriesServer';
import { answerEvents } from '@/features/eventStream';
import { stillSignedIn } from '@/features/people/session';
import { route } from '@/features/gate/route';

/** Entries of a job that arrive after `?after=NUMBER`, as server-sent events. */
export const GET = route<{ number: string }>('look', async (request, { number }, who) => {
  const opened = await entryEvents(number, request.nextUrl.searchParams.get('after') ?? '0');
  if ('problem' in opened) {
    return NextResponse.json(opened.problem, { status: opened.problem.code === 'no-job' ? 404 : 400 });
  }
  return answerEvents(request, opened.stream, () => stillSignedIn(who));
});
