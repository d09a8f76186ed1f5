import 'server-only';
import { ONE_TIME_HOURS } from '@/core/people/session';
import { TOLD_OF, type TrailEvent } from '@/core/people/trail';
import { isSecondEyes, samePerson, type Licence, type Role } from '@/core/people/roles';
import {
  accountOfFeed,
  changeAccount,
  dropCode,
  dropOldSessions,
  endSession,
  findAccount,
  insertAccount,
  lastBegun,
  listAccounts,
  putDevice,
  putFeedKey,
  putSecret,
  type AccountRow,
  type DeviceRow,
} from '@/db/people';
import { ofShed } from '@/db/shed';
import { listNotices, listTrail, type ListedTrail } from '@/db/trail';
import { triesOf, type Tries } from '@/db/tries';
import { qrSvg } from '../labels/qrSvg';
import { openPolicy } from '../policy/server';
import { askingNow } from '../gate/asking';
import { Refused } from '../gate/failure';
import type { SignInAsked } from './schema';
import { acceptCode, beginCode, isCode } from './codes';
import { isDemo } from './demo';
import { isGuessable } from './guessable';
import { hashSecret, isSecret, keyHash, newKey, newWord } from './secrets';
import { deviceOf, signIn, type Cookies, type CookieToSet, type Signed } from './session';
import { leaveTrail } from './trail';
import { giveWitness } from './witness';

const HOUR_MS = 3_600_000;
const DAY_MS = 24 * HOUR_MS;
const QUARTER_S = 900;
const SESSIONS_KEPT_DAYS = 90;
const TRAIL_ROWS = 100;
/** One sentence for a name nobody bears, a wrong word, an account that is closed and a word that is over: none is told apart. */
const WRONG =
  'That is not the name and the PIN or password of anybody here. Try again, or ask a lead for a new word.';
const CODE_WANTED = 'Now the code that your program shows, or one of your spare words.';
const CODE_WRONG =
  'That is not the code of now, or it was used already. Wait for the next one; a spare word is good once.';
const PIN_NEEDS_DEVICE =
  'A PIN counts on a device of the shed only. Sign in here once with your password; then the PIN does.';

/** Five wrong ones for a name on a device, sixty from an address; then none is taken for a quarter of an hour. */
const tries = ofShed<{ person: Tries; address: Tries }>('tries', () => ({
  person: triesOf({ name: 'person', most: 5, over: QUARTER_S, pause: QUARTER_S }),
  address: triesOf({ name: 'address', most: 60, over: QUARTER_S, pause: QUARTER_S }),
}));

/** Who can be picked by name where a request comes from; on a device that nobody knows, nobody. */
export async function namesHere(
  cookies: Cookies,
): Promise<{ name: string; role: Role; licences: Licence[]; pin: boolean }[]> {
  if (!isDemo() && !(await deviceOf(cookies))?.trusted) return [];
  return openAccounts(await listAccounts()).map(({ name, role, licences, pin_hash }) => ({
    name,
    role,
    licences,
    pin: pin_hash !== null,
  }));
}

const openAccounts = (accounts: readonly AccountRow[]) =>
  accounts.filter(({ closed_at }) => closed_at === null);

export interface SignedInAnswer {
  name: string;
  role: Role;
  /** The word was for the first sign-in: a password of one's own comes next. */
  oneTime: boolean;
  /** What was changed of their account since they were here last: it may have been somebody else. */
  notices: { what: TrailEvent; by: string; device: string | null; at: string }[];
}

/**
 * Signs somebody in. Throws {@link Refused} with one and the same sentence whatever was wrong, and for a while with no try
 * taken at all after too many wrong ones.
 */
