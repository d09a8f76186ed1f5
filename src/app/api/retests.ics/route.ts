import type { NextRequest } from 'next/server';
import { openRoute } from '@/features/gate/route';
import { whoMay } from '@/features/gate/who';
import { isFeedKey } from '@/features/people/server';
import { retestCalendar } from '@/features/retests/server';

/**
 * What is to be looked at again, as an iCalendar feed. A calendar program cannot sign in: it comes with its owner's key,
 * which opens this and nothing else.
 */
export const GET = openRoute(async (request) => {
  const key = request.nextUrl.searchParams.get('key');
  if (key === null || !(await isFeedKey(key))) await whoMay('look', request.cookies, 'GET /api/retests.ics');
  const text = await retestCalendar(reachedAt(request));
  return new Response(text, {
    headers: {
      'content-type': 'text/calendar; charset=utf-8',
      'content-disposition': 'inline; filename="retests.ics"',
      'cache-control': 'no-store',
    },
  });
});

/** Address under which the shed was asked; the door has let the name in. */
function reachedAt({ headers, nextUrl }: NextRequest): string {
  const proxied = headers.get('x-forwarded-host');
  if (proxied) return `${headers.get('x-forwarded-proto') ?? 'https'}://${proxied}`;
  return `${nextUrl.protocol}//${headers.get('host') ?? nextUrl.host}`;
}
