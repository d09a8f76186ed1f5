import { NextResponse } from 'next/server';
import { busEvents, tellBus } from '@/features/bus/server';
import { answerEvents } from '@/features/eventStream';
import { route, textOf } from '@/features/gate/route';
import { stillSignedIn } from '@/features/people/session';

const LARGEST_BYTES = 100_000;

/** What the machine's bus says, as server-sent events. */
export const GET = route<{ code: string }>('look', async (request, { code }, who) =>
  answerEvents(
    request,
    (signal) => busEvents(code, signal),
    () => stillSignedIn(who),
  ),
);

/** Asks a question of the bus, `{ask}`; or puts a function of a simulated machine into a set-up, `{function, setup}`. */
export const POST = route<{ code: string }>('work', async (request, { code }) => {
  const answer = await tellBus(code, await textOf(request, LARGEST_BYTES, 'The request'));
  return NextResponse.json(answer, { status: answer.trouble ? 400 : 200 });
});
