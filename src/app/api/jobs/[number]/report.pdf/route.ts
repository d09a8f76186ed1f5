import { reportFile } from '@/features/handover/server';
import { found, route } from '@/features/gate/route';

/** A job's report as a PDF. */
export const GET = route<{ number: string }>(
  'look',
  async (_request, { number }) =>
    new Response(found(await reportFile(number), `There is no job ${number}.`), {
      headers: {
        'content-type': 'application/pdf',
        'content-disposition': `inline; filename="job-${Number(number)}.pdf"`,
        'cache-control': 'no-store',
      },
    }),
);
