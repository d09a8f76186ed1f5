import { fileName } from '@/features/gate/fields';
import { found, route } from '@/features/gate/route';
import { leaveTrail } from '@/features/people/trail';
import { packMachine } from '@/features/machines/archive';

/** The whole machine as one file. */
export const GET = route<{ code: string }>('carryOut', async (_request, { code }, who) => {
  const packed = found(await packMachine(code), `There is no machine ${code}.`);
  await leaveTrail('carriedOut', who, `machine ${packed.code}`);
  return new Response(new Uint8Array(packed.bytes), {
    headers: {
      'content-type': 'application/zip',
      'content-disposition': `attachment; filename="${fileName(packed.code)}.spiraxis.zip"`,
    },
  });
});
