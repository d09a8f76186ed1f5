import { readingTable } from '@/features/handover/server';
import { found, route } from '@/features/gate/route';

/** Every reading of a job as a table. */
export const GET = route<{ number: string }>(
  'look',
  async (_request, { number }) =>
    new Response(found(await readingTable(number), `There is no job ${number}.`), {
      headers: {
        'content-type': 'text/csv; charset=utf-8',
        'content-disposition': `attachment; filename="job-${Number(number)}-readings.csv"`,
      },
    }),
);
