import { NextResponse, type NextRequest } from 'next/server';
import { busEvents, handleMachine } from '@/features/bus/server';
import { answerEvents } from '@/features/eventStream';

interface Context {
  params: Promise<{ code: string }>;
}

/** What the machine's bus says, as server-sent events. */
export async function GET(request: NextRequest, { params }: Context) {
  const { code } = await params;
  return answerEvents(request, (signal) => busEvents(code, signal));
}

/** Puts a function of a simulated machine into a set-up: `{function, setup}`. */
export async function POST(request: NextRequest, { params }: Context) {
  const { code } = await params;
  const answer = await handleMachine(code, await request.text());
  return NextResponse.json(answer, { status: answer.trouble ? 400 : 200 });
}
