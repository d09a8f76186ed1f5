import 'server-only';
import { once } from 'node:events';
import { createGzip, type Gzip } from 'node:zlib';
import { writeShed } from '@/db/shedArchive';
import { ofProcess } from '@/db/shed';
import { Refused } from '../gate/failure';

const AGAIN_SECONDS = 30;
/** Whoever takes nothing for so long has gone. */
const PATIENCE_MS = 30_000;

/** One at a time: it holds a connection for as long as whoever fetches it takes. */
const making = ofProcess('shed archive', () => ({ now: false }));

/**
 * The whole shed as one compressed stream, as it stood when it was asked for. What goes wrong on the way ends the stream broken: it lacks its
 * last line, and goes into no shed. Throws {@link Refused} while another is on its way.
 *
 * @param gone that whoever fetches it has gone
 */
export function shedArchive(gone: AbortSignal): Gzip {
  if (making.now)
    throw new Refused(
      429,
      'too-many',
      'Somebody is fetching an archive just now; try again when that is done.',
      AGAIN_SECONDS,
    );
  making.now = true;
  const packed = createGzip();
  writeShed(async (line) => {
    if (packed.destroyed || gone.aborted) throw new Error('nobody fetches it any more');
    // Whoever has gone, or takes nothing, does not hold the database up.
    if (!packed.write(`${line}\n`))
      await once(packed, 'drain', { signal: AbortSignal.any([gone, AbortSignal.timeout(PATIENCE_MS)]) });
  })
    .then(
      () => packed.end(),
      (error: unknown) => packed.destroy(error as Error),
    )
    .finally(() => {
      making.now = false;
    });
  return packed;
}
