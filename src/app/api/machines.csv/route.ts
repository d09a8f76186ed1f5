import { NextResponse } from 'next/server';
import { bodyOf, route } from '@/features/gate/route';
import { leaveTrail } from '@/features/people/trail';
import { fleetTable, takeFleet } from '@/features/machines/fleet';

const LARGEST = 2_000_000;

/** The fleet as a table. */
export const GET = route(
  'look',
  async () =>
    new Response(await fleetTable(), {
      headers: {
        'content-type': 'text/csv; charset=utf-8',
        'content-disposition': 'attachment; filename="fleet.csv"',
        'cache-control': 'no-store',
      },
    }),
);

/** Takes a fleet table in. */
export const POST = route('draw', async (request, _params, who) => {
  const text = new TextDecoder().decode(await bodyOf(request, LARGEST, 'The table'));
  const { added, changed } = await takeFleet(text.toWellFormed(), who.name);
  await leaveTrail('broughtIn', who, `fleet table: ${added} added, ${changed} changed`);
  const machines = (count: number) => `${count} ${count === 1 ? 'machine' : 'machines'}`;
  return NextResponse.json({
    added,
    changed,
    message: `${machines(added)} added, ${machines(changed)} brought up to date.`,
  });
});
