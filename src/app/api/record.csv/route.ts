import { route } from '@/features/gate/route';
import { recordTable } from '@/features/record/server';

/** Every proved job with what was said of it and what it was. */
export const GET = route(
  'look',
  async () =>
    new Response(await recordTable(), {
      headers: {
        'content-type': 'text/csv; charset=utf-8',
        'content-disposition': 'attachment; filename="record.csv"',
        'cache-control': 'no-store',
      },
    }),
);
