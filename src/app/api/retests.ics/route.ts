import { route } from '@/features/gate/route';
import { retestCalendar } from '@/features/retests/server';

/** What is to be looked at again, as an iCalendar feed. */
export const GET = route(async (request) => {
  const text = await retestCalendar(request.nextUrl.origin);
  return new Response(text, {
    headers: {
      'content-type': 'text/calendar; charset=utf-8',
      'content-disposition': 'inline; filename="retests.ics"',
      'cache-control': 'no-store',
    },
  });
});
