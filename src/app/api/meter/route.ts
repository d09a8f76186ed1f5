import { answerEvents } from '@/features/eventStream';
import { route } from '@/features/gate/route';
import { stillSignedIn } from '@/features/people/session';
import { meterEvents, placeAsked } from '@/features/meter/server';

/** What the shop's meter shows, as server-sent events; `?machine=&function=&test=` say where its leads stand. */
export const GET = route('work', (request, _params, who) => {
  const place = placeAsked(request.nextUrl);
  return Promise.resolve(
    answerEvents(
      request,
      (signal) => meterEvents(place, signal),
      () => stillSignedIn(who),
    ),
  );
});
