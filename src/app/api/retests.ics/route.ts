import type { NextRequest } from 'next/server';
import { route } from '@/features/gate/route';
import { retestCalendar } from '@/features/retests/server';

/** What is to be looked at again, as an iCalendar feed. */
export const GET = route(async (request) => {
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
