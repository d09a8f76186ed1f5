import 'server-only';
import type { TrailEvent } from '@/core/people/trail';
import { insertTrail } from '@/db/trail';
import { askingNow } from '../gate/asking';
import { log } from '../serverLog';
import type { Signed } from './session';

const MOST_LETTERS = 200;

/** Keeps in the trail what somebody did, with where it came from, and says so in the log. */
export async function leaveTrail(
  what: TrailEvent,
  who: Pick<Signed, 'name' | 'accountId'> & { device?: Signed['device'] },
  about = '',
  at = new Date(),
): Promise<void> {
  const asking = askingNow();
  log.info({ trail: what, who: who.name, about }, 'trail');
  await insertTrail({
    what,
    person: who.name,
    accountId: who.accountId === '' ? null : who.accountId,
    deviceId: who.device?.id ?? null,
    address: asking?.address ?? '',
    requestId: asking?.requestId ?? '',
    about: about.slice(0, MOST_LETTERS).toWellFormed(),
    at,
  });
}