export async function signInWith(
  asked: SignInAsked,
  cookies: Cookies,
  now = new Date(),
): Promise<{ answer: SignedInAnswer; cookies: CookieToSet[] }> {
  const device = await deviceOf(cookies);
  const account = await findAccount(asked.name);
  if ('demo' in asked) {
    if (!isDemo() || !account || account.closed_at !== null) throw new Refused(401, 'signed-out', WRONG);
  } else {
    if ('pin' in asked && !device?.trusted) throw new Refused(401, 'signed-out', PIN_NEEDS_DEVICE);
    await prove(account, asked, device, now);
  }
  const before = await lastBegun(account!.id);
  const twice = 'password' in asked && account!.code_since !== null;
  const signed = await signIn(account!.id, device, now, twice);
  // Where somebody proved it with a password of their own, a PIN counts from now on.
  const trusts = 'demo' in asked || ('password' in asked && !account!.one_time);
  if (trusts && !signed.device.trusted)
    await putDevice(signed.device.id, { name: signed.device.name, trusted: true });
  await leaveTrail(
    'signedIn',
    { name: account!.name, accountId: account!.id, device: signed.device },
    'pin' in asked
      ? 'with a PIN'
      : 'password' in asked
        ? account!.one_time
          ? 'with a first word'
          : twice
            ? 'with a password and a code'
            : 'with a password'
        : 'demonstration',
    now,
  );
  await dropOldSessions(new Date(now.getTime() - SESSIONS_KEPT_DAYS * DAY_MS));
  const { id, name, role, one_time: oneTime } = account!;
  const notices = before ? await listNotices({ accountId: id, name, what: TOLD_OF }, before) : [];
  const told = notices.map(({ what, person, device: on, at }) => ({
    what,
    by: person,
    device: on,
    at: at.toISOString(),
  }));
  return { answer: { name, role, oneTime, notices: told }, cookies: signed.cookies };
}

/**
 * Holds what was typed against what is kept, with wrong tries counted before and after. A code beside the password is asked for
 * where there is one, but where somebody who is signed in proves themselves again (`again`).
 */
async function prove(
  account: AccountRow | null,
  asked: { name: string } & ({ pin: string } | { password: string; code?: string | undefined }),
  device: DeviceRow | null,
  now: Date,
  { again = false } = {},
): Promise<void> {
  const { person, address } = tries();
  const from = askingNow()?.address ?? '';
  // A name on a device: whoever tries names elsewhere shuts nobody out here.
  const key = keyHash(`${asked.name.toLowerCase()} ${device?.id ?? from}`);
  const wait = Math.max(await person.waitFor(key), await address.waitFor(keyHash(from)));
  if (wait > 0) throw tooMany(wait);
  const kept = account?.closed_at === null ? account : null;
  const fits =
    'pin' in asked
      ? await isSecret(kept?.pin_hash ?? null, asked.pin)
      : await isSecret(kept?.password_hash ?? null, asked.password);
  const over = kept?.one_time === true && 'password' in asked && !(kept.one_time_until! > now);
  const wantsCode = kept !== null && kept.code_since !== null && 'password' in asked && !again;
  if (fits && !over) {
    // Nothing is counted: the password is right, and whoever has it is asked for the other half.
    if (wantsCode && !asked.code) throw new Refused(401, 'code-wanted', CODE_WANTED);
    if (!wantsCode || (await isCode(kept, asked.code!, now))) return person.right(key);
  }
  const shut = Math.max(await person.wrong(key), await address.wrong(keyHash(from)));
  const who = { name: asked.name.slice(0, 60), accountId: account?.id ?? '', ...(device ? { device } : {}) };
  const half = 'pin' in asked ? 'PIN' : fits && wantsCode ? 'code' : 'password';
  await leaveTrail(shut > 0 ? 'lockedOut' : 'wrongTry', who, half, now);
  if (shut > 0) throw tooMany(shut);
  if (half === 'code') throw new Refused(401, 'code-wanted', CODE_WRONG);
  throw new Refused(401, 'signed-out', WRONG);
}

function tooMany(seconds: number): Refused {
  const minutes = Math.ceil(seconds / 60);
  return new Refused(
    429,
    'too-many',
    `Too many wrong tries. None is taken for ${minutes} ${minutes === 1 ? 'minute' : 'minutes'}; a lead can give a new word meanwhile.`,
    seconds,
  );
}

export async function signOut(who: Signed, now = new Date()): Promise<void> {
  await endSession(who.sessionHash, now);
  await leaveTrail('signedOut', who, '', now);
}

/** A second person's PIN beside who is signed in; gives what the next entry names it by. */
export async function standBy(
  who: Signed,
  { name, pin }: { name: string; pin: string },
  now = new Date(),
): Promise<{ witness: string; name: string; eyes: boolean }> {
  if (samePerson(name, who.name))
    throw new Refused(
      400,
      'bad-input',
      `${who.name} is signed in already; a second person is somebody else.`,
    );
  if (!who.device.trusted) throw new Refused(401, 'may-not', PIN_NEEDS_DEVICE);
  const account = await findAccount(name);
  await prove(account, { name, pin }, who.device, now);
  const witness = await giveWitness(account!.id, who, now);
  await leaveTrail(
    'witnessed',
    { name: account!.name, accountId: account!.id, device: who.device },
    `beside ${who.name}`,
    now,
  );
  return { witness, name: account!.name, eyes: isSecondEyes(account!) };
}

