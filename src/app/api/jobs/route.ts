import { NextResponse } from 'next/server';
import { openBegunJob } from '@/features/desk/newJob';
import { jsonOf, route } from '@/features/gate/route';

const LARGEST = 8000;

/** Opens a job that was begun without the server, under the id that it was given there: asked twice, it is opened once. */
export const POST = route('work', async (request, _params, who) =>
  NextResponse.json(await openBegunJob(who, await jsonOf(request, LARGEST)), {
    headers: { 'cache-control': 'no-store' },
  }),
);
