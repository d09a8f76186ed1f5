import { route } from '@/features/gate/route';
import { Refused } from '@/features/gate/failure';
import { monthTable } from '@/features/history/server';

const MONTH = /^20\d\d-(0[1-9]|1[0-2])$/;

/** The jobs that were handed over in a month, for `?m=2026-11`. */
export const GET = route('look', async (request) => {
  const asked = request.nextUrl.searchParams.get('m') ?? undefined;
  if (asked !== undefined && !MONTH.test(asked))
    throw new Refused(
      400,
      'bad-input',
      `m: “${asked.toWellFormed().slice(0, 20)}” is no month; write one as 2026-11.`,
    );
  const { name, text } = await monthTable(asked);
  return new Response(text, {
    headers: {
      'content-type': 'text/csv; charset=utf-8',
      'content-disposition': `attachment; filename="${name}"`,
      'cache-control': 'no-store',
    },
  });
});
