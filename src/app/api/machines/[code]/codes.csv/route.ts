import { openBook } from '@/features/codes/server';
import { fileName } from '@/features/gate/fields';
import { found, route } from '@/features/gate/route';
import { writeCodeBook } from '@/formats/codeTables';

/** The machine's code book as a table. */
export const GET = route<{ code: string }>('look', async (_request, { code }) => {
  const { book, machine } = found(await openBook(code), `There is no machine ${code}.`);
  return new Response(writeCodeBook(book), {
    headers: {
      'content-type': 'text/csv; charset=utf-8',
      'content-disposition': `attachment; filename="${fileName(machine.code)}-codes.csv"`,
    },
  });
});