export type Answer = { trouble: string | null; field?: string };

/** Why somebody who is signed in did not prove themselves once more; null where they did. */
async function provedAgain(
  account: AccountRow,
  who: Signed,
  password: string,
  now: Date,
): Promise<Answer | null> {
  if (account.password_hash === null)
    return { trouble: 'There is no password to prove it with; a lead gives a first word.' };
  try {
    await prove(account, { name: who.name, password }, who.device, now, { again: true });
    return null;
  } catch (error) {
    if (error instanceof Refused && error.status === 401)
      return { trouble: 'That is not the password that stands now.', field: 'now' };
    throw error;
  }
}

/** Changes one's own PIN or password: the password that stands is asked for, where there is one. */
export async function changeOwn(
  who: Signed,
  asked: { now: string } & ({ pin: string } | { password: string }),
  now = new Date(),
): Promise<Answer> {
  const account = (await findAccount(who.name))!;
  // In the demonstration nobody has a password.
  const refused = await provedAgain(account, who, asked.now, now);
  if (refused && !(isDemo() && account.password_hash === null)) return refused;
  if ('pin' in asked && account.one_time)
    return { trouble: 'Give yourself a password first; then a PIN.', field: 'pin' };
  if (
    'password' in asked &&
    isGuessable(asked.password, [account.name, (await openPolicy()).policy.shedName])
  )
    return {
      trouble:
        'That is among the first that anybody tries: a known password, or a name with a number. A sentence of your own is best.',
      field: 'password',
    };
  await putSecret(
    account.id,
    'pin' in asked
      ? { pinHash: await hashSecret(asked.pin) }
      : { passwordHash: await hashSecret(asked.password), oneTimeUntil: null },
    { at: now, exceptKey: who.sessionHash },
  );
  // A device that was signed in on with a first word is one of the shed's as soon as that is changed.
  if (!who.device.trusted && 'password' in asked)
    await putDevice(who.device.id, { name: who.device.name, trusted: true });
  await leaveTrail('secretChanged', who, 'pin' in asked ? 'PIN' : 'password', now);
  return { trouble: null };
}

/** A secret for a program that shows codes, for who gives their password once more. It is asked for once its first code was typed. */
export async function setUpCode(
  who: Signed,
  password: string,
  now = new Date(),
): Promise<Answer & { secret?: string; picture?: string }> {
  const refused = await provedAgain((await findAccount(who.name))!, who, password, now);
  if (refused) return refused;
  const made = await beginCode(who);
  return made
    ? { trouble: null, secret: made.secret, picture: await qrSvg(made.address) }
    : { trouble: 'A code is asked for already; take it off before you set up another.' };
}

/** The first code: from now on one is asked for beside the password. Gives the spare words, which are shown once. */
export async function turnCodeOn(
  who: Signed,
  code: string,
  now = new Date(),
): Promise<Answer & { words?: string[] }> {
  const account = (await findAccount(who.name))!;
  const key = keyHash(`first code ${account.id}`);
  const { person } = tries();
  const wait = await person.waitFor(key);
  if (wait > 0) throw tooMany(wait);
  const words = await acceptCode(account, code, who, now);
  if (!words) {
    const shut = await person.wrong(key);
    if (shut > 0) throw tooMany(shut);
    return {
      trouble: 'That is not the code of now. See that the clock of your program is right.',
      field: 'code',
    };
  }
  await person.right(key);
  await leaveTrail('codeSet', who, '', now);
  return { trouble: null, words };
}

/** No code is asked for any more: for who gives password and code. */
export async function takeCodeOff(
  who: Signed,
  { password, code }: { password: string; code: string },
  now = new Date(),
): Promise<Answer> {
  const account = (await findAccount(who.name))!;
  try {
    await prove(account, { name: who.name, password, code }, who.device, now);
  } catch (error) {
    if (error instanceof Refused && error.status === 401)
      return { trouble: 'That is not the password and the code of now.', field: 'code' };
    throw error;
  }
  await dropCode(account.id, { at: now, exceptKey: who.sessionHash });
  await leaveTrail('codeOff', who, '', now);
  return { trouble: null };
}

/** Calls this device by a name, which entries and the trail then say. */
export async function callDevice(who: Signed, name: string): Promise<Answer> {
  await putDevice(who.device.id, { name, trusted: who.device.trusted });
  await leaveTrail('deviceNamed', who, name);
  return { trouble: null };
}

