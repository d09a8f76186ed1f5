import { Readable } from 'node:stream';
import { route } from '@/features/gate/route';
import { leaveTrail } from '@/features/people/trail';
import { shedArchive } from '@/features/shedArchive/server';

/** The whole shed in one file, for who leads it: lines of JSON, compressed. */
export const GET = route('carryOutShed', async (request, _params, who) => {
  await leaveTrail('carriedOut', who, 'the whole shed');
  return new Response(Readable.toWeb(shedArchive(request.signal)) as ReadableStream<Uint8Array>, {
    headers: {
      'content-type': 'application/gzip',
      'content-disposition': 'attachment; filename="shed.ndjson.gz"',
      'cache-control': 'no-store',
    },
  });
});
