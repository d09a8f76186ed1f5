import { jobDocument } from '@/features/handover/server';
import { found, route } from '@/features/gate/route';

/** Everything of a job in one open document. */
export const GET = route<{ number: string }>('look', async (_request, { number }) => {
  const document = found(await jobDocument(number), `There is no job ${number}.`);
  return new Response(`${JSON.stringify(document, null, 2)}\n`, {
    headers: {
      'content-type': 'application/json; charset=utf-8',
      'content-disposition': `attachment; filename="job-${Number(number)}.json"`,
    },
  });
});