/** From now on no PIN counts on this device, until somebody signs in on it with a password. */
export async function forgetDevice(who: Signed): Promise<Answer> {
  await putDevice(who.device.id, { name: who.device.name, trusted: false });
  await leaveTrail('deviceNamed', who, 'no PIN counts on it any more');
  return { trouble: null };
}

/** A key for one's own calendar program; it is shown once, and the one before it is good no longer. */
export async function newFeedKey(who: Signed, now = new Date()): Promise<{ trouble: null; key: string }> {
  const key = newKey();
  await putFeedKey(who.accountId, keyHash(key), now);
  await leaveTrail('feedKeyMade', who, '', now);
  return { trouble: null, key };
}

/** Whether a calendar's key is somebody's who still works here. */
export async function isFeedKey(key: string): Promise<boolean> {
  const account = await accountOfFeed(keyHash(key));
  return account !== null && account.closed_at === null;
}

export interface PersonRow {
  name: string;
  role: Role;
  licences: Licence[];
  closed: boolean;
  /** Signs in with a word that was given and is not used yet; until when, ISO. */
  wordUntil: string | null;
  hasPin: boolean;
}

export async function openPeople(): Promise<PersonRow[]> {
  return (await listAccounts()).map((one) => ({
    name: one.name,
    role: one.role,
    licences: one.licences,
    closed: one.closed_at !== null,
    wordUntil: one.one_time && one.one_time_until ? one.one_time_until.toISOString() : null,
    hasPin: one.pin_hash !== null,
  }));
}

/** Makes an account; gives the word for its first sign-in, which is shown once. */
export async function makeAccount(
  who: Pick<Signed, 'name' | 'accountId'> & { device?: Signed['device'] },
  { name, role, licences }: { name: string; role: Role; licences: Licence[] },
  now = new Date(),
): Promise<Answer & { word?: string }> {
  const word = newWord();
  const id = await insertAccount({
    name,
    role,
    licences,
    passwordHash: await hashSecret(word),
    oneTimeUntil: new Date(now.getTime() + ONE_TIME_HOURS * HOUR_MS),
    at: now,
  });
  if (id === null)
    return {
      trouble: `There is, or was, a ${name} here, and a name signs for good: take another.`,
      field: 'name',
    };
  await leaveTrail('accountMade', who, `${name}, ${role}${licences.map((one) => `, ${one}`).join('')}`, now);
  return { trouble: null, word };
}

/** Changes what somebody is, closes their account or opens it again. Their sessions end. */
export async function changePerson(
  who: Signed,
  name: string,
  { role, licences, closed }: { role: Role; licences: Licence[]; closed: boolean },
  now = new Date(),
): Promise<Answer> {
  const account = await findAccount(name);
  if (!account) return { trouble: `Nobody called ${name} works here.` };
  const closedAt = closed ? (account.closed_at ?? now) : null;
  if (!(await changeAccount(account.id, { role, licences, closedAt }, now)))
    return { trouble: `${account.name} is the last lead; make somebody else one first.` };
  const what = closed && account.closed_at === null ? 'accountClosed' : 'accountChanged';
  await leaveTrail(what, who, `${account.name}, ${role}${licences.map((one) => `, ${one}`).join('')}`, now);
  return { trouble: null };
}

/** Gives somebody a new first word; their PIN, password and sessions are good no longer. */
export async function giveNewWord(
  who: Signed,
  name: string,
  now = new Date(),
): Promise<Answer & { word?: string }> {
  const account = await findAccount(name);
  if (!account || account.closed_at !== null) return { trouble: `Nobody called ${name} works here.` };
  const word = newWord();
  const oneTimeUntil = new Date(now.getTime() + ONE_TIME_HOURS * HOUR_MS);
  await putSecret(account.id, { passwordHash: await hashSecret(word), oneTimeUntil }, { at: now });
  await leaveTrail('secretReset', who, account.name, now);
  return { trouble: null, word };
}

/** The trail, the latest first. */
export async function openTrail(
  before: { at: Date; id: string } | undefined,
  person: string | undefined,
): Promise<{ rows: ListedTrail[]; more: { at: string; id: string } | null }> {
  const rows = await listTrail(TRAIL_ROWS + 1, { before, person });
  const page = rows.slice(0, TRAIL_ROWS);
  const last = page.at(-1);
  return {
    rows: page,
    more: rows.length > TRAIL_ROWS && last ? { at: last.at.toISOString(), id: last.id } : null,
  };
}
