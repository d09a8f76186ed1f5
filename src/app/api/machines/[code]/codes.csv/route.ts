import { NextResponse } from 'next/server';
import { importBook, LARGEST_TABLE, openBook } from '@/features/codes/server';
import { fileName } from '@/features/gate/fields';
import { bodyOf, found, route } from '@/features/gate/route';
import { leaveTrail } from '@/features/people/trail';
import { writeCodeBook } from '@/formats/codeTables';
import { linesWords } from '@/words/en/codes';

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

/** Takes a table into the machine's code book, whole or not at all. */
export const POST = route<{ code: string }>('draw', async (request, { code }, who) => {
  const text = new TextDecoder().decode(await bodyOf(request, LARGEST_TABLE, 'The table'));
  const added = found(await importBook(code, text.toWellFormed()), `There is no machine ${code}.`);
  await leaveTrail('broughtIn', who, `code book of ${code}: ${linesWords(added)}`);
  return NextResponse.json({ added });
});
