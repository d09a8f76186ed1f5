import { NextResponse } from 'next/server';
import { appendToJob, type SaveProblem } from '@/features/desk/entriesServer';
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
