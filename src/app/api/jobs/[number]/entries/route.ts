import { NextResponse } from 'next/server';
import { appendToJob, entriesAfter, type SaveProblem } from '@/features/desk/entriesServer';
import { route, textOf } from '@/features/gate/route';

const STATUS: Readonly<Record<SaveProblem['code'], number>> = {
  'bad-input': 400,
  'no-job': 404,
  conflict: 409,
  'too-many': 429,
};
/** A full batch of long entries is far under it. */
const LARGEST_BYTES = 4_000_000;

/** Adds entries to a job's log. Sending the same entry twice changes nothing. */
export const POST = route<{ number: string }>('work', async (request, { number }, who) => {
  const answer = await appendToJob(number, await textOf(request, LARGEST_BYTES, 'The request'), who);
  if ('problem' in answer) return NextResponse.json(answer.problem, { status: STATUS[answer.problem.code] });
  return NextResponse.json(answer);
});

/** A piece of a job's log: the entries that follow `?after=NUMBER`, as many as one piece holds. */
export const GET = route<{ number: string }>('look', async (request, { number }) => {
  const answer = await entriesAfter(number, request.nextUrl.searchParams.get('after') ?? '0');
  if ('problem' in answer) return NextResponse.json(answer.problem, { status: STATUS[answer.problem.code] });
  return NextResponse.json(answer.entries, { headers: { 'cache-control': 'no-store' } });
});
