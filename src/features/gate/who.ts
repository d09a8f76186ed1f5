import 'server-only';
import { may, PROVED_TWICE, type Deed } from '@/core/people/roles';
import { mayNotWords } from '@/words/en/people';
import { isDemo } from '../people/demo';
import { signedIn, type Cookies, type Signed } from '../people/session';
import { leaveTrail } from '../people/trail';
import { countCall } from './calls';
import { Refused } from './failure';

const SIGN_IN = 'Nobody is signed in here any more. Sign in; what was written is kept.';
const CHANGE_FIRST = 'Give yourself a password first: the word you came with is for the first sign-in only.';

const WITH_CODE =
  'This is done by who signed in with a password and the code beside it. Sign out, and in again with both: a PIN does not do for it.';
const CODE_FIRST =
  'This asks for a code beside the password, and you have none yet. Press your name, then “PIN, password and this device”, and set one up: a program on a telephone or a computer shows it.';

/**
 * Who asks, if they may do it. Throws {@link Refused}: 401 where nobody is signed in, 403 where their role may not, which is
 * kept in the trail.
 */
export async function whoMay(deed: Deed, cookies: Cookies, asked: string): Promise<Signed> {
  const who = await signedIn(cookies);
  if (!who) throw new Refused(401, 'signed-out', SIGN_IN);
  await countCall(who);
  return judged(deed, who, asked);
}

/** The same of somebody who is known already. */
export async function judged(deed: Deed, who: Signed, asked: string): Promise<Signed> {
  if (who.oneTime && deed !== 'own') throw new Refused(403, 'may-not', CHANGE_FIRST);
  if (may(who.role, deed)) {
    // In the demonstration nobody is anybody, and nobody has a password.
    if (PROVED_TWICE.includes(deed) && !who.twice && !isDemo())
      throw new Refused(403, 'may-not', who.hasCode ? WITH_CODE : CODE_FIRST);
    return who;
  }
  await leaveTrail('mayNot', who, asked);
  throw new Refused(403, 'may-not', mayNotWords(who.role, deed));
}
