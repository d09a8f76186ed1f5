import { route } from '@/features/gate/route';
import { shelfTable } from '@/features/spares/server';

/** The whole shelf. */
export const GET = route(
  'look',
  async () =>
    new Response(await shelfTable(), {
      headers: {
        'content-type': 'text/csv; charset=utf-8',
        'content-disposition': 'attachment; filename="parts.csv"',
        'cache-control': 'no-store',
      },
    }),
);
