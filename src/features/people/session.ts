import 'server-only';
import { sealData, unsealData } from 'iron-session';
import { LRUCache } from 'lru-cache';
import { z } from 'zod';
import type { Person } from '@/core/people/roles';
import { SESSION_HOURS, sessionStands } from '@/core/people/session';
import type { Provenance } from '@/db/entries';
import {
  beginSession,
  findDevice,
  findSession,
  insertDevice,
  touchSession,
  type DeviceRow,
} from '@/db/people';
import { keyHash, newKey } from './secrets';

/** Somebody who is signed in, and where. */
export interface Signed extends Person {
  accountId: string;
  device: DeviceRow;
  /** Signed in with a word that somebody else gave: nothing is done before it is changed. */
  oneTime: boolean;
  hasPin: boolean;
  hasPassword: boolean;
  /** A code is asked for beside the password. */
  hasCode: boolean;
  /** The session was begun with a password and a code. */
  twice: boolean;
  /** What the session is kept under. */
  sessionHash: string;
}

export interface Cookies {
  get: (name: string) => { value: string } | undefined;
}
export interface CookieToSet {
  name: string;
  value: string;
  options: {
    httpOnly: true;
    sameSite: 'lax';
    secure: boolean;
    path: '/';
    maxAge: number;
  };
}

/** Behind TLS a cookie goes over nothing else, and no neighbour under the same domain can set it. */
const secure = process.env.SPIRAXIS_TLS === '1';
const PREFIX = secure ? '__Host-' : '';
const PERSON_COOKIE = `${PREFIX}spiraxis-person`;
const DEVICE_COOKIE = `${PREFIX}spiraxis-device`;
const SESSION_SECONDS = SESSION_HOURS * 3600;
const DEVICE_SECONDS = 400 * 86_400;
/** A session that is looked at more often than this is not written each time. */
const TOUCH_MS = 60_000;
const LEAST_SECRET = 32;

const sealed = z.object({ key: z.string().min(1).max(100) });

/** What everything that only this server may open is sealed with. */
export function sealingPassword(): string {
  const secret = process.env.SPIRAXIS_SECRET ?? '';
  if (secret.length < LEAST_SECRET)
    throw new Error(`SPIRAXIS_SECRET has under ${LEAST_SECRET} characters: nobody can sign in without it`);
  return secret;
}

/** What a cookie holds; null where it was not sealed by this server, or is over. */
async function keyOf(cookies: Cookies, name: string, seconds: number): Promise<string | null> {
  const value = cookies.get(name)?.value;
  if (!value) return null;
  const known = openedSeals.get(value);
  if (known !== undefined) return known;
  const opened = await unsealData(value, { password: sealingPassword(), ttl: seconds });
  const parsed = sealed.safeParse(opened);
  if (!parsed.success) return null;
  openedSeals.set(value, parsed.data.key);
  return parsed.data.key;
}

/**
 * Seals that were opened a moment ago: opening one takes most of a millisecond by design. Whether the session behind it
 * still stands is asked of the database each time.
 */
const openedSeals = new LRUCache<string, string>({ max: 4000, ttl: 300_000 });

async function cookieOf(name: string, key: string, seconds: number): Promise<CookieToSet> {
  return {
    name,
    value: await sealData({ key }, { password: sealingPassword(), ttl: seconds }),
    options: { httpOnly: true, sameSite: 'lax', secure, path: '/', maxAge: seconds },
  };
}

/** Who is signed in where a request comes from; null where nobody is, or is no longer. */
export async function signedIn(cookies: Cookies, now = new Date()): Promise<Signed | null> {
  const key = await keyOf(cookies, PERSON_COOKIE, SESSION_SECONDS);
  if (key === null) return null;
  const sessionHash = keyHash(key);
  const session = await findSession(sessionHash);
  if (!session || !sessionStands(session, now)) return null;
  const { account, device, seenAt } = session;
  if (account.closed_at !== null) return null;
  // The device's own cookie goes with it: a session carried to another browser is none.
  if ((await deviceOf(cookies))?.id !== device.id) return null;
  if (now.getTime() - seenAt.getTime() > TOUCH_MS) await touchSession(sessionHash, now);
  return {
    name: account.name,
    role: account.role,
    licences: account.licences,
    accountId: account.id,
    device,
    oneTime: account.one_time,
    hasPin: account.pin_hash !== null,
    hasPassword: account.password_hash !== null,
    hasCode: account.code_since !== null,
    twice: session.twice,
    sessionHash,
  };
}

/** What an entry's row keeps of who wrote it, and of who stood by. */
export function provenanceOf({ accountId, device }: Signed, witnessId: string | null = null): Provenance {
  return { accountId, deviceId: device.id, witnessId };
}

/** Whether somebody's session still stands: nobody signed them out, their account is open, and they did something lately. */
export async function stillSignedIn({ sessionHash }: Signed, now = new Date()): Promise<boolean> {
  const session = await findSession(sessionHash);
  return session !== null && session.account.closed_at === null && sessionStands(session, now);
}

/** The device that a request comes from; null for a browser that was never signed in on. */
export async function deviceOf(cookies: Cookies): Promise<DeviceRow | null> {
  const key = await keyOf(cookies, DEVICE_COOKIE, 0);
  return key === null ? null : findDevice(keyHash(key));
}

/** Signs somebody in on a device, or on a new one; gives the cookies that say so from then on. */
export async function signIn(
  accountId: string,
  known: DeviceRow | null,
  now: Date,
  twice = false,
): Promise<{ device: DeviceRow; cookies: CookieToSet[] }> {
  const cookies: CookieToSet[] = [];
  let device = known;
  if (!device) {
    const key = newKey();
    device = await insertDevice(keyHash(key), now);
    cookies.push({
      ...(await cookieOf(DEVICE_COOKIE, key, 0)),
      options: { httpOnly: true, sameSite: 'lax', secure, path: '/', maxAge: DEVICE_SECONDS },
    });
  }
  const key = newKey();
  await beginSession(keyHash(key), accountId, device.id, now, twice);
  cookies.push(await cookieOf(PERSON_COOKIE, key, SESSION_SECONDS));
  return { device, cookies };
}

/** The cookie that says that nobody is signed in. */
export function signedOutCookie(): CookieToSet {
  return {
    name: PERSON_COOKIE,
    value: '',
    options: { httpOnly: true, sameSite: 'lax', secure, path: '/', maxAge: 0 },
  };
}
