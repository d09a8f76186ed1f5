import { NextResponse, type NextRequest } from 'next/server';
import { appendToJob, type SaveProblem } from '@/features/desk/entriesServer';

interface Context {
  params: Promise<{ number: string }>;
}

const STATUS: Readonly<Record<SaveProblem['code'], number>> = {
  'bad-input': 400,
  'no-job': 404,
  conflict: 409,
  'too-many': 429,
};

/** Adds entries to a job's log. Sending the same entry twice changes nothing. */
export async function POST(request: NextRequest, { params }: Context) {
  const { number } = await params;
  const answer = await appendToJob(number, await request.text());
  if ('problem' in answer) return NextResponse.json(answer.problem, { status: STATUS[answer.problem.code] });
  return NextResponse.json(answer);
}
